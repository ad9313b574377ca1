<script lang="ts">
  import type { Card, VersionCard } from '../../api/client'
  import SmallClimb from '../../components/SmallClimb.svelte'
  import StepBadge from '../../components/StepBadge.svelte'
  import { APPROACH_NAMES, LAYER_WORDS } from './versions.svelte'

  let { song, versions, onopen }: { song: Card | undefined; versions: VersionCard[]; onopen: (id: number) => void } = $props()
  // Easiest first, the original last: the way a student grows.
  const ordered = $derived([...versions].sort((a, b) => a.step - b.step || a.id - b.id))

  /** `a stair of 2, 4, 6`: the versions that were written together with this one. */
  function stairsOf(version: VersionCard): string {
    const together = versions.filter((each) => version.staircase !== null && each.staircase === version.staircase)
    return together.length > 0 ? `a stair of ${together.map((each) => each.target).join(', ')}` : ''
  }
</script>

<section class="min-h-0 overflow-y-auto px-6 py-4" aria-label="All versions side by side">
  <p class="mb-4 max-w-prose text-quiet">From the easiest to the original. Versions written as one staircase are contained in one another, so that a student grows from each into the next.</p>
  <ul class="grid gap-x-8 gap-y-8 sm:grid-cols-2 lg:grid-cols-4">
    {#each ordered as version (version.id)}
      <li>
        <button class="group block w-full border-b-2 border-contour text-left hover:border-ink" onclick={() => onopen(version.id)}>
          <span class="flex items-baseline justify-between gap-2">
            <StepBadge step={version.step} />
            <span class="font-bold tabular-nums">{version.overall.toFixed(0)} % kept</span>
          </span>
          <span class="mt-1.5 block group-hover:underline">
            {version.layer ? `${LAYER_WORDS[version.layer]}` : `asked for Step ${version.target}`}{version.reached ? '' : ', not reached'}
          </span>
          <span class="block text-sm text-quiet">
            {version.approach === 'sound' ? '' : `${APPROACH_NAMES[version.approach]}; `}{version.edits} edits{version.refused ? `, ${version.refused} refused` : ''};
            {version.same_onsets.toFixed(0)} % of the onsets
          </span>
          <span class="block min-h-5 text-sm text-quiet">{stairsOf(version)}</span>
          <span class="mt-2 block"><SmallClimb height={72} beats={version.climb.map((bar) => bar.beats)} steps={version.climb.map((bar) => bar.step)} label="Its climb" /></span>
        </button>
      </li>
    {/each}
    {#if song}
      <li class="border-b-2 border-ink">
        <span class="flex items-baseline justify-between gap-2"><StepBadge step={song.step} assumed={song.tempo_assumed} /><span class="font-bold">100 %</span></span>
        <span class="mt-1.5 block">the original</span>
        <span class="block min-h-10 text-sm text-quiet">{song.hardest}</span>
        <span class="mt-2 block"><SmallClimb height={72} beats={song.climb.map((bar) => bar.beats)} steps={song.climb.map((bar) => bar.step)} label="The original's climb" /></span>
      </li>
    {/if}
  </ul>
</section>
