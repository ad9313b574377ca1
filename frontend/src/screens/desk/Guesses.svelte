<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import type { DeskState } from './desk.svelte'
  import { savedSong } from './saving'

  /** What was taken for granted: fingers that cannot be kept, notes that ring unsaid. */
  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const part = $derived(desk.part!)
  const queries = useQueryClient()
  const write = createMutation(() => ({
    mutationFn: (asWritten: boolean) => {
      const before = desk.song!
      return savedSong(queries, before, () =>
        api.setRinging(songId, before.revision, desk.partIndex, asWritten),
      )
    },
  }))
</script>

{#if part.pins_not_kept.length > 0}
  <h3 class="mt-4 mb-1">Fingers that cannot be kept</h3>
  <ul class="space-y-1 border-l-4 border-past-hand pl-3">
    {#each part.pins_not_kept as words, at (at)}<li>{words}</li>{/each}
  </ul>
{/if}
{#if part.plucked_unsaid}
  <h3 class="mt-4 mb-1">The picking hand</h3>
  <p class="text-quiet" data-testid="plucked-unsaid">
    Not written, taken from what is struck at once: the strings are plucked with the fingers. Write <code
      >Picking: pick</code
    > in the text where a pick is meant.
  </p>
{/if}
{#if part.guessed_ringing.length > 0 || part.rings_as_written}
  <h3 class="mt-4 mb-1">What rings on</h3>
  {#if part.rings_as_written}
    <p class="text-quiet">Only what is written as ringing.</p>
  {:else}
    <p class="text-quiet">Not written, taken from how it looks:</p>
    <ul class="mt-1 space-y-0.5 text-quiet">
      {#each part.guessed_ringing as words, at (at)}<li>{words}</li>{/each}
    </ul>
  {/if}
  {#if write.isError}<ErrorNote message={write.error.message} />{/if}
  <button
    class="mt-1 text-sm underline disabled:no-underline"
    disabled={write.isPending || desk.textOpen}
    onclick={() => write.mutate(!part.rings_as_written)}
    >{part.rings_as_written ? 'Take it from how it looks again' : 'It rings only where it is written'}</button
  >
{/if}
