<script lang="ts">
  import type { Grip, Neck } from '../../api/client'
  import { neckView } from './neck'

  interface Props {
    neck: Neck
    now: Grip | null
    before: Grip | null
    spanMm: number
  }
  let { neck, now, before, spanMm }: Props = $props()
  const WIDTH = 350
  const GAP = 19
  const strings = $derived(neck.string_letters.length)
  const view = $derived(neckView(neck, now, before, WIDTH - 30))
  const bottom = $derived((strings - 1) * GAP)
  const words = $derived(
    now
      ? now.presses
          .map(
            (press) =>
              `${press.finger === 'T' ? 'thumb' : `finger ${press.finger}`} on string ${press.string}, fret ${press.fret}`,
          )
          .join('; ') +
          (now.helpers.length > 0
            ? `; helping behind it: ${now.helpers.map((press) => `finger ${press.finger}`).join(', ')}`
            : '')
      : 'no finger down',
  )
  const past = $derived(view.span !== null && view.span.mm > spanMm)
</script>

<svg
  viewBox="-14 -16 {WIDTH} {bottom + 74}"
  class="block w-full"
  role="img"
  aria-label="Neck: {words}{view.span ? `; ${view.span.mm.toFixed(0)} mm of ${spanMm}` : ''}"
>
  {#each Array(strings) as _, index (index)}
    <line
      x1="0"
      x2={WIDTH - 30}
      y1={index * GAP}
      y2={index * GAP}
      stroke="var(--ink)"
      stroke-width={0.8 + index * 0.25}
    />
  {/each}
  {#each view.frets as { fret, x, label } (fret)}
    <line
      x1={x}
      x2={x}
      y1="0"
      y2={bottom}
      stroke={fret === 0 ? 'var(--ink)' : 'var(--quiet)'}
      stroke-width={fret === 0 ? 5 : 1.4}
    />
    {#if label}<text {x} y={bottom + 20} text-anchor="middle" class="fill-quiet text-[12px]">{label}</text
      >{/if}
  {/each}
  {#each view.ghosts as dot, index (index)}
    <circle
      cx={dot.x}
      cy={(dot.string - 1) * GAP}
      r="8"
      fill="var(--paper)"
      stroke="var(--quiet)"
      stroke-width="1.3"
      stroke-dasharray="2.5 2"
    />
  {/each}
  {#each view.helpers as dot, index (index)}
    <circle
      cx={dot.x}
      cy={(dot.string - 1) * GAP}
      r="7.5"
      fill="var(--paper)"
      stroke="var(--ink)"
      stroke-width="1.5"
    />
    <text x={dot.x} y={(dot.string - 1) * GAP + 4} text-anchor="middle" class="text-[11px]" fill="var(--ink)"
      >{dot.finger}</text
    >
  {/each}
  {#each view.dots as dot, index (index)}
    <circle cx={dot.x} cy={(dot.string - 1) * GAP} r="9" fill="var(--ink)" />
    <text
      x={dot.x}
      y={(dot.string - 1) * GAP + 4.5}
      text-anchor="middle"
      class="text-[13px] font-bold"
      fill="var(--paper)">{dot.finger}</text
    >
  {/each}
  {#if view.span}
    {@const colour = past ? 'var(--past-hand)' : 'var(--ink)'}
    <path
      d="M{view.span.from} {bottom + 29}v10M{view.span.to} {bottom + 29}v10M{view.span.from} {bottom +
        34}H{view.span.to}"
      stroke={colour}
      stroke-width="2"
      fill="none"
    />
    <text
      x={(view.span.from + view.span.to) / 2}
      y={bottom + 54}
      text-anchor="middle"
      class="text-[13px] font-bold"
      fill={colour}
    >
      {view.span.mm.toFixed(0)} mm of your {spanMm}
    </text>
  {/if}
</svg>
