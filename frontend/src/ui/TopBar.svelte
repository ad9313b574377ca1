<!-- The head of every screen: the way back, what is shown, its Step and for whom, and what can be done. -->
<script lang="ts">
  import ArrowLeft from '@lucide/svelte/icons/arrow-left'
  import type { Snippet } from 'svelte'
  import StepBadge from '../components/StepBadge.svelte'

  interface Props {
    back?: { href: string; words: string }
    title: string
    under?: string // a line below it
    step?: number
    assumed?: boolean
    whom?: Snippet // who it is for, beside the Step
    children?: Snippet
  }
  /** On another screen those who use keys or a screen reader begin at its name. */
  function focused(heading: HTMLElement): void {
    if (document.activeElement === document.body) heading.focus({ preventScroll: true })
  }

  let { back, title, under = '', step, assumed, whom, children }: Props = $props()
</script>

<header class="top-bar">
  {#if back}<a href={back.href} class="icon-link" title={back.words}
      ><ArrowLeft size={18} /><span class="max-sm:sr-only">{back.words}</span></a
    >{/if}
  <div class="min-w-0 leading-tight">
    <h1 class="truncate text-xl leading-tight outline-none" {title} tabindex="-1" {@attach focused}>
      {title}
    </h1>
    {#if under}<p class="truncate text-[13px] text-quiet">{under}</p>{/if}
  </div>
  {#if step !== undefined}<span data-testid="song-step"><StepBadge {step} {assumed} /></span>{/if}
  {@render whom?.()}
  <span class="grow"></span>
  {@render children?.()}
</header>
