<script lang="ts">
  import type { Version } from '../../api/client'
  import PastBars from '../../components/PastBars.svelte'
  import { stepText } from '../../components/steps'

  let { version }: { version: Version } = $props()
  const ASKED = ['retune', 'capo', 'fill'] // they change what the version sounds with, so they are told first
  const asked = $derived(version.edits.filter((edit) => !edit.refused && ASKED.includes(edit.kind)))
  const SCORES = ['tune', 'bass', 'harmony', 'rhythm'] as const
  const before = $derived(version.original.parts[0].step)
  const after = $derived(version.version.parts[0].step)
</script>

<h2 class="flex items-baseline justify-between text-lg">
  <span
    >Step {stepText(before)} became <span data-testid="version-step">{stepText(after)}</span>
    <span class="font-normal text-quiet">for {version.version.whom}</span></span
  >
  <span class="shrink-0 pl-3 tabular-nums">{version.kept.overall.toFixed(0)} % kept</span>
</h2>
<p class="mt-1" role="status">
  {#if version.student && version.reached}Everything is within what {version.student} can play.{:else if version.student}<strong
      >Not all of it is within what {version.student} can play.</strong
    >{:else if version.layer && version.target === 10}Written as asked: {version.asked}.{:else if version.reached}The
    target of {stepText(version.target)} is reached.{:else}<strong
      >The target of {stepText(version.target)} is not reached.</strong
    >{/if}
  {#if !version.kept.still_the_tune}<strong class="text-past-hand">This is no longer the tune.</strong>{/if}
</p>
{#if version.harder.length > 0}
  <p class="mt-2 border-l-4 border-changed pl-3">
    Harder than in the original, though within the target: bar{version.harder.length > 1 ? 's' : ''}
    {version.harder.join(', ')}.
  </p>
{/if}
<PastBars part={version.version.parts[0]} whom={version.version.whom} />
<dl class="mt-3 grid grid-cols-[70px_1fr_56px] items-center gap-x-3 gap-y-1.5">
  {#each SCORES as score (score)}
    <dt>{score}</dt>
    {#if score === 'bass' && !version.kept.has_bass}
      <dd class="col-span-2 text-quiet">there is none</dd>
    {:else}
      <dd class="h-2.5 border-b border-contour">
        <span class="block h-full bg-(--step-7)" style:width="{version.kept[score]}%"></span>
      </dd>
      <dd class="text-right font-bold tabular-nums">{version.kept[score].toFixed(0)} %</dd>
    {/if}
  {/each}
</dl>
<p class="mt-2 text-sm text-quiet">
  {version.kept.same_onsets.toFixed(0)} % of the notes on top still sound where they did, at the same pitch.
</p>
{#each asked as edit (edit.id)}<p class="mt-2 border-l-4 border-changed pl-3">
    {edit.reason} <span class="inline-block first-letter:uppercase">{edit.effect}.</span>
  </p>{/each}
{#if version.summary.length > 0}
  <h3 class="mt-4 mb-1">For the student</h3>
  <ul class="space-y-0.5">
    {#each version.summary as sentence, at (at)}<li>{sentence}</li>{/each}
  </ul>
{/if}
