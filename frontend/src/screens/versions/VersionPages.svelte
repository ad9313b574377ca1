<script lang="ts">
  import type { Version } from '../../api/client'
  import ClimbPair from './ClimbPair.svelte'
  import MarksLegend from './MarksLegend.svelte'
  import { layers } from '../../tab/layers.svelte'
  import type { Following } from '../../tab/following.svelte'
  import Score from '../../tab/Score.svelte'
  import VersionSystem from './VersionSystem.svelte'
  import type { VersionsState } from './versions.svelte'

  interface Props {
    screen: VersionsState
    version: Version
    following: Following
  }
  let { screen, version, following }: Props = $props()
  let width = $state(0)
  let scroller: HTMLElement
  const padding = $derived(width < 600 ? 24 : 48)
  const GROUND = 104 // of the two climbs and what is said under them
  const original = $derived(version.original.parts[0])
  const easier = $derived(version.version.parts[0])

  $effect(() => {
    const bar = screen.cursor?.bar
    if (bar !== undefined) following.show(scroller, bar)
  })
</script>

<svelte:window onscroll={() => following.scrolled()} />
<!-- svelte-ignore a11y_no_noninteractive_tabindex: it scrolls, and keys must reach it -->
<section
  bind:this={scroller}
  onscroll={() => following.scrolled()}
  bind:clientWidth={width}
  tabindex="0"
  class="min-h-0 overflow-y-auto px-6 py-3 max-lg:overflow-visible max-sm:px-3"
  aria-label="Original above, version below"
>
  <ClimbPair {version} />
  <MarksLegend />
  <Score
    parts={screen.withOriginal ? [original, easier] : [easier]}
    {layers}
    width={width - padding}
    below={GROUND}
    spoken={screen.withOriginal ? ['original', 'version'] : ['version']}
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
