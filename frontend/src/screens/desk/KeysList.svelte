<script lang="ts">
  import Window from '../../ui/Window.svelte'
  import { DESK_KEYS } from './keys'

  let { open = $bindable(false) }: { open: boolean } = $props()
</script>

<Window bind:open title="Keys of the Desk">
  <dl class="grid grid-cols-[6rem_1fr] gap-y-1.5">
    {#each DESK_KEYS as key (key.keys)}
      <dt class="font-mono">{key.keys}</dt>
      <dd>{key.does}</dd>
    {/each}
  </dl>
</Window>
