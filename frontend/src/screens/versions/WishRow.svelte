<script lang="ts">
  import { APPROACH_WORDS, LAYER_WORDS, STAIRS, type VersionsState } from './versions.svelte'

  interface Props {
    screen: VersionsState
    count: number
    tuning: string
    capo: number
    onwrite: (targets: number[], layer: string) => void
  }
  let { screen, count, tuning, capo, onwrite }: Props = $props()
  const setups = $derived(
    (
      [
        ['', 'as written', true],
        ['standard shapes', 'same shapes in standard tuning', tuning !== 'standard'],
        ['standard music', 'same music in standard tuning', tuning !== 'standard'],
        ['capo music', 'same music with the best capo', true],
        ['no capo shapes', 'same shapes without the capo', capo > 0],
      ] as const
    ).filter(([, , offered]) => offered),
  )
  const stairs = $derived(STAIRS.filter((step) => step < screen.originalStep))
</script>

<div class="flex flex-wrap items-center gap-x-3.5 gap-y-1 border-b border-contour px-6 py-1.5 text-[15px] print:hidden">
  <label class="flex items-center gap-2 text-quiet">
    give up last
    <select class="field w-40 text-ink" bind:value={screen.approach} aria-label="Approach">
      {#each Object.entries(APPROACH_WORDS) as [approach, words] (approach)}<option value={approach}>{words}</option>{/each}
    </select>
  </label>
  <label class="flex items-center gap-2 text-quiet">
    set up
    <select class="field w-36 text-ink" bind:value={screen.setup} aria-label="Tuning and capo">
      {#each setups as [setup, words] (setup)}<option value={setup}>{words}</option>{/each}
    </select>
  </label>
  <button class="underline disabled:no-underline" disabled={screen.searching || stairs.length === 0} onclick={() => onwrite(stairs, '')}>
    {stairs.length > 0 ? `Write a staircase of ${stairs.join(', ')}` : 'Easy enough without a staircase'}
  </button>
  <span class="text-quiet">
    layers:
    {#each Object.entries(LAYER_WORDS) as [layer, words] (layer)}
      <button class="ml-1.5 text-ink underline disabled:no-underline" disabled={screen.searching} onclick={() => onwrite([10], layer)}>{words}</button>
    {/each}
  </span>
  <span class="grow"></span>
  {#if count > 0}
    <button class="quiet-button !min-h-8 !py-0.5" aria-pressed={screen.sideBySide} onclick={() => (screen.sideBySide = !screen.sideBySide)}>Side by side ({count})</button>
  {/if}
</div>
