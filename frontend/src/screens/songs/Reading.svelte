<script lang="ts">
  import type { Problem } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import type { Preview } from '../../components/preview.svelte'
  import SmallClimb from '../../components/SmallClimb.svelte'
  import StepBadge from '../../components/StepBadge.svelte'

  let { preview, onplace }: { preview: Preview; onplace: (place: Problem['place']) => void } = $props()
  const analysis = $derived(preview.analysis)
</script>

{#if preview.problems.length > 0}
  <h2 class="mb-2 text-lg">
    {preview.problems.length === 1
      ? 'One thing cannot be read'
      : `${preview.problems.length} things cannot be read`}
  </h2>
  <ul class="mb-6 space-y-2">
    {#each preview.problems as problem, index (index)}
      <li>
        <button
          class="w-full border-l-4 border-past-hand pl-3 text-left hover:bg-raised"
          onclick={() => onplace(problem.place)}
        >
          <span class="font-mono text-sm text-quiet"
            >line {problem.place.line}, column {problem.place.column}</span
          ><br />{problem.message}
        </button>
      </li>
    {/each}
  </ul>
{:else if preview.message}
  <ErrorNote message={preview.message} />
{/if}

{#if analysis}
  <div class:opacity-50={preview.message !== ''}>
    <div class="flex items-baseline gap-4">
      <h2 class="text-xl">{analysis.title}</h2>
      <StepBadge step={analysis.parts[0].step} assumed={analysis.tempo_assumed} />
    </div>
    {#each analysis.parts as part, index (index)}
      <p class="mt-1 text-quiet">
        {part.name ? `${part.name}: ` : ''}{part.bars.length} bar{part.bars.length === 1 ? '' : 's'}, {part.tuning},
        {part.hardest}
      </p>
      <div class="my-3">
        <SmallClimb
          height={110}
          beats={part.bars.map((bar) => bar.quarters)}
          steps={part.bars.map((bar) => bar.step)}
          label="Climb, {part.hardest}"
        />
      </div>
    {/each}
    {#if analysis.guesses.length > 0}
      <h3 class="mt-5 mb-1">Guessed, please check</h3>
      <ul class="space-y-1 text-quiet">
        {#each analysis.guesses as guess, index (index)}
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
{:else if !preview.message}
  <div class="max-w-prose text-quiet">
    <p>
      What you paste is read as you type. Here you will see its climb, one column a bar, and what could not be
      read, with its line.
    </p>
    <pre
      class="mt-4 overflow-x-auto font-mono text-sm">{'Title: A first riff\nTempo: 90\n\ne|----------------|\nB|----------------|\nG|----------2-----|\nD|----0-2-----2-0-|\nA|--3-------------|\nE|----------------|'}</pre>
  </div>
{/if}
