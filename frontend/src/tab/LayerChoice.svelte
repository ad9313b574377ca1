<script lang="ts">
  import { layers, setLayer } from './layers.svelte'
  import type { Layers } from './spacing'

  const names = Object.keys(layers) as (keyof Layers)[]
</script>

{#each names as layer (layer)}
  <label class="inline-flex min-h-7 items-center gap-1.5"
    ><input
      class="accent-(--ink)"
      type="checkbox"
      checked={layers[layer]}
      onchange={(event) => setLayer(layer, event.currentTarget.checked)}
    />{layer}</label
  >
{/each}
