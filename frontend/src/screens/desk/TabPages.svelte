<script lang="ts">
  import { untrack } from 'svelte'
  import type { AlignedPart } from '../../tab/aligned'
  import { layers } from '../../tab/layers.svelte'
  import type { Following } from '../../tab/following.svelte'
  import Score from '../../tab/Score.svelte'
  import type { DeskState } from './desk.svelte'
  import type { LessonState } from './lesson.svelte'
  import DeskSystem from './DeskSystem.svelte'

  interface Props {
    desk: DeskState
    lesson: LessonState
    parts: AlignedPart[]
    following: Following
  }
  let { desk, lesson, parts, following }: Props = $props()
  let width = $state(0)
  let scroller: HTMLElement
  const padding = $derived(width < 600 ? 24 : 48)
  const GROUND = 34

  // What sounds is followed; what is chosen comes into sight, its system first where it is not drawn yet.
  $effect(() => {
    if (desk.cursor) following.show(scroller, desk.cursor.bar)
  })
  $effect(() => {
    const bar = desk.bar
    if (bar < 0 || untrack(() => desk.cursor !== null)) return
    const button = scroller.querySelector<HTMLElement>(`[data-bar="${bar}"]`)
    const place = button ?? scroller.querySelector<HTMLElement>(`[data-system~="${bar}"]`)
    place?.scrollIntoView({ block: 'nearest' })
    if (button && document.activeElement instanceof HTMLElement && document.activeElement.dataset.bar)
      button.focus({ preventScroll: true })
  })
</script>

<svelte:window onscroll={() => following.scrolled()} />
<section
  bind:this={scroller}
  bind:clientWidth={width}
  onscroll={() => following.scrolled()}
  class="relative min-h-0 overflow-y-auto px-6 py-3 max-lg:overflow-visible max-sm:px-3"
  aria-label="Tab"
  style:scroll-padding="16px"
>
  <Score {parts} {layers} width={width - padding} below={GROUND + 12} head={parts.length > 1 ? 20 : 0}>
    {#snippet over(picture)}<DeskSystem {desk} {lesson} {parts} {picture} ground={GROUND} />{/snippet}
  </Score>
</section>
