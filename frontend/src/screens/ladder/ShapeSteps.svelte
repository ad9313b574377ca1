<script lang="ts">
  import type { LadderState } from './ladder.svelte'

  let { state: screen }: { state: LadderState } = $props()
  const ROWS = [
    ['two_fingers', 'two fingers'],
    ['three_fingers', 'three fingers'],
    ['four_fingers', 'four fingers'],
    ['small_barre', 'a small barre'],
    ['full_barre_low', 'a full barre at the 1st fret'],
    ['full_barre_high', 'a full barre from the 5th fret on'],
    ['thumb', 'a bass fretted by the thumb'],
  ] as const
  const shapes = $derived(screen.ladder!.shapes)

  function set(key: (typeof ROWS)[number][0], text: string): void {
    const value = Number(text)
    if (text.trim() === '' || Number.isNaN(value) || value < 0 || value > 10) return
    shapes[key] = value
    screen.ask()
  }
</script>

<ul class="mb-6 max-w-md">
  {#each ROWS as [key, words] (key)}
    <li class="flex items-baseline gap-3 border-b border-contour py-1">
      <span class="grow">{words}</span>
      <input
        class="field no-spin w-14 text-right font-bold"
        type="number"
        min="0"
        max="10"
        step="0.1"
        value={shapes[key]}
        aria-label="Step of {words}"
        oninput={(event) => set(key, event.currentTarget.value)}
      />
    </li>
  {/each}
</ul>
