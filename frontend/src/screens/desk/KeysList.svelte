<script lang="ts">
  import { Dialog } from 'bits-ui'
  import { DESK_KEYS } from './keys'

  let { open = $bindable(false) }: { open: boolean } = $props()
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 bg-ink/30" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 w-96 -translate-x-1/2 -translate-y-1/2 rounded-md border border-contour bg-paper p-6"
    >
      <Dialog.Title class="mb-3 text-lg font-bold">Keys of the Desk</Dialog.Title>
      <dl class="grid grid-cols-[6rem_1fr] gap-y-1.5">
        {#each DESK_KEYS as key (key.keys)}
          <dt class="font-mono">{key.keys}</dt>
          <dd>{key.does}</dd>
        {/each}
      </dl>
      <Dialog.Close class="quiet-button mt-5">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
