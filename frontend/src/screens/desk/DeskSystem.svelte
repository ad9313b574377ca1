<!-- What the Desk lays over a drawn system: its low ground, what is chosen, the cursor, and a button a
  bar. -->
<script lang="ts">
  import type { Bar, Moment } from '../../api/client'
  import type { AlignedPart } from '../../tab/aligned'
  import { stepText } from '../../components/steps'
  import type { BarBox, SystemPicture } from '../../tab/engrave'
  import Ground from '../../tab/Ground.svelte'
  import { MARGIN } from '../../tab/systems'
  import { LINE_GAP } from '../../tab/strings'
  import ChunkBorders from './ChunkBorders.svelte'
  import type { DeskState } from './desk.svelte'
  import type { LessonState } from './lesson.svelte'

  interface Props {
    desk: DeskState
    lesson: LessonState
    parts: AlignedPart[]
    picture: SystemPicture
    ground: number // height of it
  }
  let { desk, lesson, parts, picture, ground }: Props = $props()
  const height = $derived(picture.height + ground)

  const ownRow = $derived(desk.together ? desk.partIndex : 0)
  const rowOfPart = (row: number) => (desk.together ? row : desk.partIndex)

  function nearestTo(event: MouseEvent, box: BarBox): number {
    const x = event.offsetX + box.x
    let nearest = 0
    box.events.forEach((each, index) => {
      if (Math.abs(each.x - x) < Math.abs(box.events[nearest].x - x)) nearest = index
    })
    return nearest
  }

  // Notes are chosen by drawing over them: from where the pointer went down, once it is on another note.
  let from = $state<Moment | null>(null)
  let drawn = false

  function begin(event: PointerEvent, row: number, index: number, box: BarBox): void {
    const overStaff = event.offsetY <= picture.rows[row].lanes.height
    drawn = false
    from = overStaff && !event.shiftKey ? { bar: index, event: nearestTo(event, box) } : null
    ;(event.currentTarget as HTMLElement).releasePointerCapture(event.pointerId)
  }

  function draw(event: PointerEvent, row: number, index: number, box: BarBox): void {
    if (!from || event.buttons !== 1 || rowOfPart(row) !== desk.partIndex) return
    const to = { bar: index, event: nearestTo(event, box) }
    if (!drawn && to.bar === from.bar && to.event === from.event) return
    drawn = true
    desk.chooseNotes(from, to)
  }

  function choose(event: MouseEvent, row: number, bar: Bar, box: BarBox): void {
    if (drawn) return void (drawn = false)
    const nearest = nearestTo(event, box)
    desk.partIndex = rowOfPart(row)
    const own = parts[row].own[bar.index]
    if (own < 0) return
    const onGround = event.detail === 0 || event.offsetY > picture.rows[row].lanes.height
    if (event.shiftKey) desk.extendTo(own)
    else if (onGround) desk.chooseWorst(own)
    else desk.choose(own, nearest, stringAt(event, picture.rows[row]))
  }

  /** The string that was pointed at. */
  function stringAt(event: MouseEvent, { lanes }: SystemPicture['rows'][number]): number {
    const y = event.offsetY + lanes.number - 14 - lanes.staffTop
    return Math.max(1, Math.round(y / LINE_GAP) + 1)
  }

  /** The hardest bar of a column: its ground lies under all rows. */
  function worstOf(column: number): Bar {
    return parts
      .map((part) => part.bars[column])
      .reduce((worst, bar) => (bar.step > worst.step ? bar : worst))
  }

  /** The places of the chosen figure as far as they lie here, with what differs in them. */
  const places = $derived.by(() => {
    const row = picture.rows[ownRow]
    const at = ({ bar, event }: Moment) => row.bars.find(({ index }) => index === bar)?.events[event]?.x
    const left = row.bars[0].index
    const right = row.bars[row.bars.length - 1].index
    return (parts[ownRow].figures[desk.figure]?.places ?? [])
      .filter(({ first, last }) => first.bar <= right && last.bar >= left)
      .map(({ first, last, where, but }) => ({
        where,
        from: (at(first) ?? MARGIN) - 13,
        to: (at(last) ?? picture.width - 15) + 13,
        but: but.map(at).filter((x) => x !== undefined),
      }))
  })

  /** The chosen notes as far as they lie here. */
  const chosen = $derived.by(() => {
    const { notes } = desk
    const row = picture.rows[ownRow]
    const at = ({ bar, event }: Moment) => row.bars.find(({ index }) => index === bar)?.events[event]?.x
    const left = row.bars[0].index
    const right = row.bars[row.bars.length - 1].index
    if (!notes || notes.first.bar > right || notes.last.bar < left) return null
    return { from: at(notes.first), to: at(notes.last) }
  })

  const cursorX = $derived.by(() => {
    const { cursor } = desk
    const row = picture.rows[0]
    const box = cursor && row.bars.find((bar) => bar.index === cursor.bar)
    return box ? (box.events[cursor!.event]?.x ?? null) : null
  })
</script>

<svg
  class="pointer-events-none absolute inset-0 overflow-visible"
  width={picture.width}
  {height}
  aria-hidden="true"
>
  {#each picture.rows as row, at (at)}
    {@const own = at === ownRow}
    {@const last = at === picture.rows.length - 1}
    {#if picture.rows.length > 1}<text
        x={MARGIN}
        y={row.top - 5}
        class="fill-ink text-[13px] {own ? 'font-bold' : ''}">{parts[at].name || `part ${at + 1}`}</text
      >{/if}
    {#if last}<g transform="translate(0 {row.top + row.lanes.height})">
        <Ground bars={row.bars.map((box) => worstOf(box.index))} places={row.bars} height={ground} />
      </g>{/if}
    {#if own}
      {#each places as { where, from, to, but }, at (at)}
        {@const top = row.top + row.lanes.staffTop - 11}
        {@const bottom = row.top + row.lanes.staffBottom + 11}
        <rect
          data-figure-place={where}
          x={from}
          y={top}
          width={to - from}
          height={bottom - top}
          rx="7"
          class="fill-changed/10 stroke-changed"
          stroke-width="1.5"
          stroke-dasharray="5 3"
        />
        {#each but as x, at (at)}<path
            data-differs={where}
            d="M{x - 6} {bottom}h12l-6 -8z"
            class="fill-changed"
          />{/each}
      {/each}
      {#if chosen}
        {@const left = (chosen.from ?? MARGIN) - 13}
        <rect
          data-chosen-notes
          x={left}
          y={row.top + row.lanes.staffTop - 14}
          width={(chosen.to ?? picture.width - 15) + 13 - left}
          height={row.lanes.staffBottom - row.lanes.staffTop + 28}
          rx="6"
          class="fill-changed/10 stroke-ink"
          stroke-width="2"
        />
      {/if}
      {#each row.bars as box (box.index)}
        {@const index = parts[at].own[box.index]}
        {#if index >= 0 && desk.isChosen(index) && !desk.notes}
          <rect
            x={box.x}
            y={row.top + row.lanes.number - 12}
            width={box.width}
            height={row.lanes.height - row.lanes.number + 11 + (last ? ground : 0)}
            rx="3"
            class="fill-none stroke-ink"
            stroke-width="2"
          />
          {#if index === desk.bar && box.events[desk.event]}
            <rect
              x={box.events[desk.event].x - 11}
              y={row.top + row.lanes.staffTop - 9}
              width="22"
              height={row.lanes.staffBottom - row.lanes.staffTop + 18}
              rx="6"
              class="fill-none stroke-changed"
              stroke-width="1.5"
            />
          {/if}
        {/if}
      {/each}
    {/if}
  {/each}
  {#if cursorX !== null}
    <line x1={cursorX} x2={cursorX} y1="12" y2={height} stroke="var(--changed)" stroke-width="2" />
  {/if}
</svg>
{#each picture.rows as row, at (at)}
  {@const own = at === ownRow}
  {#each row.bars as box (box.index)}
    {@const bar = parts[at].bars[box.index]}
    {@const index = parts[at].own[box.index]}
    {#if index >= 0}
      <button
        class="absolute cursor-pointer bg-transparent"
        style:left="{box.x}px"
        style:top="{row.top + row.lanes.number - 14}px"
        style:width="{box.width}px"
        style:height="{row.lanes.height -
          row.lanes.number +
          13 +
          (at === picture.rows.length - 1 ? ground : 0)}px"
        tabindex={own && (desk.bar === index || (desk.bar < 0 && index === 0)) ? 0 : -1}
        data-bar={own ? index : undefined}
        aria-pressed={own && desk.isChosen(index)}
        aria-label="{parts.length > 1 ? `${parts[at].name}, bar` : 'Bar'} {bar.number}, Step {stepText(
          bar.step,
        )}, hardest by {bar.hardest_measure}{bar.past_hand ? ', past this hand' : ''}"
        onpointerdown={(event) => begin(event, at, index, box)}
        onpointermove={(event) => draw(event, at, index, box)}
        onclick={(event) => choose(event, at, bar, box)}
      ></button>
    {/if}
  {/each}
{/each}
{#if parts.length > 0}<ChunkBorders {lesson} row={picture.rows[ownRow]} />{/if}
