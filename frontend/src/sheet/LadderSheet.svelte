<!-- What each Step allows, in words, for the wall of the teaching room. -->
<script lang="ts">
  import { PAGE_WIDTH } from './pages'
  import SheetTitle from './SheetTitle.svelte'
  import type { LadderContent } from './sheet'

  let { content }: { content: LadderContent } = $props()
  const STEPS_A_PAGE = 5
  const pages = $derived(
    Array.from({ length: Math.ceil(content.rungs.length / STEPS_A_PAGE) }, (_, page) =>
      content.rungs.slice(page * STEPS_A_PAGE, (page + 1) * STEPS_A_PAGE),
    ),
  )
</script>

{#each pages as rungs, at (at)}
  <section class="sheet-page" style:width="{PAGE_WIDTH}px">
    <SheetTitle
      title="The ladder"
      under={content.ladder}
      right={pages.length > 1 ? `page ${at + 1} of ${pages.length}` : ''}
    />
    {#if at === 0}<p class="mt-1">
        What a bar may ask for and still be this Step. Each alone; several together make it harder.
      </p>{/if}
    {#each rungs as rung (rung.step)}
      <h2 class="mt-2 text-[14px]">Step {rung.step}</h2>
      <ul class="columns-2 gap-6 text-[11px]">
        {#each rung.measures as { measure, words } (measure)}
          <li class="break-inside-avoid"><b>{measure}:</b> {words}</li>
        {/each}
      </ul>
    {/each}
  </section>
{/each}
