<!-- A Step as what it is added up from: a row of pieces, as long together as the Step is high. -->
<script lang="ts">
  import { MEASURE_SIGNS } from './measures'
  import { HARDEST, stepText } from './steps'

  interface Piece {
    name: string
    adds: number
    measure?: string // whose sign it bears
  }
  let { pieces, step, of }: { pieces: Piece[]; step: number; of: string } = $props()
  const shown = $derived(pieces.filter(({ adds }) => adds >= 0.05))
  const words = $derived(shown.map(({ name, adds }) => `${name} ${stepText(adds)}`).join(' + '))
  const TINTS = ['var(--step-7)', 'var(--step-5)', 'var(--step-3)']
</script>

<figure class="mt-2" aria-label="{of}, Step {stepText(step)}: {words}">
  <div class="relative flex h-6 border-b border-ink" aria-hidden="true">
    {#each shown as piece, at (piece.name)}
      <span
        class="flex h-full items-center justify-center overflow-hidden border-r border-paper"
        style:width="{(piece.adds / HARDEST) * 100}%"
        style:background={TINTS[at % TINTS.length]}
        title="{piece.name} {stepText(piece.adds)}"
      >
        {#if piece.measure && piece.adds > 0.45}<svg width="13" height="13" viewBox="0 0 16 16"
            ><path
              d={MEASURE_SIGNS[piece.measure]}
              fill="none"
              stroke={at % 3 === 0 ? 'var(--on-deep-step)' : 'var(--on-light-step)'}
              stroke-width="1.8"
            /></svg
          >{/if}
      </span>
    {/each}
    <span class="pl-1.5 text-sm font-bold">{stepText(step)}</span>
  </div>
  <figcaption class="mt-0.5 text-[13px] leading-snug text-quiet" aria-hidden="true">
    {#each shown as piece, at (piece.name)}{at ? ' + ' : ''}{piece.name}
      <span class="text-ink tabular-nums">{stepText(piece.adds)}</span>{/each}
  </figcaption>
</figure>
