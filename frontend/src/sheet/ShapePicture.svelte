<!-- A chord shape as a small picture: strings upright, the thickest on the left, fingers as numbers. -->
<script lang="ts">
  import type { Part } from '../api/client'

  let { shape, size = 1 }: { shape: Part['shapes'][number]; size?: number } = $props()
  const GAP = 9
  const FRET = 12
  const FRETS = 4
  const strings = $derived(shape.frets.length)
  const top = $derived(Math.max(...shape.frets.map((fret) => fret ?? 0)) <= FRETS ? 1 : shape.first_fret)
  const xOf = (index: number) => 14 + (strings - 1 - index) * GAP
  const width = $derived(22 + strings * GAP)
  const HEIGHT = 27 + FRETS * FRET + 4
  const words = $derived(
    shape.frets
      .map((fret, index) => {
        const where = fret === null ? 'not played' : fret === 0 ? 'open' : `fret ${fret}`
        return `string ${index + 1} ${where}${shape.fingers[index] ? ` finger ${shape.fingers[index]}` : ''}`
      })
      .reverse()
      .join(', '),
  )
  /** A finger on several strings at one fret lies across them. */
  const barres = $derived.by(() => {
    const across: { y: number; from: number; to: number }[] = []
    for (const finger of new Set(shape.fingers.filter(Boolean))) {
      const at = shape.fingers.flatMap((each, index) => (each === finger ? [index] : []))
      const fret = shape.frets[at[0]] ?? 0
      if (at.length > 1 && at.every((index) => shape.frets[index] === fret))
        across.push({ y: yOf(fret), from: xOf(at[at.length - 1]), to: xOf(at[0]) })
    }
    return across
  })
  const yOf = (fret: number) => 27 + (fret - top + 0.5) * FRET
</script>

<svg
  width={width * size}
  height={HEIGHT * size}
  viewBox="0 0 {width} {HEIGHT}"
  role="img"
  aria-label="{shape.name || 'shape'}: {words}"
>
  <text x={14 + ((strings - 1) * GAP) / 2} y="11" text-anchor="middle" class="fill-ink text-[12px] font-bold"
    >{shape.name}</text
  >
  {#each { length: FRETS + 1 } as _, fret (fret)}
    <line
      x1={xOf(strings - 1)}
      x2={xOf(0)}
      y1={27 + fret * FRET}
      y2={27 + fret * FRET}
      stroke="var(--ink)"
      stroke-width={fret === 0 && top === 1 ? 2.6 : 0.8}
    />
  {/each}
  {#if top > 1}<text x="7" y={27 + FRET * 0.8} text-anchor="middle" class="fill-ink text-[9px]">{top}</text
    >{/if}
  {#each shape.frets as fret, index (index)}
    <line
      x1={xOf(index)}
      x2={xOf(index)}
      y1="27"
      y2={27 + FRETS * FRET}
      stroke="var(--ink)"
      stroke-width="0.8"
    />
    {#if fret === null}
      <path d="M{xOf(index) - 2.5} 17.5l5 5m0 -5l-5 5" stroke="var(--ink)" stroke-width="1" />
    {:else if fret === 0}
      <circle cx={xOf(index)} cy="20" r="2.7" fill="none" stroke="var(--ink)" />
    {/if}
  {/each}
  {#each barres as { y, from, to } (y)}<rect
      x={from - 4}
      width={to - from + 8}
      y={y - 4}
      height="8"
      rx="4"
      fill="var(--ink)"
    />{/each}
  {#each shape.frets as fret, index (index)}
    {#if fret}
      <circle cx={xOf(index)} cy={yOf(fret)} r="4.6" fill="var(--ink)" />
      <text
        x={xOf(index)}
        y={yOf(fret) + 2.9}
        text-anchor="middle"
        class="text-[8px] font-bold"
        fill="var(--paper)">{shape.fingers[index]}</text
      >
    {/if}
  {/each}
</svg>
