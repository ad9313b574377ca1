<!-- The low ground under a system: each bar's Step, the sign of what makes it hard, a flag where past
  the hand. -->
<script lang="ts">
  import type { Bar } from '../api/client'
  import { ridge, stepY } from '../components/climb'
  import { MEASURE_SIGNS } from '../components/measures'
  import { onStepColour, stepColour, stepText } from '../components/steps'
  import type { BarBox } from './engrave'

  let { bars, places, height }: { bars: Bar[]; places: BarBox[]; height: number } = $props()
  const ground = $derived(places.map(({ x, width }, at) => ({ x, width, step: bars[at].step })))
</script>

{#each ground as column, at (bars[at].index)}
  {@const y = stepY(column.step, height)}
  {@const middle = column.x + column.width / 2}
  <rect x={column.x} width={column.width} {y} height={height - y} fill={stepColour(column.step)} />
  {@const low = height - y < 15}
  <text
    x={middle - 5}
    y={low ? y - 4 : height - 4}
    text-anchor="end"
    class="text-[12.5px] font-bold"
    fill={low ? 'var(--ink)' : onStepColour(column.step)}>{stepText(column.step)}</text
  >
  <g
    transform="translate({middle + 1} {low ? y - 16 : height - 15.5}) scale(0.8)"
    class="fill-none"
    stroke={low ? 'var(--ink)' : onStepColour(column.step)}
    stroke-width="1.9"
    stroke-linecap="round"
    stroke-linejoin="round"
  >
    <path d={MEASURE_SIGNS[bars[at].hardest_measure]} />
  </g>
  {#if bars[at].past_hand}
    <path
      d="M{column.x + column.width - 14} {height}v-17h10l-3 4 3 4h-10"
      fill="var(--past-hand)"
      stroke="var(--paper)"
      stroke-width="0.7"
    />
  {/if}
{/each}
<path d={ridge(ground, height)} fill="none" stroke="var(--ink)" stroke-width="1.5" />
