<!-- A dialog over everything. -->
<script lang="ts">
  import { Dialog } from 'bits-ui'
  import type { Snippet } from 'svelte'

  interface Props {
    open: boolean
    title: string
    children: Snippet
  }
  let { open = $bindable(false), title, children }: Props = $props()
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-ink/30" />
    <Dialog.Content class="window">
      <Dialog.Title class="mb-3 text-lg font-bold">{title}</Dialog.Title>
      {@render children()}
      <Dialog.Close class="quiet-button mt-5">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
