<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { stepText } from '../../components/steps'
  import type { DeskState } from './desk.svelte'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  const own = $derived(desk.song?.own_steps[desk.partIndex] ?? null)
  const give = createMutation(() => ({
    mutationFn: (step: number | null) => api.giveOwnStep(songId, desk.partIndex, step),
    onSuccess: () => {
      for (const key of ['song', 'songs', 'differences']) void queries.invalidateQueries({ queryKey: [key] })
    },
  }))

  function type(text: string): void {
    give.mutate(text.trim() === '' ? null : Number(text))
  }
</script>

<label class="mt-3 flex items-baseline justify-between gap-3">
  <span>Your own Step</span>
  <input
    class="field no-spin w-14 text-right font-bold"
    type="number"
    min="1"
    max="10"
    step="0.1"
    value={own ?? ''}
    placeholder="–"
    onchange={(event) => type(event.currentTarget.value)}
  />
</label>
{#if give.isError}<ErrorNote message={give.error.message} />
{:else if own !== null}
  <p class="text-sm text-quiet">
    {stepText(own) === stepText(desk.part!.step)
      ? 'You and the ladder agree.'
      : `The ladder says ${stepText(Math.abs(desk.part!.step - own))} ${desk.part!.step > own ? 'more' : 'less'}.`}
    <a class="underline" href="#/ladder">All differences</a>
  </p>
{/if}
