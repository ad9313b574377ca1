<!-- The climb of a whole song, its sections as a strip on top; a click goes to a bar. -->
<script lang="ts">
  import type { Part } from '../api/client'
  import { columns, ridge, stepY } from './climb'
  import { MEASURE_SIGNS } from './measures'
  import { sectionTint } from './sections'
  import { stepColour, stepText } from './steps'

  interface Props {
    part: Part
    height?: number
    chosen?: (bar: number) => boolean
    sounding?: number // bar, -1 = none
    onchoose?: (bar: number, extend: boolean) => void
  }
  let { part, height = 84, chosen, sounding = -1, onchoose }: Props = $props()
  const LEFT = 22
  const STRIP = 18
  let width = $state(0)
  const ground = $derived(
    columns(
      part.bars.map((bar) => bar.quarters),
      part.bars.map((bar) => bar.step),
      Math.max(width - LEFT - 2, 10),
    ).map((column) => ({ ...column, x: column.x + LEFT })),
  )
  const strips = $derived(
    part.sections.map((section, at) => {
      const from = ground[section.first_bar]?.x ?? LEFT
      const next = part.sections[at + 1]?.first_bar
      return { section, from, to: next === undefined ? width - 2 : (ground[next]?.x ?? width - 2) }
    }),
  )
  const worst = $derived(new Set(part.peak_bars))

  function choose(event: MouseEvent): void {
    const at = ground.findIndex((column) => event.offsetX < column.x + column.width)
    if (at >= 0) onchoose?.(at, event.shiftKey)
  }
</script>

<div bind:clientWidth={width} class="w-full">
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions: every bar is a button of the tab below -->
  {#if width > 0}<svg
      {width}
      height={height + STRIP}
      class="block overflow-visible"
      class:cursor-pointer={onchoose}
      role="img"
      aria-label="The climb of the whole song: {part.bars.length} bars, Step {stepText(part.step)}"
      onclick={choose}
    >
      {#each strips as { section, from, to } (section.first_bar)}
        <rect x={from} width={to - from} height={STRIP - 3} fill={sectionTint(part.sections, section.name)} />
        {#if to - from > 26}<text x={from + 5} y="11.5" class="fill-ink text-[11.5px]"
            >{section.name.slice(0, Math.floor((to - from - 8) / 6.2))}</text
          >{/if}
      {/each}
      <g transform="translate(0 {STRIP})">
        {#each [2, 4, 6, 8] as level (level)}
          <line
            x1={LEFT}
            x2={width - 2}
            y1={stepY(level, height)}
            y2={stepY(level, height)}
            stroke="var(--contour)"
            stroke-dasharray="1 4"
          />
          {#if level % 4 === 0}<text
              x={LEFT - 6}
              y={stepY(level, height) + 4}
              text-anchor="end"
              class="fill-quiet text-[11px]">{level}</text
            >{/if}
        {/each}
        {#each ground as column, at (at)}
          {@const y = stepY(column.step, height)}
          <rect x={column.x} width={column.width} {y} height={height - y} fill={stepColour(column.step)} />
          {#if column.width > 15}
            <g
              transform="translate({column.x + column.width / 2 - 6} {y - 14.5}) scale(0.75)"
              class="fill-none stroke-ink"
              stroke-width="1.8"
              stroke-linecap="round"
              stroke-linejoin="round"
            >
              <path d={MEASURE_SIGNS[part.bars[at].hardest_measure]} />
            </g>
          {/if}
          {#if part.bars[at].past_hand}<path
              d="M{column.x + column.width / 2} {y}v12h7l-2 -3 2 -3h-7"
              fill="var(--past-hand)"
            />{/if}
          {#if worst.has(at)}<rect
              x={column.x}
              y={height - 4}
              width={column.width}
              height="4"
              fill="var(--ink)"
            />{/if}
          {#if chosen?.(at) || at === sounding}<rect
              x={column.x}
              y="0"
              width={column.width}
              {height}
              fill="none"
              stroke={at === sounding ? 'var(--changed)' : 'var(--ink)'}
              stroke-width="2"
            />{/if}
        {/each}
        <path d={ridge(ground, height)} fill="none" stroke="var(--ink)" stroke-width="1.6" />
      </g>
    </svg>{/if}
</div>
