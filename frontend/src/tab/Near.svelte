<!-- Keeps the room of something tall and draws it only near the window, so that a long song opens at
  once. -->
<script lang="ts">
  import type { Snippet } from 'svelte'

  interface Props {
    height: number
    children: Snippet
    of: string // which bars, for those who look for one
  }
  let { height, children, of }: Props = $props()
  let near = $state(false)
  let host: HTMLElement

  $effect(() => {
    const watcher = new IntersectionObserver(([entry]) => (near = entry.isIntersecting), {
      rootMargin: '900px 0px',
    })
    watcher.observe(host)
    return () => watcher.disconnect()
  })
</script>

<div bind:this={host} class="relative break-inside-avoid" style:height="{height}px" data-system={of}>
  {#if near}{@render children()}{/if}
</div>
