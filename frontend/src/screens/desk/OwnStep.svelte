<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api, isStale } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { stepText } from '../../components/steps'
  import { doneLately } from '../../done.svelte'
  import type { DeskState } from './desk.svelte'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  const stored = $derived(desk.song?.own_steps.find((each) => each.part_index === desk.partIndex))
  const own = $derived(stored?.step ?? null)

  async function put(step: number | null, basedOn: number): Promise<void> {
    await api.giveOwnStep(songId, basedOn, desk.partIndex, step)
    for (const key of ['song', 'songs', 'differences']) void queries.invalidateQueries({ queryKey: [key] })
  }

  const give = createMutation(() => ({
    mutationFn: async (step: number | null) => {
      const [before, number] = [own, stored?.number ?? 0]
      await put(step, number)
      const words = step === null ? 'Your own Step is taken back' : `Your own Step is ${stepText(step)}`
      doneLately.tell(words, () => put(before, number + 1))
    },
    onError: (error) => {
      // What the other one gave is shown; typing again replaces it knowingly.
      if (isStale(error)) void queries.invalidateQueries({ queryKey: ['song', songId] })
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
    disabled={give.isPending}
    onchange={(event) => type(event.currentTarget.value)}
  />
</label>
{#if give.isError}<ErrorNote
    message={isStale(give.error)
      ? 'Another Step was given meanwhile; it is shown above. Type yours again to put it in its place.'
      : give.error.message}
  />
{:else if own !== null}
  <p class="text-sm text-quiet">
    {stepText(own) === stepText(desk.part!.step)
      ? 'You and the ladder agree.'
      : `The ladder says ${stepText(Math.abs(desk.part!.step - own))} ${desk.part!.step > own ? 'more' : 'less'}.`}
    <a class="underline" href="#/ladder">All differences</a>
  </p>
{/if}
