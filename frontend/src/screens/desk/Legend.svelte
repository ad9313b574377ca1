<!-- The signs that stand on this song's bars, in words. -->
<script lang="ts">
  import MeasureSign from '../../components/MeasureSign.svelte'
  import type { DeskState } from './desk.svelte'

  let { desk }: { desk: DeskState } = $props()
  const measures = $derived([...new Set(desk.part?.bars.map((bar) => bar.hardest_measure))].sort())
  const past = $derived(desk.part?.bars.some((bar) => bar.past_hand))
</script>

<ul
  class="flex flex-wrap gap-x-4 pl-6 text-[13px] text-quiet"
  aria-label="What makes a bar hard: the sign on its column"
>
  {#each measures as measure (measure)}
    <li class="inline-flex items-center gap-1"><MeasureSign {measure} size={13} />{measure}</li>
  {/each}
  <li class="inline-flex items-center gap-1.5">
    <span class="inline-block h-1 w-4 bg-ink"></span>the hardest two bars
  </li>
  {#if past}<li class="inline-flex items-center gap-1">
      <svg width="9" height="13" aria-hidden="true"
        ><path d="M1 0v12h7l-2 -3 2 -3h-7" fill="var(--past-hand)" /></svg
      >past this hand
    </li>{/if}
</ul>
