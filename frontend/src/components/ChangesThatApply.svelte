<!-- What one change could do on some bars, each with the Steps it would give. -->
<script lang="ts">
  import type { AskedChange, AskedList } from '../api/client'
  import { stepText } from './steps'

  interface Props {
    found: AskedList | undefined
    error: Error | null
    busy: boolean
    onask: (change: AskedChange) => void
  }
  let { found, error, busy, onask }: Props = $props()
</script>

{#if error}
  <p class="mt-2 text-past-hand">{error.message}</p>
{:else if found}
  <p class="mt-2 text-sm text-quiet">
    Now Step {stepText(found.bar_step)} there, the song {stepText(found.step)}. What applies here, and what it
    would give:
  </p>
  <ul class="mt-1" aria-label="Changes that apply">
    {#each found.changes as change (`${change.kind} ${change.says}`)}
      <li>
        <button
          class="flex w-full items-baseline justify-between gap-3 border-b border-contour py-1.5 text-left hover:bg-raised"
          disabled={busy}
          onclick={() => onask(change)}
        >
          <span class="first-letter:uppercase">{change.says}</span>
          <span class="shrink-0 text-sm whitespace-nowrap tabular-nums"
            >{stepText(change.bar_step)}, song {stepText(change.step)}</span
          >
        </button>
      </li>
    {:else}
      <li class="text-quiet">Nothing applies here.</li>
    {/each}
  </ul>
{:else}
  <p class="mt-2 text-quiet" role="status">Trying what applies …</p>
{/if}
