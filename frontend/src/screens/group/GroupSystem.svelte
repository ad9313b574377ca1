<script lang="ts">
  import type { Seat } from '../../api/client'
  import { stepText } from '../../components/steps'
  import { drawRows, LINE_GAP, topOf, type SystemBox } from '../desk/engrave'
  import { MARGIN, type SystemBars } from '../desk/layout'

  interface Props {
    seats: Seat[]
    system: SystemBars
    cursor: { bar: number; event: number } | null
  }
  let { seats, system, cursor }: Props = $props()
  const hasChords = $derived(
    seats.some((seat) =>
      system.bars.some((bar) => seat.part.bars[bar.index].events.some((event) => event.chord)),
    ),
  )
  const head = $derived(hasChords ? 52 : 38)
  const strings = $derived(Math.max(...seats.map((seat) => seat.part.neck.string_letters.length)))
  const staff = $derived((strings - 1) * LINE_GAP)
  const between = $derived(topOf(head) + staff + 16)
  const rows = $derived(
    seats.map((seat, at) => ({
      seat,
      bars: system.bars.map((bar) => seat.part.bars[bar.index]),
      top: topOf(head) + at * between,
    })),
  )
  const height = $derived(rows.length * between + 6)
  const width = $derived(MARGIN + system.widths.reduce((sum, each) => sum + each, 0) + 2)
  let host: HTMLDivElement
  let drawn = $state.raw<{ of: typeof rows; boxes: SystemBox[] } | null>(null)
  const boxes = $derived(drawn?.of === rows ? drawn.boxes : null)

  $effect(() => {
    drawn = { of: rows, boxes: drawRows(host, rows, system.widths, strings, height) }
  })

  const cursorX = $derived.by(() => {
    const at = cursor ? system.bars.findIndex((bar) => bar.index === cursor.bar) : -1
    return at >= 0 && cursor ? (boxes?.[0].bars[at]?.events[cursor.event]?.x ?? null) : null
  })
</script>

<div
  class="relative break-inside-avoid"
  style:width="{width}px"
  style:height="{height}px"
  data-system={system.bars.map((bar) => bar.index).join(' ')}
>
  <div bind:this={host} class="absolute inset-0" aria-hidden="true"></div>
  <svg
    class="absolute inset-0 overflow-visible"
    {width}
    {height}
    role="img"
    aria-label="Bars {system.bars[0].number} to {system.bars.at(-1)?.number}, {seats
      .map((seat) => seat.who)
      .join(', ')} under one another"
  >
    {#each boxes ? rows : [] as row, at (at)}
      <text x={MARGIN} y={row.top - head - 22} class="fill-ink text-[13px]"
        ><tspan class="font-bold">{row.seat.who}</tspan><tspan class="fill-quiet" dx="8"
          >{row.seat.plays}, Step {stepText(row.seat.step)}</tspan
        ></text
      >
      {#each row.bars as bar, index (bar.index)}
        {@const box = boxes![at].bars[index]}
        <text x={box.x + 3} y={row.top - 44} class="fill-quiet text-[12px]">{bar.number}</text>
        {#each bar.events as event, number (number)}
          {#if event.chord}<text
              x={box.events[number].x}
              y={row.top - 58}
              text-anchor="middle"
              class="fill-ink text-[13px] font-bold">{event.chord}</text
            >{/if}
        {/each}
      {/each}
    {/each}
    {#if cursorX !== null}<line
        x1={cursorX}
        x2={cursorX}
        y1="8"
        y2={height - 12}
        stroke="var(--changed)"
        stroke-width="2"
      />{/if}
  </svg>
</div>
