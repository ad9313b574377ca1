<script lang="ts">
  import Play from '@lucide/svelte/icons/play'
  import Printer from '@lucide/svelte/icons/printer'
  import Square from '@lucide/svelte/icons/square'
  import type { VersionCard } from '../../api/client'
  import type { Player } from '../../audio/player.svelte'
  import { stepText } from '../../components/steps'
  import type { Side, VersionsState } from './versions.svelte'

  interface Props {
    screen: VersionsState
    player: Player
    songId: number
    title: string
    versions: VersionCard[]
    shownId: number | null
    onchoose: (id: number) => void
    onwrite: () => void
    onplay: () => void
    onhear: (side: Side) => void
  }
  let { screen, player, songId, title, versions, shownId, onchoose, onwrite, onplay, onhear }: Props =
    $props()
  const percent = $derived(Math.round((screen.job?.done ?? 0) * 100))
</script>

<header class="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-ink px-6 py-2 print:hidden">
  <a href="#/" class="text-quiet hover:text-ink hover:underline">Songs</a>
  <a href="#/song/{songId}" class="text-xl font-bold hover:underline">{title}</a>
  {#if versions.length > 0}
    <label class="text-quiet">
      <select
        class="field max-w-64 text-ink"
        value={String(shownId)}
        onchange={(event) => onchoose(Number(event.currentTarget.value))}
        aria-label="Which version"
      >
        {#each versions as each (each.id)}
          <option value={String(each.id)}
            >{each.asked}, {each.edits} edit{each.edits === 1 ? '' : 's'}{each.refused
              ? `, ${each.refused} refused`
              : ''}</option
          >
        {/each}
      </select>
    </label>
  {/if}
  <span class="grow"></span>
  <label class="flex items-center gap-2 text-quiet">
    target Step
    <input
      class="w-20 accent-(--changed)"
      type="range"
      min="1"
      max="10"
      step="0.5"
      value={screen.target}
      oninput={(event) => screen.setTarget(event.currentTarget.valueAsNumber)}
      aria-label="Target Step"
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
  </label>
  {#if screen.searching}
    <span class="flex w-56 items-center gap-2" role="status">
      <progress class="h-2 w-24 accent-(--changed)" max="100" value={percent} aria-label="Search"></progress>
      <span class="w-10 tabular-nums">{percent} %</span>
      <button class="quiet-button !px-3" onclick={() => void screen.stop()}>Stop</button>
    </span>
  {:else}
    <button class="key-button !px-4" onclick={onwrite}>Write Step {stepText(screen.target)}</button>
  {/if}
  {#if screen.message}<span class="text-past-hand" role="status">{screen.message}</span>{/if}
  {#if versions.length > 0}
    <span class="flex" role="group" aria-label="Hear">
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
    <button class="quiet-button inline-flex items-center gap-1.5" onclick={onplay}>
      {#if player.playing}<Square size={15} /> Stop{:else}<Play size={15} /> Play{/if}
    </button>
    <button
      class="quiet-button !px-2.5"
      onclick={() => window.print()}
      aria-label="Print"
      title="Print the version"><Printer size={17} /></button
    >
  {/if}
</header>
