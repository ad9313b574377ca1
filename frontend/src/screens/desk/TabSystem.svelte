<script lang="ts">
  import type { Bar, Event, Part } from '../../api/client'
  import { ridge, stepY } from '../../components/climb'
  import { MEASURE_SIGNS } from '../../components/measures'
  import { onStepColour, stepColour, stepText } from '../../components/steps'
  import type { DeskState } from './desk.svelte'
  import { drawRows, topOf, type SystemBox } from './engrave'
  import { fingerRow } from './fingers'
  import { MARGIN, type SystemBars } from './layout'

  let { desk, part, system }: { desk: DeskState; part: Part; system: SystemBars } = $props()

  const CLIMB = 62
  const ROW = 16
  const strings = $derived(part.neck.string_letters.length)
  const bars = $derived(system.bars)
  const hasChords = $derived(
    desk.layers.chords && bars.some((bar) => bar.events.some((event) => event.chord)),
  )
  const hasRemarks = $derived(bars.some((bar) => bar.events.some((event) => event.remark)))
  const hasWords = $derived(bars.some((bar) => bar.events.some((event) => wordsOf(event).length > 0)))
  const headroom = $derived(20 + ROW * (Number(hasChords) + Number(hasRemarks) + Number(hasWords)))
  const below = $derived(
    ROW *
      (Number(desk.layers.fingers) +
        Number(desk.layers.picking && hasPicking()) +
        Number(desk.layers.counts)) +
      10,
  )
  const staffBottom = $derived(topOf(headroom) + (strings - 1) * 14)
  const climbTop = $derived(staffBottom + below)
  const height = $derived(climbTop + CLIMB)
  const width = $derived(MARGIN + system.widths.reduce((sum, each) => sum + each, 0) + 2)
  let host: HTMLDivElement
  let drawn = $state.raw<SystemBox | null>(null)
  // Until the effect has drawn the new bars, the places of the old ones mean nothing.
  const box = $derived(
    drawn && drawn.bars.length === bars.length && drawn.bars[0].index === bars[0].index ? drawn : null,
  )

  $effect(() => {
    drawn = drawRows(host, [{ bars, top: topOf(headroom) }], system.widths, strings, height)[0]
  })

  function hasPicking(): boolean {
    return bars.some((bar) =>
      bar.events.some((event) => event.stroke || event.notes.some((note) => note.picking)),
    )
  }

  /** What stands over an event: words for all its notes, then those for some strings, then how loud. */
  function wordsOf(event: Event): string[] {
    const forAll = event.how.map((technique) => {
      const sign = desk.signs[technique] ?? technique
      return technique === 'whammy_dip' && event.dip !== null ? `${sign} ${event.dip}` : sign
    })
    return [...forAll, ...event.words_by_string, ...(event.dynamic ? [event.dynamic] : [])]
  }

  function pickingOf(event: Event): string {
    return event.notes
      .map((note) => note.picking ?? '')
      .reverse()
      .join('')
  }

  const rowY = $derived({
    chord: 14,
    remark: 14 + ROW * Number(hasChords),
    words: 14 + ROW * (Number(hasChords) + Number(hasRemarks)),
    number: headroom - 5,
    finger: staffBottom + 18,
    picking: staffBottom + 18 + ROW * Number(desk.layers.fingers),
    count:
      staffBottom + 18 + ROW * (Number(desk.layers.fingers) + Number(desk.layers.picking && hasPicking())),
  })
  const ground = $derived(
    (box?.bars ?? []).map((bar, at) => ({ x: bar.x, width: bar.width, step: bars[at].step })),
  )

  function choose(event: MouseEvent, bar: Bar, at: number): void {
    const events = box?.bars[at].events ?? []
    const x = event.offsetX + (box?.bars[at].x ?? 0)
    let nearest = 0
    events.forEach((each, index) => {
      if (Math.abs(each.x - x) < Math.abs(events[nearest].x - x)) nearest = index
    })
    const onGround = event.detail === 0 || event.offsetY > climbTop - rowY.number + 14 - 18
    if (event.shiftKey) desk.extendTo(bar.index)
    else if (onGround) desk.chooseWorst(bar.index)
    else desk.choose(bar.index, nearest)
  }

  /** Words of one kind over neighbouring events are written once, with a line to the last. */
  function wordRuns(bar: Bar, at: number): { x: number; end: number; text: string }[] {
    const runs: { x: number; end: number; text: string }[] = []
    let before = ''
    bar.events.forEach((event, index) => {
      const text = [
        ...wordsOf(event),
        ...(event.free ? ['free'] : []),
        ...(event.uncertain ? ['?'] : []),
      ].join(' ')
      const x = box?.bars[at].events[index]?.x ?? 0
      if (text && text === before) runs[runs.length - 1].end = x
      else if (text) runs.push({ x, end: x, text })
      before = text
    })
    return runs
  }

  const cursorX = $derived.by(() => {
    const cursor = desk.cursor
    const at = cursor ? bars.findIndex((bar) => bar.index === cursor.bar) : -1
    return at >= 0 && cursor ? (box?.bars[at].events[cursor.event]?.x ?? null) : null
  })
</script>

<div class="relative" style:width="{width}px" style:height="{height}px">
  <div bind:this={host} class="absolute inset-0" aria-hidden="true"></div>
  <svg class="pointer-events-none absolute inset-0 overflow-visible" {width} {height} aria-hidden="true">
    <g class="fill-quiet font-mono text-[12px]">
      {#each part.neck.string_letters as letter, index (index)}
        <text x="6" y={staffBottom - (strings - 1 - index) * 14 + 4}>{letter}</text>
      {/each}
    </g>
    {#if box}
      {#each bars as bar, at (bar.index)}
        {@const here = box.bars[at]}
        {@const fingers = fingerRow(bar.events)}
        <text x={here.x + 3} y={rowY.number} class="fill-quiet text-[12px]"
          >{bar.number}{bar.uncertain ? ' ?' : ''}</text
        >
        {#if bar.metre_changed || bar.index === 0}<text
            x={here.x + 22}
            y={rowY.number}
            class="fill-ink text-[13px] font-bold">{bar.metre}</text
          >{/if}
        {#if bar.tempo}<text x={here.x + 70} y={rowY.number} class="fill-ink text-[13px]"
            >{bar.tempo} a minute</text
          >{/if}
        {#if bar.endings.length > 0}<text x={here.x + 46} y={rowY.number} class="fill-ink text-[13px]"
            >{bar.endings.join('. ')}.</text
          >{/if}
        {#if bar.repeat_times > 2}<text
            x={here.x + here.width - 26}
            y={rowY.number}
            class="fill-ink text-[13px]">x{bar.repeat_times}</text
          >{/if}
        {#each bar.events as event, index (index)}
          {@const x = here.events[index]?.x ?? here.x}
          {#if event.chord && desk.layers.chords}<text
              {x}
              y={rowY.chord}
              text-anchor="middle"
              class="fill-ink text-[14px] font-bold">{event.chord}</text
            >{/if}
          {#if event.remark}<text
              x={Math.min(x - 4, width - event.remark.length * 6.1)}
              y={rowY.remark}
              class="fill-quiet text-[12.5px] italic">{event.remark}</text
            >{/if}
          {#if desk.layers.fingers}
            <text
              {x}
              y={rowY.finger}
              text-anchor="middle"
              class="font-mono text-[12px] {event.notes.some((note) => note.finger_pinned)
                ? 'fill-ink font-bold'
                : 'fill-quiet'}"
            >
              {fingers[index]}
            </text>
          {/if}
          {#if desk.layers.picking && (event.stroke || event.notes.some((note) => note.picking))}
            {#if event.stroke}
              <path
                d={event.stroke === 'D'
                  ? `M${x - 4} ${rowY.picking}v-9h8v9`
                  : `M${x - 4} ${rowY.picking - 9}l4 9 4-9`}
                class="fill-none stroke-quiet"
                stroke-width="1.5"
              />
            {:else}
              <text {x} y={rowY.picking} text-anchor="middle" class="fill-quiet text-[12px] italic"
                >{pickingOf(event)}</text
              >
            {/if}
          {/if}
          {#if desk.layers.counts}<text
              {x}
              y={rowY.count}
              text-anchor="middle"
              class="fill-quiet font-mono text-[12px]">{event.count}</text
            >{/if}
        {/each}
        {#each wordRuns(bar, at) as run, index (index)}
          <text x={run.x - 6} y={rowY.words} class="fill-quiet text-[12px]">{run.text}</text>
          {#if run.end > run.x}
            <line
              x1={run.x + run.text.length * 7}
              x2={run.end + 5}
              y1={rowY.words - 4}
              y2={rowY.words - 4}
              class="stroke-quiet"
              stroke-dasharray="3 3"
            />
            <line
              x1={run.end + 5}
              x2={run.end + 5}
              y1={rowY.words - 8}
              y2={rowY.words}
              class="stroke-quiet"
            />
          {/if}
        {/each}
      {/each}

      <g transform="translate(0 {climbTop})">
        {#each [2, 4, 6, 8] as level (level)}
          <line
            x1={MARGIN}
            x2={width}
            y1={stepY(level, CLIMB)}
            y2={stepY(level, CLIMB)}
            stroke="var(--contour)"
            stroke-dasharray="1 4"
          />
          {#if level % 4 === 0}<text
              x={MARGIN - 8}
              y={stepY(level, CLIMB) + 4}
              text-anchor="end"
              class="fill-quiet text-[11px]">{level}</text
            >{/if}
        {/each}
        {#each ground as column, at (bars[at].index)}
          {@const y = stepY(column.step, CLIMB)}
          <rect x={column.x} width={column.width} {y} height={CLIMB - y} fill={stepColour(column.step)} />
          {@const low = CLIMB - y < 14}
          <text
            x={column.x + column.width / 2}
            y={low ? y - 4 : CLIMB - 3.5}
            text-anchor="middle"
            class="text-[12.5px] font-bold"
            fill={low ? 'var(--ink)' : onStepColour(column.step)}>{stepText(column.step)}</text
          >
          <g
            transform="translate({column.x + column.width / 2 - (low ? 32 : 7)} {y - 16}) scale(0.875)"
            class="fill-none stroke-ink"
            stroke-width="1.8"
            stroke-linecap="round"
            stroke-linejoin="round"
          >
            <path d={MEASURE_SIGNS[bars[at].hardest_measure]} />
          </g>
          {#if bars[at].past_hand}
            <path
              d="M{column.x + column.width - 14} {y}v-15h10l-3 4 3 4h-10"
              fill="var(--past-hand)"
              stroke="var(--past-hand)"
            />
          {/if}
        {/each}
        <path d={ridge(ground, CLIMB)} fill="none" stroke="var(--ink)" stroke-width="2" />
      </g>

      {#each box.bars as here (here.index)}
        {#if desk.isChosen(here.index)}
          <rect
            x={here.x}
            y={rowY.number - 14}
            width={here.width}
            height={height - rowY.number + 13}
            rx="3"
            class="fill-none stroke-ink"
            stroke-width="2"
          />
          {#if here.index === desk.bar && here.events[desk.event]}
            <rect
              x={here.events[desk.event].x - 11}
              y={topOf(headroom) - 9}
              width="22"
              height={staffBottom - topOf(headroom) + 18}
              rx="6"
              class="fill-none stroke-changed"
              stroke-width="1.5"
            />
          {/if}
        {/if}
      {/each}
      {#if cursorX !== null}
        <line
          x1={cursorX}
          x2={cursorX}
          y1={topOf(headroom) - 30}
          y2={height}
          stroke="var(--changed)"
          stroke-width="2"
        />
      {/if}
    {/if}
  </svg>
  {#each box?.bars ?? [] as here, at (here.index)}
    <button
      class="absolute cursor-pointer bg-transparent"
      style:left="{here.x}px"
      style:top="{rowY.number - 14}px"
      style:width="{here.width}px"
      style:height="{height - rowY.number + 13}px"
      tabindex={desk.bar === here.index || (desk.bar < 0 && here.index === 0) ? 0 : -1}
      data-bar={here.index}
      aria-pressed={desk.isChosen(here.index)}
      aria-label="Bar {bars[at].number}, Step {stepText(bars[at].step)}, hardest by {bars[at]
        .hardest_measure}{bars[at].past_hand ? ', past this hand' : ''}"
      onclick={(event) => choose(event, bars[at], at)}
    ></button>
  {/each}
</div>
