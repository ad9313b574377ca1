<script lang="ts">
  import Undo from '@lucide/svelte/icons/undo-2'
  import { doneLately } from '../done.svelte'

  let open = $state(false)
  const count = $derived(doneLately.list.length)
</script>

<div class="done-lately print:hidden" aria-live="polite">
  {#if doneLately.failure}
    <p class="done-told border-past-hand" role="alert">{doneLately.failure}</p>
  {:else if doneLately.told}
    {@const told = doneLately.told}
    <p class="done-told">
      <span class="grow">{told.words}</span>
      <button
        class="font-bold underline"
        disabled={doneLately.busy}
        onclick={() => void doneLately.undo(told)}>Undo</button
      >
    </p>
  {/if}
  {#if count > 0}
    {#if open}
      <ul class="done-list" aria-label="Done lately">
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
    <button
      class="quiet-button inline-flex items-center gap-2 bg-paper !px-3 text-sm"
      aria-expanded={open}
      onclick={() => (open = !open)}
    >
      <Undo size={15} /> done lately ({count})
    </button>
  {/if}
</div>
