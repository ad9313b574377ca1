<!-- What the text says so far: its Step and climb, the tab drawn, and what was guessed or cannot be read. -->
<script lang="ts">
  import type { Problem } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import type { Preview } from '../../components/preview.svelte'
  import SmallClimb from '../../components/SmallClimb.svelte'
  import StepBadge from '../../components/StepBadge.svelte'
  import DrawnText from './DrawnText.svelte'
  import { withoutBar } from './margin'
  import PartsKept from './PartsKept.svelte'

  interface Props {
    text: string
    preview: Preview
    onplace: (place: Problem['place']) => void
    onchange: (text: string) => void
  }
  let { text, preview, onplace, onchange }: Props = $props()
  const analysis = $derived(preview.analysis)
  const guesses = $derived(withoutBar(analysis?.guesses ?? []))
</script>

{#if preview.problems.length > 0}
  <section class="mb-4 border-l-4 border-past-hand pl-3" aria-label="Problems">
    <h2>
      {preview.problems.length === 1
        ? 'One thing cannot be read'
        : `${preview.problems.length} things cannot be read`}
    </h2>
    <ul>
      {#each preview.problems as problem, index (index)}
        <li>
          <button class="text-left hover:underline" onclick={() => onplace(problem.place)}
            ><span class="text-quiet">line {problem.place.line}, column {problem.place.column}:</span>
            {problem.message}</button
          >
        </li>
      {/each}
    </ul>
  </section>
{:else if preview.message}
  <ErrorNote message={preview.message} />
{/if}

{#if analysis}
  <div class:opacity-50={preview.stale}>
    {#each analysis.parts as part, index (index)}
      <div class="flex items-center gap-4">
        <StepBadge step={part.step} assumed={analysis.tempo_assumed} />
        <div class="w-56">
          <SmallClimb
            height={44}
            beats={part.bars.map((bar) => bar.quarters)}
            steps={part.bars.map((bar) => bar.step)}
            label="Climb, {part.hardest}"
          />
        </div>
        <p class="text-quiet">
          {part.name ? `${part.name}: ` : ''}{part.bars.length} bar{part.bars.length === 1 ? '' : 's'}, {part.hardest}
        </p>
      </div>
    {/each}
    {#if analysis.parts.length > 1}<PartsKept {text} parts={analysis.parts} {onchange} />{/if}
    <div class="mt-3"><DrawnText {analysis} problems={preview.problems} {onplace} /></div>
    {#if guesses.length > 0}
      <h3 class="mt-3">Guessed, please check</h3>
      <ul class="text-quiet">
        {#each guesses as guess, index (index)}
          <li>
            <button class="text-left underline decoration-dotted" onclick={() => onplace(guess.place)}
              >Line {guess.place.line}</button
            >: {guess.message}
          </li>
        {/each}
      </ul>
    {/if}
    {#if analysis.tempo_assumed}
      <p class="mt-3 text-quiet">
        No tempo is sure: the Step holds at an assumed tempo of {analysis.tempo} beats a minute.
      </p>
    {/if}
  </div>
{:else if preview.waiting}
  <p class="text-quiet">Reading …</p>
{/if}
