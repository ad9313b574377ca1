<script lang="ts">
  import type { Part } from '../../api/client'
  import MeasureSign from '../../components/MeasureSign.svelte'
  import { stepColour, stepText } from '../../components/steps'
  import type { DeskState } from './desk.svelte'
  import NeckPicture from './NeckPicture.svelte'

  let { desk }: { desk: DeskState } = $props()
  const bar = $derived(desk.chosenBar)
  const found = $derived(bar?.findings.filter((finding) => finding.step > 0).sort((a, b) => b.step - a.step) ?? [])
  const grips = $derived(desk.grips)
  const noteWords = $derived(desk.chosenEvent?.notes.map((note) => note.words).join('; ') || 'a rest')

  function hardestBar(part: Part): number {
    return part.peak_bars.reduce((worst, bar) => (part.bars[bar].step > part.bars[worst].step ? bar : worst), part.peak_bars[0])
  }

  function rawText(value: number | null, unit: string): string {
    if (value === null) return ''
    if (unit === 'mm') return `${value.toFixed(0)} mm`
    if (unit.startsWith('of the time')) return `${Math.round(value * 100)} % ${unit}`
    return `${value.toFixed(1)} ${unit}`
  }
</script>

{#if bar && desk.part && desk.analysis}
  <h2 class="flex items-baseline justify-between text-lg">
    <span>Bar {bar.number}{bar.metre === '4/4' ? '' : `, ${bar.metre}`}</span><span class="tabular-nums">Step {stepText(bar.step)}</span>
  </h2>
  <p class="mt-1 text-[17px] leading-snug">{found[0]?.evidence ?? 'Nothing to play here.'}</p>
  {#if bar.past_hand}
    <p class="mt-2 border-l-4 border-past-hand pl-3 text-past-hand">
      Past this hand: a stretch beyond {Math.round(desk.spanMm * 1.4)} mm is a reason to re-finger, not to push.
    </p>
  {/if}
  <div class="mt-3"><NeckPicture neck={desk.part.neck} now={grips.now} before={grips.before} spanMm={desk.spanMm} /></div>
  <p class="min-h-10 text-sm text-quiet" aria-live="polite" data-testid="note-words">{noteWords}</p>
  <ul class="mt-3 space-y-2.5" aria-label="Measures of bar {bar.number}">
    {#each found as finding (finding.measure)}
      <li>
        <button class="grid w-full grid-cols-[18px_104px_1fr_34px] items-center gap-x-2 text-left hover:bg-raised" title={finding.about} onclick={() => desk.chooseWorst(bar.index, finding.measure)}>
          <MeasureSign measure={finding.measure} />
          <span>{finding.measure}</span>
          <span class="block h-2.5 border-b border-contour"><span class="block h-full" style:width="{finding.step * 10}%" style:background={stepColour(finding.step)}></span></span>
          <span class="text-right font-bold tabular-nums">{stepText(finding.step)}</span>
          <span class="col-span-3 col-start-2 text-sm leading-snug text-quiet">
            {finding === found[0] ? rawText(finding.value, finding.unit) : finding.evidence}
          </span>
        </button>
      </li>
    {/each}
  </ul>
{:else if desk.part && desk.analysis}
  {@const part = desk.part}
  <h2 class="text-lg">What makes it Step {stepText(part.step)}</h2>
  <p class="mt-1 text-[17px] leading-snug first-letter:uppercase">{part.hardest}.</p>
  <dl class="mt-4 grid grid-cols-[1fr_auto] gap-y-1.5 tabular-nums">
    <dt>The hardest two bars in a row</dt><dd class="text-right font-bold">{stepText(part.peak)}</dd>
    <dt>A typical bar</dt><dd class="text-right font-bold">{stepText(part.typical)}</dd>
    <dt>Added for what there is to remember</dt><dd class="text-right font-bold">+{stepText(part.memory)}</dd>
    <dt>Added for playing without rest</dt><dd class="text-right font-bold">+{stepText(part.stamina)}</dd>
  </dl>
  <p class="mt-4 text-quiet">Choose a bar, a column of the climb or a note to see why it is as hard as it is.</p>
  {#if part.peak_bars.length > 0}
    <button class="quiet-button mt-4" onclick={() => desk.chooseWorst(hardestBar(part))}>Show the hardest bar</button>
  {/if}
  {#if part.sections.length > 0}
    <h3 class="mt-6 mb-1">Song map</h3>
    <p class="text-quiet">
      {desk.analysis.order.length > 0
        ? desk.analysis.order.join(' - ')
        : part.sections.map((section) => (section.times === 1 ? section.name : `${section.name} x${section.times ?? '?'}`)).join(' - ')}
    </p>
  {/if}
  {#if part.remarks.length > 0 || desk.analysis.extra.length > 0}
    <h3 class="mt-6 mb-1">Remarks</h3>
    <ul class="space-y-1 text-quiet">
      {#each desk.analysis.extra as [key, text] (key + text)}<li><span class="font-bold">{key}:</span> {text}</li>{/each}
      {#each part.remarks as remark, index (index)}<li>{remark}</li>{/each}
    </ul>
  {/if}
{/if}
