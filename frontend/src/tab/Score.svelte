<!-- All systems of one or several parts; every screen draws with this and lays its own over each system. -->
<script lang="ts">
  import type { Snippet } from 'svelte'
  import type { Part } from '../api/client'
  import { engraved, type SystemPicture } from './engrave'
  import Near from './Near.svelte'
  import { sectionWords } from '../components/sections'
  import type { Layers } from './spacing'
  import Spoken from './Spoken.svelte'
  import TabPicture from './TabPicture.svelte'
  import { systemsOf, type SystemBars } from './systems'

  interface Props {
    parts: Part[] // under one another
    layers: Layers
    width: number // px to fill
    head?: number // room over every row for a name
    below?: number | ((system: SystemBars) => number) // room under every system
    spoken?: string[] // names of the parts, where the notes are to be read out
    over?: Snippet<[SystemPicture, SystemBars]>
  }
  let { parts, layers, width, head = 0, below = 0, spoken, over }: Props = $props()

  const systems = $derived(
    width > 0
      ? systemsOf(parts, width, layers).map((system) => ({
          system,
          picture: engraved(parts, system, layers, head),
        }))
      : [],
  )
  const sectionAt = $derived(new Map(parts[0].sections.map((section) => [section.first_bar, section])))
  const barsOf = ({ first, last }: SystemBars) =>
    Array.from({ length: last - first + 1 }, (_, at) => first + at).join(' ')
</script>

{#each systems as { system, picture } (system.first)}
  {@const section = sectionAt.get(system.first)}
  {#if section}<h2 class="mt-1 break-after-avoid text-[15px]">{sectionWords(section)}</h2>{/if}
  {@const height = picture.height + (typeof below === 'number' ? below : below(system))}
  <Near {height} of={barsOf(system)}>
    <TabPicture {picture} {height} />
    {#if spoken}<Spoken {parts} names={spoken} {system} />{/if}
    {@render over?.(picture, system)}
  </Near>
{/each}
