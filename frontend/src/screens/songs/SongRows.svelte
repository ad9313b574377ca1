<script lang="ts">
  import { createWindowVirtualizer } from '@tanstack/svelte-virtual'
  import { untrack } from 'svelte'
  import type { Card } from '../../api/client'
  import SongCard from './SongCard.svelte'
  import { rowsOf } from './terraces'

  interface Props {
    songs: Card[]
    byStep: boolean
    marksDemo: boolean
    onaway: (song: Card, away: boolean) => void
  }
  let { songs, byStep, marksDemo, onaway }: Props = $props()
  const ROW_PX = 186
  const NARROWEST_CARD_PX = 300
  let list = $state<HTMLElement>()
  let width = $state(900)
  const across = $derived(Math.max(1, Math.min(3, Math.floor(width / NARROWEST_CARD_PX))))
  const rows = $derived(rowsOf(songs, byStep, across))

  // Only the rows near the window are drawn: two thousand cards would take seconds.
  const virtual = createWindowVirtualizer({ count: 0, estimateSize: () => ROW_PX, overscan: 3 })
  $effect(() => {
    const count = rows.length
    const scrollMargin = list?.offsetTop ?? 0
    untrack(() => $virtual.setOptions({ count, scrollMargin, estimateSize: () => ROW_PX, overscan: 3 }))
  })
</script>

<ol
  bind:this={list}
  bind:clientWidth={width}
  class="relative"
  style:height="{$virtual.getTotalSize()}px"
  aria-label="Songs"
>
  {#each $virtual.getVirtualItems() as item (item.key)}
    {@const row = rows[item.index]}
    {#if row}
      <li
        class="absolute inset-x-0 top-0 grid grid-cols-[2.5rem_1fr] gap-x-4 pt-3 {row.begins && item.index
          ? 'border-t border-contour'
          : ''}"
        style:height="{ROW_PX}px"
        style:transform="translateY({item.start - $virtual.options.scrollMargin}px)"
        aria-label={row.begins ? `Step ${row.begins}` : undefined}
      >
        <p class="font-mono text-xl text-quiet" aria-hidden="true">{row.begins}</p>
        <ul class="grid gap-x-10" style:grid-template-columns="repeat({across}, minmax(0, 1fr))">
          {#each row.songs as song (song.id)}
            <li><SongCard {song} {marksDemo} onaway={(away) => onaway(song, away)} /></li>
          {/each}
        </ul>
      </li>
    {/if}
  {/each}
</ol>
