<script lang="ts">
  import AddedUp from '../../components/AddedUp.svelte'
  import MeasureSign from '../../components/MeasureSign.svelte'
  import { stepColour, stepText } from '../../components/steps'
  import type { DeskState } from './desk.svelte'
  import type { LessonState } from './lesson.svelte'
  import type { PracticeState } from './practice.svelte'
  import TipButton from '../../ui/TipButton.svelte'
  import ChunkPanel from './ChunkPanel.svelte'
  import FingerChoice from './FingerChoice.svelte'
  import ShapeName from './ShapeName.svelte'
  import NeckPicture from './NeckPicture.svelte'
  import OneChange from './OneChange.svelte'
  import OtherWays from './OtherWays.svelte'
  import Readings from './Readings.svelte'
  import SongOverview from './SongOverview.svelte'
  import WhatComesBack from './WhatComesBack.svelte'

  interface Props {
    desk: DeskState
    lesson: LessonState
    practice: PracticeState
    songId: number
    fingers: FingerChoice | undefined
    onplay: () => void // the places of the chosen figure
    onhear: () => void // what is practised
  }
  let { desk, lesson, practice, songId, fingers = $bindable(), onplay, onhear }: Props = $props()
  const bar = $derived(desk.chosenBar)
  const found = $derived(
    bar?.findings.filter((finding) => finding.step > 0).sort((a, b) => b.step - a.step) ?? [],
  )
  const grips = $derived(desk.grips)
  // The sentence tells of the bar's hardest moment; the picture shows what is chosen.
  const elsewhere = $derived(desk.notes === null && desk.worstMoment(desk.bar) !== desk.event)
  const noteWords = $derived(desk.chosenEvent?.notes.map((note) => note.words).join('; ') || 'a rest')
  const pieces = $derived.by(() => {
    const measured = found.map(({ measure, adds }) => ({ name: measure, adds, measure }))
    const added = bar?.added.map(({ words, adds }) => ({ name: words, adds })) ?? []
    const own = [...measured, ...added]
    const rest = (bar?.step ?? 0) - own.reduce((sum, { adds }) => sum + adds, 0)
    const name = bar?.past_hand ? 'past this hand' : 'no bar is below 1'
    return rest > 0.04 ? [...own, { name, adds: rest }] : own
  })
  const cautions = $derived(desk.part?.cautions.filter(({ bars }) => bar && bars.includes(bar.index)) ?? [])
</script>

{#if desk.notes && desk.analysis}<ChunkPanel {desk} {lesson} {practice} {songId} onplay={onhear} />{/if}
{#if bar && desk.part && desk.analysis}
  <h2 class="flex items-baseline justify-between text-lg">
    <span>Bar {bar.number}{bar.metre === '4/4' ? '' : `, ${bar.metre}`}</span><span class="tabular-nums"
      >Step {stepText(bar.step)}</span
    >
  </h2>
  <p class="mt-1 text-[17px] leading-snug">{found[0]?.evidence ?? 'Nothing to play here.'}</p>
  {#each cautions as caution, at (at)}
    <p class="mt-2 border-l-4 border-past-hand pl-3" data-caution={caution.kind}>{caution.words}</p>
  {/each}
  {#if elsewhere}
    <p class="mt-3 text-sm" data-testid="picture-moment">
      The note that is chosen.
      <button class="underline" onclick={() => desk.chooseWorst(desk.bar)}>Show the hardest moment</button>
    </p>
  {/if}
  <div class="mt-3">
    <NeckPicture neck={desk.part.neck} now={grips.now} before={grips.before} spanMm={desk.handMm} />
  </div>
  <p class="min-h-10 text-sm text-quiet" aria-live="polite" data-testid="note-words">{noteWords}</p>
  {#if desk.chosenEvent?.change}
    <p class="mb-1" data-testid="change-words">{desk.chosenEvent.change.words}</p>
  {/if}
  <ShapeName {desk} {songId} />
  <FingerChoice bind:this={fingers} {desk} {songId} />
  <AddedUp {pieces} step={bar.step} of="Bar {bar.number}" />
  <ul class="mt-3 space-y-2.5" aria-label="Measures of bar {bar.number}">
    {#each found as finding (finding.measure)}
      <li>
        <TipButton
          class="grid w-full grid-cols-[18px_104px_1fr_34px] items-center gap-x-2 text-left hover:bg-raised"
          tip={finding.about}
          onclick={() => desk.chooseWorst(bar.index, finding.measure)}
        >
          <MeasureSign measure={finding.measure} />
          <span>{finding.measure}</span>
          <span class="block h-2.5 border-b border-contour"
            ><span
              class="block h-full"
              style:width="{finding.step * 10}%"
              style:background={stepColour(finding.step)}
            ></span></span
          >
          <span class="text-right font-bold tabular-nums">{stepText(finding.step)}</span>
          {#if finding !== found[0]}<span class="col-span-3 col-start-2 text-sm leading-snug text-quiet"
              >{finding.evidence}</span
            >{/if}
        </TipButton>
      </li>
    {/each}
  </ul>
  <WhatComesBack {desk} {onplay} />
  <OtherWays {desk} {songId} />
  <OneChange {desk} {songId} />
  <Readings {desk} {songId} />
{:else if desk.part && desk.analysis}
  <SongOverview {desk} {songId} {onplay} />
{/if}
