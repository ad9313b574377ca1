<script lang="ts">
  import LayerChoice from '../../tab/LayerChoice.svelte'
  import MeasureSign from '../../components/MeasureSign.svelte'
  import type { DeskState } from './desk.svelte'
  import type { DeskTools } from './keys'
  import { theme, toggleTheme } from '../../theme.svelte'

  let { desk, tools }: { desk: DeskState; tools: DeskTools } = $props()
  const measures = $derived([...new Set(desk.part?.bars.map((bar) => bar.hardest_measure))].sort())
</script>

<footer
  class="flex flex-wrap items-center gap-x-3 gap-y-1 border-t border-contour px-6 py-1.5 text-sm text-quiet"
>
  <ul class="flex flex-wrap gap-x-2.5" aria-label="What makes a bar hard: the sign on its column">
    {#each measures as measure (measure)}
      <li class="inline-flex items-center gap-1.5"><MeasureSign {measure} size={14} />{measure}</li>
    {/each}
  </ul>
  <span class="grow"></span>
  <LayerChoice />
  <a class="font-bold text-ink underline" href="#/song/{desk.song?.id}/versions">Easier versions</a>
  <button class="underline" onclick={() => (desk.textOpen = true)}>Text</button>
  <button class="underline" onclick={toggleTheme}>{theme.name === 'dark' ? 'Light' : 'Dark'}</button>
  <button class="underline" onclick={tools.showKeys}>Keys</button>
</footer>
