<!-- One change on the chosen bars or notes, written as a version of its own; the song stays as it is. -->
<script lang="ts">
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { push } from 'svelte-spa-router'
  import { api, type AskedChange } from '../../api/client'
  import ChangesThatApply from '../../components/ChangesThatApply.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import Fold from '../../ui/Fold.svelte'
  import type { DeskState } from './desk.svelte'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  let open = $state(false)
  const queries = useQueryClient()
  const ends = $derived(desk.ends)
  const offers = createQuery(() => ({
    queryKey: ['changes of song', songId, desk.song?.revision, desk.partIndex, ends],
    queryFn: () => api.changesOfSong(songId, desk.partIndex, ends),
    enabled: open && !desk.textOpen,
  }))
  const ask = createMutation(() => ({
    mutationFn: ({ kind, says }: AskedChange) =>
      api.askForChangeOfSong(songId, { part_index: desk.partIndex, ...ends, kind, says }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['versions', songId] })
      await push(`/song/${songId}/versions`)
    },
  }))
</script>

<section class="mt-4 border-t border-contour pt-3" aria-label="One change to these bars">
  <Fold title="Ask for one change, as a version" bind:open>
    {#if desk.textOpen}
      <p class="mt-2 text-quiet">Save the text first.</p>
    {:else}
      {#if ask.isError}<ErrorNote message={ask.error.message} />{/if}
      {#if desk.notes}<p class="mt-1 text-sm text-quiet">
          On the chosen notes alone; what is around them stays.
        </p>{/if}
      <ChangesThatApply
        found={offers.data}
        error={offers.error}
        busy={ask.isPending}
        onask={(change) => ask.mutate(change)}
      />
    {/if}
  </Fold>
</section>
