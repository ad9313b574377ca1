<!-- Several songs in one file or text: one is taken, or each is saved as a song of its own. -->
<script lang="ts">
  interface Props {
    titles: string[]
    taken: number
    busy: string // what is under way
    ontake: (song: number) => void
    onall: () => void
  }
  let { titles, taken, busy, ontake, onall }: Props = $props()
</script>

<section class="mb-4 border-l-4 border-contour pl-3" aria-label="Songs found">
  <p>
    {titles.length} songs are in here; <b>{titles[taken]}</b> is shown.
    <button class="quiet-button ml-2" disabled={busy !== ''} onclick={onall}>Save all {titles.length}</button>
  </p>
  <ul class="mt-1 flex max-h-40 flex-wrap gap-x-4 gap-y-1 overflow-y-auto">
    {#each titles as title, at (at)}
      <li>
        <button
          class="text-left underline decoration-dotted disabled:no-underline"
          disabled={busy !== '' || at === taken}
          onclick={() => ontake(at)}>{title}</button
        >
      </li>
    {/each}
  </ul>
  <p class="text-quiet" role="status">{busy}</p>
</section>
