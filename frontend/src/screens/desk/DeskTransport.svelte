<!-- How it is played and what is shown: tempo, count-in, repeat; rows, text, keys, light. -->
<script lang="ts">
  import Guitar from '@lucide/svelte/icons/guitar'
  import Keyboard from '@lucide/svelte/icons/keyboard'
  import Moon from '@lucide/svelte/icons/moon'
  import PencilLine from '@lucide/svelte/icons/pencil-line'
  import Repeat from '@lucide/svelte/icons/repeat'
  import Sun from '@lucide/svelte/icons/sun'
  import VolumeX from '@lucide/svelte/icons/volume-x'
  import Volume2 from '@lucide/svelte/icons/volume-2'
  import LayerChoice from '../../tab/LayerChoice.svelte'
  import { volume, type Player } from '../../audio/player.svelte'
  import { LOUDNESS } from '../../sheet/sheet'
  import { theme, toggleTheme } from '../../theme.svelte'
  import TipButton from '../../ui/TipButton.svelte'
  import Slider from '../../ui/Slider.svelte'
  import { FASTEST_PERCENT, SLOWEST_PERCENT, type DeskState } from './desk.svelte'
  import type { DeskTools } from './keys'
  import TapTempo from './TapTempo.svelte'

  interface Props {
    desk: DeskState
    player: Player
    loop: boolean
    countIn: boolean
    tools: DeskTools
    songId: number
    tapper: TapTempo | undefined
  }
  let { desk, player, loop, countIn = $bindable(), tools, songId, tapper = $bindable() }: Props = $props()
  const tempo = $derived(Math.round((desk.markedTempo * desk.percent) / 100))
</script>

<div class="tool-row" role="toolbar" aria-label="Playing and showing">
  <span class="flex items-center gap-2">
    <Slider
      label="Practice tempo, per cent of {Math.round(desk.markedTempo)}"
      value={desk.percent}
      min={SLOWEST_PERCENT}
      max={FASTEST_PERCENT}
      step={5}
      spoken="{desk.percent} per cent, {tempo} a minute"
      onchange={(percent) => (desk.percent = percent)}
    />
    <span class="min-w-[5.4rem] whitespace-nowrap tabular-nums" data-testid="tempo"
      >{tempo} of {Math.round(desk.markedTempo)}{desk.analysis!.tempo_assumed ? ' ~' : ''}</span
    >
    <TapTempo bind:this={tapper} {desk} {songId} />
  </span>
  <TipButton
    class="quiet-button !px-2.5 text-sm"
    aria-pressed={countIn}
    onclick={() => (countIn = !countIn)}
    aria-label="1 2 3: count-in"
    tip="Count-in: one bar of clicks first">1 2 3</TipButton
  >
  <TipButton
    class="quiet-button !px-2.5"
    aria-pressed={loop}
    onclick={tools.toggleLoop}
    aria-label="Repeat"
    tip="Repeat the chosen bars"><Repeat size={17} /></TipButton
  >
  <span class="flex items-center gap-1.5">
    <TipButton
      class="icon-link"
      aria-label={volume.percent > 0 ? 'Silence' : 'Sound'}
      tip={LOUDNESS}
      onclick={() => player.silence()}
      >{#if volume.percent > 0}<Volume2 size={17} />{:else}<VolumeX size={17} />{/if}</TipButton
    ><Slider
      label="Volume"
      class="w-16"
      value={volume.percent}
      min={0}
      max={100}
      step={5}
      spoken="{volume.percent} per cent. {LOUDNESS}"
      onchange={(percent) => player.setVolume(percent)}
    />
  </span>
  <span class="grow"></span>
  <span class="flex flex-wrap items-center gap-x-3 text-[15px]" role="group" aria-label="Rows to show"
    ><LayerChoice several={desk.together} /></span
  >
  <button class="icon-link" onclick={tools.setUp}><Guitar size={17} /> Set up</button>
  <button
    class="icon-link"
    data-text-switch
    aria-pressed={desk.textOpen}
    onclick={() => (desk.textOpen = !desk.textOpen)}><PencilLine size={17} /> Text</button
  >
  <TipButton class="icon-link" onclick={tools.showKeys} aria-label="Keys" tip="All keys (?)"
    ><Keyboard size={18} /></TipButton
  >
  <TipButton
    class="icon-link"
    onclick={toggleTheme}
    aria-label={theme.name === 'dark' ? 'Light' : 'Dark'}
    tip={theme.name === 'dark' ? 'Light' : 'Dark'}
    >{#if theme.name === 'dark'}<Sun size={18} />{:else}<Moon size={18} />{/if}</TipButton
  >
</div>
