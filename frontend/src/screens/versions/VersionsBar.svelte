<script lang="ts">
  import Select from '../../ui/Select.svelte'
  import Slider from '../../ui/Slider.svelte'
  import Tick from '../../ui/Tick.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import Play from '@lucide/svelte/icons/play'
  import Printer from '@lucide/svelte/icons/printer'
  import Square from '@lucide/svelte/icons/square'
  import type { VersionCard } from '../../api/client'
  import WhomPicker from '../../components/WhomPicker.svelte'
  import LayerChoice from '../../tab/LayerChoice.svelte'
  import type { Player } from '../../audio/player.svelte'
  import { stepText } from '../../components/steps'
  import type { Side, VersionsState } from './versions.svelte'

  interface Props {
    screen: VersionsState
    player: Player
    songId: number
    student: string // for whom ways are looked for, empty for anybody
    title: string
    versions: VersionCard[]
    shownId: number | null
    onchoose: (id: number) => void
    onwrite: () => void
    onplay: () => void
    onprint: () => void
    shownStep: number | undefined
    there: boolean // the song is
    onhear: (side: Side) => void
  }
  let {
    screen,
    player,
    songId,
    student,
    title,
    versions,
    shownId,
    onchoose,
    onwrite,
    onplay,
    onprint,
    onhear,
    shownStep,
    there,
  }: Props = $props()
  const percent = $derived(Math.round((screen.job?.done ?? 0) * 100))
</script>

<TopBar back={{ href: `#/song/${songId}`, words: 'Desk' }} {title} under="easier versions" step={shownStep}>
  {#snippet whom()}<WhomPicker />{/snippet}
  {#if there}
    <span class="flex items-center gap-2 text-quiet">
      target Step
      <Slider
        label="Target Step"
        class="w-20"
        min={1}
        max={10}
        step={0.5}
        value={screen.target}
        onchange={(step) => screen.setTarget(step)}
      />
      <input
        class="field no-spin w-10 text-right text-ink"
        type="number"
        min="1"
        max="10"
        step="0.5"
        value={screen.target}
        onchange={(event) => screen.setTarget(event.currentTarget.valueAsNumber)}
        aria-label="Target Step, typed"
      />
    </span>
    {#if screen.searching}
      <span class="flex items-center gap-2" role="status">
        <progress class="h-2 w-24 accent-(--changed)" max="100" value={percent} aria-label="Search"
        ></progress>
        <span class="w-10 tabular-nums">{percent} %</span>
        <button class="quiet-button !px-3" onclick={() => void screen.stop()}>Stop</button>
      </span>
    {:else}
      <button class="key-button !px-4" onclick={onwrite}
        >Find ways to Step {stepText(screen.target)}{student && ` for ${student}`}</button
      >
    {/if}
    {#if screen.message}<span class="text-past-hand" role="status">{screen.message}</span>{/if}
    {#if versions.length > 0}
      <button class="quiet-button inline-flex items-center gap-2" onclick={onprint}
        ><Printer size={17} /> Print</button
      >
      <button
        class="quiet-button inline-flex w-24 items-center justify-center gap-2 !border-ink"
        onclick={onplay}
      >
        {#if player.playing}<Square size={16} /> Stop{:else}<Play size={16} /> Play{/if}
      </button>
    {/if}
  {/if}
</TopBar>
{#if versions.length > 0}
  <div class="tool-row">
    <Select
      label="Which version"
      class="max-w-80"
      value={shownId ?? 0}
      options={versions.map((each) => ({
        value: each.id,
        words: `${each.asked}, ${each.edits} change${each.edits === 1 ? '' : 's'}${each.refused ? `, ${each.refused} refused` : ''}`,
      }))}
      onchange={onchoose}
    />
    <span class="flex items-center" role="group" aria-label="Hear">
      <span class="mr-2 text-quiet">hear</span>
      <button
        class="quiet-button !rounded-r-none !px-3"
        aria-pressed={screen.side === 'original'}
        onclick={() => onhear('original')}>original</button
      >
      <button
        class="quiet-button !rounded-l-none !px-3"
        aria-pressed={screen.side === 'version'}
        onclick={() => onhear('version')}>version</button
      >
    </span>
    <Tick bind:checked={screen.withOriginal}>with the original above</Tick>
    <span class="grow"></span>
    <span class="flex flex-wrap items-center gap-x-3" role="group" aria-label="Rows to show"
      ><LayerChoice several={screen.withOriginal} /></span
    >
  </div>
{/if}
