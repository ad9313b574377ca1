<script lang="ts">
  import { columns, ridge, stepY } from './climb'
  import { stepColour } from './steps'

  let {
    beats,
    steps,
    label,
    height = 56,
  }: { beats: number[]; steps: number[]; label: string; height?: number } = $props()
  const WIDTH = 300
  const bars = $derived(columns(beats, steps, WIDTH))
</script>

<svg
  class="block w-full"
  viewBox="0 0 {WIDTH} {height}"
  preserveAspectRatio="none"
  {height}
  role="img"
  aria-label={label}
>
  {#each [2, 4, 6, 8] as level (level)}
    <line
      x1="0"
      x2={WIDTH}
      y1={stepY(level, height)}
      y2={stepY(level, height)}
      stroke="var(--contour)"
      stroke-dasharray="1 4"
      vector-effect="non-scaling-stroke"
    />
  {/each}
  {#each bars as bar, index (index)}
    <rect
      x={bar.x}
      width={bar.width + 0.3}
      y={stepY(bar.step, height)}
      height={height - stepY(bar.step, height)}
      fill={stepColour(bar.step)}
    />
  {/each}
  <path
    d={ridge(bars, height)}
    fill="none"
    stroke="var(--ink)"
    stroke-width="1.5"
    vector-effect="non-scaling-stroke"
  />
</svg>
