<script lang="ts">
  import Fold from '../../ui/Fold.svelte'
  import type { Card, VersionCard } from '../../api/client'
  import SmallClimb from '../../components/SmallClimb.svelte'
  import StepBadge from '../../components/StepBadge.svelte'
  import { APPROACH_NAMES } from './versions.svelte'

  interface Props {
    song: Card | undefined
    versions: VersionCard[]
    onopen: (id: number) => void
    onaway: (id: number, away: boolean) => void
  }
  let { song, versions, onopen, onaway }: Props = $props()
  // Easiest first, the original last: the way a student grows.
  const ordered = $derived(
    versions.filter((version) => !version.put_away).sort((a, b) => a.step - b.step || a.id - b.id),
  )

  const away = $derived(versions.filter((version) => version.put_away))

  /** `one of the stairs 2, 4, 6`: the versions that were written together with this one. */
  function stairsOf(version: VersionCard): string {
    const together = versions.filter(
      (each) => version.staircase !== null && each.staircase === version.staircase,
    )
    return together.length > 0 ? `one of the stairs ${together.map((each) => each.target).join(', ')}` : ''
  }
</script>

<section class="min-h-0 overflow-y-auto px-6 py-4" aria-label="All versions side by side">
  <p class="mb-4 max-w-prose text-quiet">
    From the easiest to the original. Of versions written as one staircase each gives up more than the next,
    so that a student grows from each into the one above.
  </p>
  <ul class="grid gap-x-8 gap-y-8 sm:grid-cols-2 lg:grid-cols-4">
    {#each ordered as version (version.id)}
      <li>
        <button
          class="group block w-full border-b-2 border-contour text-left hover:border-ink"
          onclick={() => onopen(version.id)}
        >
          <span class="flex items-baseline justify-between gap-2">
            <StepBadge step={version.step} />
            <span class="font-bold tabular-nums">{version.overall.toFixed(0)} % kept</span>
          </span>
          <span class="mt-1.5 block group-hover:underline">
            {version.asked}{version.reached ? '' : ', not reached'}
          </span>
          <span class="block text-sm text-quiet">
            {version.approach === 'sound' ? '' : `${APPROACH_NAMES[version.approach]}; `}{version.edits} change{version.edits ===
            1
              ? ''
              : 's'}{version.refused ? `, ${version.refused} refused` : ''};
            {version.same_onsets.toFixed(0)} % of the notes still where they were
          </span>
          <span class="block min-h-5 text-sm text-quiet">{stairsOf(version)}</span>
          <span class="mt-2 block"
            ><SmallClimb
              height={72}
              beats={version.climb.beats}
              steps={version.climb.steps}
              label="Its climb"
            /></span
          >
        </button>
        <button
          class="mt-1 text-sm text-quiet underline hover:text-ink"
          onclick={() => onaway(version.id, true)}
          aria-label="Put away: {version.asked}">Put away</button
        >
      </li>
    {/each}
    {#if song?.grade}
      <li>
        <div class="border-b-2 border-ink">
          <span class="flex items-baseline justify-between gap-2"
            ><StepBadge step={song.grade.step} assumed={song.grade.tempo_assumed} /><span class="font-bold"
              >100 %</span
            ></span
          >
          <span class="mt-1.5 block">the original</span>
          <span class="block min-h-10 text-sm text-quiet">{song.grade.hardest}</span>
          <span class="mt-2 block"
            ><SmallClimb
              height={72}
              beats={song.grade.climb.beats}
              steps={song.grade.climb.steps}
              label="The original's climb"
            /></span
          >
        </div>
      </li>
    {/if}
  </ul>
  {#if away.length > 0}
    <Fold class="mt-8 border-t border-contour pt-3" title="Put away ({away.length})">
      <ul class="mt-2 space-y-1">
        {#each away as version (version.id)}
          <li>
            {version.asked}, Step {version.step.toFixed(1)}, {version.edits} changes
            <button class="ml-2 underline" onclick={() => onaway(version.id, false)}>Bring back</button>
          </li>
        {/each}
      </ul>
    </Fold>
  {/if}
</section>
