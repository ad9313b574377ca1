<!-- While something sounds on a screen that scrolls as a whole: Stop, always in sight. -->
<script lang="ts">
  import Square from '@lucide/svelte/icons/square'
  import type { Following } from '../tab/following.svelte'

  interface Props {
    playing: boolean
    onstop: () => void
    following?: Following
  }
  let { playing, onstop, following }: Props = $props()
</script>

{#if playing}
  <div class="stop-bar" role="group" aria-label="While it plays">
    {#if following && !following.on}
      <button class="quiet-button bg-raised" onclick={() => following.begin()}>Follow again</button>
    {/if}
    <button class="key-button inline-flex items-center gap-2" aria-label="Stop playing" onclick={onstop}
      ><Square size={16} /> Stop</button
    >
  </div>
{/if}
