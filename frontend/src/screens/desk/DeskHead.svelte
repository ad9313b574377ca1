<script lang="ts">
  import Play from '@lucide/svelte/icons/play'
  import Printer from '@lucide/svelte/icons/printer'
  import Square from '@lucide/svelte/icons/square'
  import type { Player } from '../../audio/player.svelte'
  import WhomPicker from '../../components/WhomPicker.svelte'
  import Select from '../../ui/Select.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import type { DeskState } from './desk.svelte'
  import type { DeskTools } from './keys'

  interface Props {
    desk: DeskState
    player: Player
    tools: DeskTools
    songId: number
  }
  let { desk, player, tools, songId }: Props = $props()
  const ALL = -1
  const part = $derived(desk.part!)
  const feel = $derived(desk.analysis!.feel === 'straight' ? '' : (desk.analysis!.feel ?? ''))
  const under = $derived(
    [part.tuning, part.capo ? `capo ${part.capo}` : '', feel, `${part.bars.length} bars`]
      .filter(Boolean)
      .join(', '),
  )
</script>

<TopBar
  back={{ href: '#/', words: 'Songs' }}
  title={desk.analysis!.title}
  {under}
  step={part.step}
  assumed={desk.analysis!.tempo_assumed}
>
  {#snippet whom()}<WhomPicker />{/snippet}
  {#if desk.analysis!.parts.length > 1}
    <Select
      label="Part"
      class="max-w-48"
      value={desk.together ? ALL : desk.partIndex}
      options={[
        ...desk.analysis!.parts.map((each, index) => ({
          value: index,
          words: each.name || `part ${index + 1}`,
        })),
        { value: ALL, words: 'all parts together' },
      ]}
      onchange={(index) => desk.showPart(index)}
    />
  {/if}
  <a class="key-button inline-flex items-center" href="#/song/{songId}/versions">Make it easier</a>
  <a class="quiet-button inline-flex items-center" href="#/song/{songId}/sheet">Lesson sheet</a>
  <button class="quiet-button inline-flex items-center gap-2" onclick={tools.print}
    ><Printer size={17} /> Print</button
  >
  <button
    class="quiet-button inline-flex w-24 items-center justify-center gap-2 !border-ink"
    onclick={tools.playOrStop}
  >
    {#if player.playing}<Square size={16} /> Stop{:else}<Play size={16} /> Play{/if}
  </button>
</TopBar>
