<!-- One sheet: its head and the systems on as few pages as will do. Laid out when it is shown, then it
  stays. -->
<script lang="ts">
  import { untrack } from 'svelte'
  import { engraved } from '../tab/engrave'
  import { layers } from '../tab/layers.svelte'
  import { systemsOf } from '../tab/systems'
  import TabPicture from '../tab/TabPicture.svelte'
  import { best, PAGE_WIDTH, type Paged } from './pages'
  import RowNames from './RowNames.svelte'
  import SheetHead from './SheetHead.svelte'
  import type { SheetContent } from './sheet'

  let { content }: { content: SheetContent } = $props()
  const SCALES = [0.86, 0.82, 0.78, 0.74, 0.7, 0.66, 0.63]
  const BETWEEN = 6
  let head = $state<HTMLElement>()
  let laid = $state.raw<Paged | null>(null)
  const parts = $derived(content.rows.map(({ part }) => part))
  const named = $derived(content.rows.length > 1)

  function systemsAt(scale: number) {
    return systemsOf(parts, PAGE_WIDTH / scale, layers, true).map((system) => ({
      system,
      picture: engraved(parts, system, layers, named ? 18 : 0),
    }))
  }

  $effect(() => {
    const taken = head?.getBoundingClientRect().height ?? 0
    untrack(() => {
      const layouts = SCALES.map((scale) => ({
        scale,
        heights: systemsAt(scale).map(({ picture }) => (picture.height + BETWEEN) * scale),
      }))
      laid = best(layouts, taken + 10)
    })
  })
  const systems = $derived(laid ? systemsAt(laid.scale) : [])
</script>

{#each laid?.pages ?? [[]] as page, at (at)}
  <section class="sheet-page" style:width="{PAGE_WIDTH}px">
    {#if at === 0}<div bind:this={head}><SheetHead {content} /></div>{:else}<p
        class="mb-1 flex justify-between text-[11px]"
      >
        <span>{content.title}</span><span>page {at + 1} of {laid!.pages.length}</span>
      </p>{/if}
    {#each page as index (index)}
      {@const { system, picture } = systems[index]}
      <!-- What is drawn larger and scaled down would still be counted as wider than the page. -->
      <div class="overflow-clip" style:height="{(picture.height + BETWEEN) * laid!.scale}px">
        <div
          class="relative origin-top-left"
          style:transform="scale({laid!.scale})"
          data-system={system.first}
        >
          <TabPicture {picture} height={picture.height} />
          {#if named}<RowNames rows={picture.rows} names={content.rows.map(({ name }) => name)} />{/if}
        </div>
      </div>
    {/each}
  </section>
{/each}
