<script lang="ts">
  import type { AlignedPart } from '../../tab/aligned'
  import { layers } from '../../tab/layers.svelte'
  import Score from '../../tab/Score.svelte'
  import type { DeskState } from './desk.svelte'
  import type { LessonState } from './lesson.svelte'
  import DeskSystem from './DeskSystem.svelte'

  let { desk, lesson, parts }: { desk: DeskState; lesson: LessonState; parts: AlignedPart[] } = $props()
  let width = $state(0)
  let scroller: HTMLElement
  const padding = $derived(width < 600 ? 24 : 48)
  const GROUND = 34

  // What is chosen or sounding comes into sight, its system first where it is not drawn yet.
  $effect(() => {
    const bar = desk.cursor?.bar ?? desk.bar
    if (bar < 0) return
    const button = scroller.querySelector<HTMLElement>(`[data-bar="${bar}"]`)
    const place = button ?? scroller.querySelector<HTMLElement>(`[data-system~="${bar}"]`)
    place?.scrollIntoView({ block: 'nearest' })
    if (button && document.activeElement instanceof HTMLElement && document.activeElement.dataset.bar)
      button.focus({ preventScroll: true })
  })
</script>

<section
  bind:this={scroller}
  bind:clientWidth={width}
  class="relative min-h-0 overflow-y-auto px-6 py-3 max-lg:overflow-visible max-sm:px-3"
  aria-label="Tab"
  style:scroll-padding="16px"
>
  <Score {parts} {layers} width={width - padding} below={GROUND + 12} head={parts.length > 1 ? 20 : 0}>
    {#snippet over(picture)}<DeskSystem {desk} {lesson} {parts} {picture} ground={GROUND} />{/snippet}
  </Score>
</section>
