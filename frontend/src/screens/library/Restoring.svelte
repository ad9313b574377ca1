<!-- Before a copy takes the place of everything: what is in it, and what becomes of what is here. -->
<script lang="ts">
  import { Dialog } from 'bits-ui'
  import { songs, timeOf, type LibraryState } from './library.svelte'

  let { state, now }: { state: LibraryState; now: number } = $props()
  const asked = $derived(state.asked)
</script>

<Dialog.Root open={asked !== null} onOpenChange={(open) => !open && (state.asked = null)}>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
    <Dialog.Content class="window">
      {#if asked}
        <Dialog.Title class="mb-3 text-lg font-bold">Restore this copy?</Dialog.Title>
        <Dialog.Description>
          It holds {songs(asked.songs)}, {asked.versions === 1 ? 'one version' : `${asked.versions} versions`} and
          {asked.students === 1 ? 'one student' : `${asked.students} students`}{asked.newest
            ? `; last written ${timeOf(asked.newest)}`
            : ''}. It takes the place of the {songs(now)} that are here. Those are kept as a copy, and Undo brings
          them back.
        </Dialog.Description>
        <div class="mt-5 flex flex-wrap gap-3">
          <button class="key-button" disabled={state.busy !== ''} onclick={() => void state.restore()}
            >{state.busy || 'Restore'}</button
          >
          <Dialog.Close class="quiet-button">Leave it</Dialog.Close>
        </div>
      {/if}
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
