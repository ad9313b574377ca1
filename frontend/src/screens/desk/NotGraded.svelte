<!-- A song that has no grade: still being worked out, or it cannot be. Its text is here all the same. -->
<script lang="ts">
  import ErrorNote from '../../components/ErrorNote.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import type { DeskState } from './desk.svelte'
  import TextDrawer from './TextDrawer.svelte'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const song = $derived(desk.song!)
</script>

<TopBar back={{ href: '#/', words: 'Songs' }} title={song.title} under="not graded" />
<main class="px-6 py-4 max-sm:px-3">
  {#if song.waiting}
    <p class="text-quiet" role="status">
      This song takes longer than most to grade; it appears here by itself. You can go on writing below, or
      come back later.
    </p>
  {:else}
    <ErrorNote message="It is stored, but cannot be graded: {song.problem}" />
  {/if}
  <div class="mt-4"><TextDrawer {desk} {songId} /></div>
</main>
