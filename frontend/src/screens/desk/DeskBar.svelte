<script lang="ts">
  import Play from '@lucide/svelte/icons/play'
  import Repeat from '@lucide/svelte/icons/repeat'
  import Square from '@lucide/svelte/icons/square'
  import type { Player } from '../../audio/player.svelte'
  import StepBadge from '../../components/StepBadge.svelte'
  import { FASTEST_PERCENT, SLOWEST_PERCENT, type DeskState } from './desk.svelte'
  import HandPicker from './HandPicker.svelte'
  import type { DeskTools } from './keys'
  import TapTempo from './TapTempo.svelte'

  interface Props {
    desk: DeskState
    player: Player
    loop: boolean
    countIn: boolean
    tools: DeskTools
    fetching: boolean
    songId: number
    tapper: TapTempo | undefined
  }
  let {
    desk,
    player,
    loop = $bindable(),
    countIn = $bindable(),
    tools,
    fetching,
    songId,
    tapper = $bindable(),
  }: Props = $props()
  const part = $derived(desk.part!)
  const tempo = $derived(Math.round((desk.markedTempo * desk.percent) / 100))
</script>

<header class="flex flex-wrap items-center gap-x-2.5 gap-y-2 border-b border-ink px-6 py-1.5">
  <a href="#/" class="text-quiet hover:text-ink hover:underline">Songs</a>
  <div class="max-w-72 leading-tight">
    <h1 class="truncate text-xl leading-tight">{desk.analysis!.title}</h1>
    <span class="text-[13px] text-quiet">{part.tuning}{part.capo ? `, capo ${part.capo}` : ''}</span>
  </div>
  <span class:opacity-60={fetching} data-testid="song-step"
    ><StepBadge step={part.step} assumed={desk.analysis!.tempo_assumed} /></span
  >
  {#if desk.analysis!.parts.length > 1}
    <select class="field max-w-40" aria-label="Part" bind:value={desk.partIndex}>
      {#each desk.analysis!.parts as each, index (index)}<option value={index}
          >{each.name || `Part ${index + 1}`}</option
        >{/each}
    </select>
  {/if}
  <span class="grow"></span>
  <HandPicker {desk} />
  <label class="flex items-center gap-2 text-quiet">
    at
    <input
      class="w-14 accent-(--ink)"
      type="range"
      min={SLOWEST_PERCENT}
      max={FASTEST_PERCENT}
      step="5"
      bind:value={desk.percent}
      aria-label="Practice tempo, per cent of {Math.round(desk.markedTempo)}"
      aria-valuetext="{desk.percent} per cent, {tempo} a minute"
    />
    <span class="min-w-[5.4rem] text-ink whitespace-nowrap tabular-nums"
      >{tempo} of {Math.round(desk.markedTempo)}{desk.analysis!.tempo_assumed ? ' ~' : ''}</span
    >
  </label>
  <TapTempo bind:this={tapper} {desk} {songId} />
  <button
    class="quiet-button !px-2.5 text-sm"
    aria-pressed={countIn}
    onclick={() => (countIn = !countIn)}
    aria-label="Count-in"
    title="Count-in: one bar of clicks first">1 2 3</button
  >
  <button
    class="quiet-button !px-2.5"
    aria-pressed={loop}
    onclick={tools.toggleLoop}
    aria-label="Repeat"
    title="Repeat the chosen bars"><Repeat size={17} /></button
  >
  <button
    class="key-button inline-flex w-22 items-center !px-3 justify-center gap-2"
    onclick={tools.playOrStop}
  >
    {#if player.playing}<Square size={16} /> Stop{:else}<Play size={16} /> Play{/if}
  </button>
</header>
