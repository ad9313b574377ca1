<!-- The demo begun over: asked first, with what goes. -->
<script lang="ts">
  import { Dialog } from 'bits-ui'
  import { songs, type LibraryState } from './library.svelte'

  let { state: library, count }: { state: LibraryState; count: number } = $props()
  let open = $state(false)

  async function begin(): Promise<void> {
    await library.beginOver()
    open = false
  }
</script>

<Dialog.Root bind:open>
  <Dialog.Trigger class="quiet-button">Start the demo over …</Dialog.Trigger>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
    <Dialog.Content class="window">
      <Dialog.Title class="mb-3 text-lg font-bold">Start the demo over?</Dialog.Title>
      <Dialog.Description>
        The {songs(count)} that are here go, with all that you wrote, their versions, students and groups; the demo
        songs come back as they were at first. What goes is kept as a copy, and Undo brings it back.
      </Dialog.Description>
      <div class="mt-5 flex flex-wrap gap-3">
        <button class="key-button" disabled={library.busy !== ''} onclick={() => void begin()}
          >{library.busy || 'Start over'}</button
        >
        <Dialog.Close class="quiet-button">Leave it</Dialog.Close>
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
