<script lang="ts">
  import Tick from '../ui/Tick.svelte'
  import { layers, setLayer } from './layers.svelte'
  import type { Layers } from './spacing'

  const names = Object.keys(layers) as (keyof Layers)[]
</script>

{#each names as layer (layer)}
  <Tick checked={layers[layer]} onchange={(on) => setLayer(layer, on)}>{layer}</Tick>
{/each}
