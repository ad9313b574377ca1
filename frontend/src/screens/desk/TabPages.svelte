<script lang="ts">
  import type { Part } from '../../api/client'
  import type { DeskState } from './desk.svelte'
  import { systemsOf } from './layout'
  import TabSystem from './TabSystem.svelte'

  let { desk, part }: { desk: DeskState; part: Part } = $props()
  let width = $state(0)
  let scroller: HTMLElement
  const PADDING = 48
  const systems = $derived(width > 0 ? systemsOf(part, width - PADDING) : [])
  const sectionAt = $derived(new Map(part.sections.map((section) => [section.first_bar, section])))

  // What is chosen or sounding comes into sight.
  $effect(() => {
    const bar = desk.cursor?.bar ?? desk.bar
    const button = bar >= 0 ? scroller.querySelector<HTMLElement>(`[data-bar="${bar}"]`) : null
    if (button) {
      button.scrollIntoView({ block: 'nearest' })
      if (document.activeElement instanceof HTMLElement && document.activeElement.dataset.bar)
        button.focus({ preventScroll: true })
    }
  })
</script>

<section
  bind:this={scroller}
  bind:clientWidth={width}
  class="relative min-h-0 overflow-y-auto px-6 py-3 max-lg:overflow-visible"
  aria-label="Tab and climb"
  style:scroll-padding="16px"
>
  {#each systems as system (system.bars[0].index)}
    {@const section = sectionAt.get(system.bars[0].index)}
    {#if section}
      <h2 class="mt-1 text-[15px]">
        {section.name}{section.times === 1
          ? ''
          : section.times === null
            ? ' - several times, not counted yet'
            : ` - ${section.times} times`}
      </h2>
    {/if}
    <TabSystem {desk} {part} {system} />
    <div class="h-3"></div>
  {/each}
</section>
