<!-- The blocks of a sheet: switched on and off, put in another order by dragging or with the arrows. -->
<script lang="ts">
  import ArrowDown from '@lucide/svelte/icons/arrow-down'
  import ArrowUp from '@lucide/svelte/icons/arrow-up'
  import type { SheetBlock, SheetChoice } from '../../api/client'
  import { BLOCK_NAMES } from '../../sheet/lessonwords'
  import Tick from '../../ui/Tick.svelte'

  interface Props {
    choice: SheetChoice
    onkeep: (change: Partial<SheetChoice>) => void
  }
  let { choice, onkeep }: Props = $props()
  let dragged = $state<SheetBlock | null>(null)

  function move(block: SheetBlock, by: number): void {
    const blocks = [...choice.blocks]
    const at = blocks.indexOf(block)
    const to = at + by
    if (to < 0 || to >= blocks.length) return
    blocks.splice(at, 1)
    blocks.splice(to, 0, block)
    onkeep({ blocks })
  }

  function dropOn(block: SheetBlock): void {
    if (!dragged || dragged === block) return
    const blocks = choice.blocks.filter((each) => each !== dragged)
    blocks.splice(choice.blocks.indexOf(block), 0, dragged)
    dragged = null
    onkeep({ blocks })
  }

  function toggle(block: SheetBlock): void {
    const off = choice.off.includes(block)
      ? choice.off.filter((each) => each !== block)
      : [...choice.off, block]
    onkeep({ off })
  }
</script>

<ul class="mt-1" aria-label="Blocks">
  {#each choice.blocks as block, at (block)}
    <li
      class="flex items-center gap-1 py-0.5 {dragged === block ? 'opacity-50' : ''}"
      draggable="true"
      ondragstart={() => (dragged = block)}
      ondragover={(event) => event.preventDefault()}
      ondrop={() => dropOn(block)}
    >
      <span class="grow"
        ><Tick checked={!choice.off.includes(block)} onchange={() => toggle(block)}
          >{BLOCK_NAMES[block].en}</Tick
        ></span
      >
      <button
        class="icon-link"
        aria-label="{BLOCK_NAMES[block].en} higher"
        disabled={at === 0}
        onclick={() => move(block, -1)}><ArrowUp size={16} /></button
      >
      <button
        class="icon-link"
        aria-label="{BLOCK_NAMES[block].en} lower"
        disabled={at === choice.blocks.length - 1}
        onclick={() => move(block, 1)}><ArrowDown size={16} /></button
      >
    </li>
  {/each}
</ul>
