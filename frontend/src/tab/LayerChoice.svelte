<script lang="ts">
  import Tick from '../ui/Tick.svelte'
  import { layers, setLayer } from './layers.svelte'
  import type { Layers } from './spacing'

  let { several = false }: { several?: boolean } = $props() // parts under one another: without brackets
  const names = $derived(
    (Object.keys(layers) as (keyof Layers)[]).filter((name) => name !== 'figures' || !several),
  )
</script>

{#each names as layer (layer)}
  <Tick checked={layers[layer]} onchange={(on) => setLayer(layer, on)}>{layer}</Tick>
{/each}
