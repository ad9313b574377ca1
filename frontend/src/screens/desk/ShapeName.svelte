<!-- What the hand holds from the chosen moment on: as it is seen, or as the teacher says; kept in the text. -->
<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import rows from '../../rows.json'
  import Fold from '../../ui/Fold.svelte'
  import type { DeskState } from './desk.svelte'
  import { savedSong } from './saving'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  let open = $state(false)
  let name = $state('')
  const event = $derived(desk.chosenEvent)
  const seen = $derived(event?.chord || event?.recognised || '')
  $effect(() => void (name = event?.chord ?? ''))
  const write = createMutation(() => ({
    mutationFn: (said: string) =>
      savedSong(
        queries,
        desk.song!,
        () =>
          api.nameShape(songId, {
            based_on: desk.song!.revision,
            part_index: desk.partIndex,
            bar: desk.bar,
            event: desk.event,
            name: said,
          }),
        () => told(said),
      ),
  }))
  const title = $derived(seen ? `Held from here: ${seen}` : 'What is held from here')

  function told(said: string): string {
    if (said === rows.not_held) return 'Nothing is held from here'
    return said ? `${said} is held from here` : 'Held as it is seen'
  }
</script>

{#if event && event.notes.length > 0}
  <Fold {title} bind:open class="text-sm">
    <form
      class="mt-1 flex flex-wrap items-center gap-2"
      onsubmit={(e) => {
        e.preventDefault()
        write.mutate(name.trim())
      }}
    >
      <input class="field w-24" bind:value={name} maxlength="16" aria-label="Name of what is held" />
      <button class="quiet-button" disabled={write.isPending || desk.textOpen}>Say so</button>
      <button
        type="button"
        class="quiet-button"
        disabled={write.isPending || desk.textOpen}
        onclick={() => write.mutate(rows.not_held)}>Not held</button
      >
      {#if event.chord}
        <button
          type="button"
          class="underline"
          disabled={write.isPending || desk.textOpen}
          onclick={() => write.mutate('')}>As it is seen</button
        >
      {/if}
    </form>
    {#if write.isError}<ErrorNote message={write.error.message} />{/if}
  </Fold>
{/if}
