<script lang="ts">
  import type { Ladder } from '../../api/client'
  import { HARDEST, stepColour } from '../../components/steps'
  import { curvePicture } from './curve'
  import { CURVE_WORDS } from '../../components/measures'

  let { curve, oninput }: { curve: Ladder['curves'][number]; oninput: () => void } = $props()
  const WIDTH = 520
  const HEIGHT = 150
  const picture = $derived(curvePicture(curve.points as [number, number][], WIDTH, HEIGHT, HARDEST))

  function set(at: number, side: 0 | 1, text: string): void {
    const value = Number(text)
    if (text.trim() === '' || Number.isNaN(value)) return
    curve.points[at][side] = value
    oninput()
  }
</script>

<figure class="mb-6">
  <figcaption class="mb-2 font-bold first-letter:uppercase">
    {CURVE_WORDS[curve.curve] ?? curve.curve}: {curve.unit}
  </figcaption>
  <svg
    viewBox="-34 -12 {WIDTH + 60} {HEIGHT + 40}"
    class="block w-full max-w-2xl"
    role="img"
    aria-label={curve.points.map(([raw, step]) => `${raw} is Step ${step}`).join(', ')}
  >
    {#each [2, 4, 6, 8, 10] as level (level)}
      <line
        x1="0"
        x2={WIDTH}
        y1={HEIGHT * (1 - level / HARDEST)}
        y2={HEIGHT * (1 - level / HARDEST)}
        stroke="var(--contour)"
        stroke-dasharray="1 4"
      />
      <text x="-10" y={HEIGHT * (1 - level / HARDEST) + 4} text-anchor="end" class="fill-quiet text-[12px]"
        >{level}</text
      >
    {/each}
    <path d="{picture.path}L{picture.dots.at(-1)?.x ?? 0} {HEIGHT}Z" fill="var(--step-3)" opacity="0.6" />
    <path d={picture.path} fill="none" stroke="var(--ink)" stroke-width="2" />
    <line x1="0" x2={WIDTH} y1={HEIGHT} y2={HEIGHT} stroke="var(--ink)" />
    {#each picture.dots as dot, at (at)}
      <circle
        cx={dot.x}
        cy={dot.y}
        r="5.5"
        fill={stepColour(curve.points[at][1])}
        stroke="var(--ink)"
        stroke-width="1.5"
      />
      {#if at % Math.ceil(picture.ticks.length / 6) === 0 || at === picture.ticks.length - 1}
        <text x={dot.x} y={HEIGHT + 18} text-anchor="middle" class="fill-quiet text-[12px]"
          >{picture.ticks[at].label}</text
        >
      {/if}
    {/each}
  </svg>
  <div class="overflow-x-auto">
    <table class="mt-1 tabular-nums">
      <tbody>
        <tr>
          <th scope="row" class="pr-3 text-left font-normal text-quiet">value</th>
          {#each curve.points as point, at (at)}
            <td
              ><input
                class="field no-spin w-13 text-right"
                type="number"
                step="0.05"
                value={point[0]}
                aria-label="{curve.curve}, point {at + 1}, value"
                oninput={(event) => set(at, 0, event.currentTarget.value)}
              /></td
            >
          {/each}
        </tr>
        <tr>
          <th scope="row" class="pr-3 text-left font-normal text-quiet">Step</th>
          {#each curve.points as point, at (at)}
            <td
              ><input
                class="field no-spin w-13 text-right font-bold"
                type="number"
                step="0.1"
                min="0"
                max="10"
                value={point[1]}
                aria-label="{curve.curve}, point {at + 1}, Step"
                oninput={(event) => set(at, 1, event.currentTarget.value)}
              /></td
            >
          {/each}
        </tr>
      </tbody>
    </table>
  </div>
  <p class="mt-1 text-sm text-quiet">Where it comes from: {curve.source}.</p>
</figure>
