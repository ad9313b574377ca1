<!-- The two borders of the chosen chunk, to be dragged to another note or moved with the arrow keys. -->
<script lang="ts">
  import type { Moment } from '../../api/client'
  import type { SystemPicture } from '../../tab/engrave'
  import type { LessonState } from './lesson.svelte'

  interface Props {
    lesson: LessonState
    row: SystemPicture['rows'][number]
  }
  let { lesson, row }: Props = $props()
  let dragged = $state<{ index: number; x: number } | null>(null)

  const xOf = ({ bar, event }: Moment): number | undefined =>
    row.bars.find(({ index }) => index === bar)?.events[event]?.x
  /** Where this chunk begins, and where the next does; the part's own beginning does not move. */
  const borders = $derived(
    [lesson.chosen, lesson.chosen + 1]
      .filter((index) => index > 0 && lesson.chunk !== null && lesson.chunks[index])
      .map((index) => ({ index, x: xOf(lesson.chunks[index].first) }))
      .filter((border): border is { index: number; x: number } => border.x !== undefined),
  )

  function nearest(x: number): Moment {
    const all = row.bars.flatMap((bar) =>
      bar.events.map((each, event) => ({ bar: bar.index, event, x: each.x })),
    )
    const struck = all.filter(({ bar, event }) => lesson.isStruck({ bar, event }))
    return struck.reduce((best, each) => (Math.abs(each.x - x) < Math.abs(best.x - x) ? each : best))
  }

  function drop(): void {
    if (!dragged) return
    const { bar, event } = nearest(dragged.x)
    void lesson.moveBorder(dragged.index, { bar, event })
    dragged = null
  }

  function press(event: KeyboardEvent, index: number): void {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0
    if (by === 0) return
    event.preventDefault()
    event.stopPropagation()
    void lesson.nudge(index, by)
  }
</script>

{#each borders as { index, x } (index)}
  {@const at = dragged?.index === index ? dragged.x : x}
  <button
    class="absolute z-10 w-4 cursor-ew-resize touch-none bg-transparent"
    style:left="{at - 22}px"
    style:top="{row.top + row.lanes.staffTop - 20}px"
    style:height="{row.lanes.staffBottom - row.lanes.staffTop + 40}px"
    aria-label="Border before chunk {lesson.chunks[index].called}, moved with the arrow keys"
    onkeydown={(event) => press(event, index)}
    onpointerdown={(event) => {
      event.currentTarget.setPointerCapture(event.pointerId)
      dragged = { index, x }
    }}
    onpointermove={(event) => {
      if (dragged && event.buttons === 1) dragged = { index, x: dragged.x + event.movementX }
    }}
    onpointerup={drop}><span class="pointer-events-none mx-auto block h-full w-[3px] bg-ink"></span></button
  >
{/each}
