<script lang="ts">
  import type { SystemPicture } from './engrave'
  import Marks from './Marks.svelte'

  let { picture, height }: { picture: SystemPicture; height: number } = $props()
</script>

<svg class="absolute inset-0 overflow-visible" width={picture.width} {height} aria-hidden="true">
  {#each picture.rows as row, at (at)}
    <g transform="translate(0 {row.top})"><Marks marks={row.marks} /></g>
  {/each}
</svg>
