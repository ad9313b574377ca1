<script lang="ts">
  import type { Part } from '../../api/client'
  import AddedUp from '../../components/AddedUp.svelte'
  import PastBars from '../../components/PastBars.svelte'
  import { stepText } from '../../components/steps'
  import { PAIN } from '../../sheet/sheet'
  import type { DeskState } from './desk.svelte'
  import Guesses from './Guesses.svelte'
  import SongMap from './SongMap.svelte'
  import OwnStep from './OwnStep.svelte'
  import WhatComesBack from './WhatComesBack.svelte'

  interface Props {
    desk: DeskState
    songId: number
    onplay: () => void // the places of the chosen figure
  }
  let { desk, songId, onplay }: Props = $props()
  const part = $derived(desk.part!)
  const analysis = $derived(desk.analysis!)
  const isRange = $derived(part.step_high - part.step_low >= 0.1)

  function barsIn(bars: number[]): string {
    return `(bar${bars.length > 1 ? 's' : ''} ${bars.map((bar) => part.bars[bar].number).join(', ')})`
  }

  function hardestBar(from: Part): number {
    return from.peak_bars.reduce(
      (worst, bar) => (from.bars[bar].step > from.bars[worst].step ? bar : worst),
      from.peak_bars[0],
    )
  }
  function toLearnWords({ bars, grips, patterns, sittings }: Part['to_learn']): string {
    const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`
    const parts = [many(Math.max(Math.round(bars), 1), 'bar')]
    if (grips > 0) parts.push(many(grips, 'grip'))
    if (patterns > 0) parts.push(many(patterns, 'pattern'))
    return `${parts.join(', ')}; about ${many(sittings, 'sitting')}.`
  }
</script>

<h2 class="text-lg">What makes it Step {stepText(part.step)} for {analysis.whom}</h2>
<PastBars {part} whom={analysis.whom} onchoose={(bar) => desk.chooseWorst(bar)} />
{#if isRange}
  <p class="mt-1 border-l-4 border-contour pl-3">
    Somewhere from {stepText(part.step_low)} to {stepText(part.step_high)}: {part.doubts.join(', and ')}.
  </p>
{/if}
{#each part.sentences as sentence, at (at)}<p class="mt-1.5 text-[17px] leading-snug">
    {sentence}
  </p>{:else}<p class="mt-1 text-quiet">There is nothing to play yet.</p>{/each}
{#if part.peak_bars.length > 0}
  <button class="quiet-button mt-3" onclick={() => desk.chooseWorst(hardestBar(part))}
    >Show the hardest bar</button
  >
{/if}
<AddedUp
  of="The song"
  step={part.step}
  pieces={[
    {
      name: `${Math.round(part.peak_share * 100)} % of its hardest two bars (${stepText(part.peak)})`,
      adds: part.peak_share * part.peak,
    },
    {
      name: `${Math.round(part.typical_share * 100)} % of a typical bar (${stepText(part.typical)})`,
      adds: part.typical_share * part.typical,
    },
    { name: 'playing without rest', adds: part.stamina },
  ]}
/>
<p class="mt-2" data-testid="to-learn">
  <span class="font-bold">To learn:</span>
  {toLearnWords(part.to_learn)}
</p>
<p class="mt-2 text-sm text-quiet">
  Graded by <a class="underline" href="#/ladder">the ladder {analysis.ladder}</a>.
</p>
<OwnStep {desk} {songId} />
<SongMap {desk} {songId} />
{#if part.cautions.length > 0}
  <h3 class="mt-4 mb-1">Take care</h3>
  <ul class="space-y-1 border-l-4 border-past-hand pl-3">
    {#each part.cautions as caution, at (at)}<li data-caution={caution.kind}>
        {caution.words}{' '}{#if caution.bars.length > 0}
          <span class="text-quiet">{barsIn(caution.bars)}</span>{/if}
      </li>{/each}
    <li>{PAIN}</li>
  </ul>
{/if}
<WhatComesBack {desk} {onplay} />
<Guesses {desk} {songId} />
{#if analysis.unknown_techniques.length > 0}
  <p class="mt-4 border-l-4 border-past-hand pl-3">
    Techniques of your own without a Step: {analysis.unknown_techniques.join(', ')}. They count nothing until
    <a class="underline" href="#/ladder">the ladder</a> knows them.
  </p>
{/if}
{#if part.remarks.length > 0 || analysis.extra.length > 0}
  <h3 class="mt-4 mb-1">Remarks</h3>
  <ul class="space-y-1 text-quiet">
    {#each analysis.extra as [key, text], at (at)}<li>
        <span class="font-bold">{key}:</span>
        {text}
      </li>{/each}
    {#each part.remarks as remark, index (index)}<li>{remark}</li>{/each}
  </ul>
{/if}
<h3 class="mt-4 mb-1">Take it along</h3>
<p class="flex flex-wrap gap-x-4">
  {#each [['musicxml', 'MusicXML'], ['mid', 'MIDI'], ['tab', 'tab text'], ['json', 'JSON']] as [ending, name] (ending)}
    <a class="underline" href="/api/songs/{songId}/file.{ending}" download>{name}</a>
  {/each}
</p>
