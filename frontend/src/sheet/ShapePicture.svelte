<script lang="ts">
  import type { Part } from '../api/client'
  import Marks from '../tab/Marks.svelte'
  import { SHAPE_HEIGHT, shapeMarks, shapeWidth, shapeWords } from '../tab/shapes'

  let { shape }: { shape: Part['shapes'][number] } = $props()
  const width = $derived(shapeWidth(shape))
</script>

<svg {width} height={SHAPE_HEIGHT} role="img" aria-label={shapeWords(shape)}
  ><Marks marks={shapeMarks(shape, width / 2 + 2, 0)} /></svg
>
