<script lang="ts">
  import Undo from '@lucide/svelte/icons/undo-2'
  import { doneLately } from '../done.svelte'

  const ROW_PX = 44
  let open = $state(false)
  const count = $derived(doneLately.list.length)
  const told = $derived(doneLately.told)
  const shown = $derived(count > 0 || doneLately.failure !== '')

  // The screens leave room for the row, and pages that scroll end above it.
  $effect(() => {
    const height = shown ? `${ROW_PX}px` : '0px'
    document.documentElement.style.setProperty('--done-row', height)
  })
</script>

{#if shown}
  <footer class="done-row print:hidden" aria-label="Done lately">
    <p class="min-w-0 grow truncate" aria-live="polite">
      {#if doneLately.failure}
        <span class="text-past-hand" role="alert">{doneLately.failure}</span>
      {:else if told}
        {told.words}
        <button
          class="ml-3 font-bold underline"
          disabled={doneLately.busy}
          onclick={() => void doneLately.undo(told)}>Undo</button
        >
      {/if}
    </p>
    {#if count > 0}
      <button
        class="inline-flex items-center gap-2 text-quiet hover:text-ink"
        aria-expanded={open}
        onclick={() => (open = !open)}
      >
        <Undo size={15} /> done lately ({count})
      </button>
      {#if open}
        <ul class="done-list" aria-label="What can be undone">
          {#each doneLately.list as done (done)}
            <li class="flex items-baseline gap-3 py-1">
              <span class="grow">{done.words}</span>
              <button class="underline" disabled={doneLately.busy} onclick={() => void doneLately.undo(done)}
                >Undo</button
              >
            </li>
          {/each}
        </ul>
      {/if}
    {/if}
  </footer>
{/if}
