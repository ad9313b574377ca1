<script lang="ts">
  import { flushSync } from 'svelte'
  import type { Version } from '../../api/client'
  import { setupWords } from '../../components/setup'
  import { layers } from '../../tab/layers.svelte'
  import Score from '../../tab/Score.svelte'
  import VersionSystem from './VersionSystem.svelte'
  import type { VersionsState } from './versions.svelte'

  let { screen, version }: { screen: VersionsState; version: Version } = $props()
  let width = $state(0)
  let scroller: HTMLElement
  const PADDING = 48
  const GROUND = 104 // of the two climbs and what is said under them
  const PRINT_WIDTH = 670 // an upright A4 page between its margins, at 96 dots an inch
  const original = $derived(version.original.parts[0])
  const easier = $derived(version.version.parts[0])
  const room = $derived(screen.printing ? PRINT_WIDTH : width - PADDING)

  // The page is laid out anew for paper before the browser takes its picture.
  function print(printing: boolean): void {
    flushSync(() => (screen.printing = printing))
  }

  $effect(() => {
    const bar = screen.cursor?.bar
    if (bar !== undefined)
      scroller.querySelector(`[data-system~="${bar}"]`)?.scrollIntoView({ block: 'nearest' })
  })
</script>

<svelte:window onbeforeprint={() => print(true)} onafterprint={() => print(false)} />

<section
  bind:this={scroller}
  bind:clientWidth={width}
  class="min-h-0 overflow-y-auto px-6 py-3 print:overflow-visible print:p-0"
  aria-label="Original above, version below"
>
  <h1 class="hidden print:mb-2 print:block print:text-xl">{version.title}, Step {easier.step.toFixed(1)}</h1>
  <p class="hidden print:mb-3 print:block">{setupWords([easier], version.original.marked_tempo)}</p>
  <Score
    parts={screen.withOriginal ? [original, easier] : [easier]}
    {layers}
    width={room}
    whole={screen.printing}
    below={screen.printing ? 0 : GROUND}
  >
    {#snippet over(picture)}
      <VersionSystem
        {screen}
        {original}
        {easier}
        {picture}
        target={version.target}
        kept={version.kept_by_bar}
      />
    {/snippet}
  </Score>
</section>
