<!-- Whether the song's Step is past somebody, which bars are, and by what. -->
<script lang="ts">
  import type { Part } from '../api/client'
  import Fold from '../ui/Fold.svelte'

  interface Props {
    part: Part
    whom: string
    onchoose?: (bar: number) => void
  }
  let { part, whom, onchoose }: Props = $props()
  const numbers = $derived(part.past_bars.map(({ index }) => part.bars[index].number))
</script>

{#if part.past_song}
  <p class="mt-1 border-l-4 border-past-hand pl-2 text-sm">Past {whom}: {part.past_song}</p>
{/if}
{#if numbers.length > 0}
  <Fold
    class="mt-1 border-l-4 border-past-hand pl-2 text-sm"
    title="Past {whom}: bar{numbers.length > 1 ? 's' : ''} {numbers.join(', ')}"
  >
    <ul class="space-y-0.5 pl-5">
      {#each part.past_bars as past (past.index)}
        <li>
          {#if onchoose}<button class="underline" onclick={() => onchoose(past.index)}
              >bar {part.bars[past.index].number}</button
            >{:else}bar {part.bars[past.index].number}{/if}: {past.words}
        </li>
      {/each}
    </ul>
  </Fold>
{/if}
