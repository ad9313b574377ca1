<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query'
  import { onDestroy, untrack } from 'svelte'
  import { api } from '../../api/client'
  import { Player } from '../../audio/player.svelte'
  import { timelineOfPlaces } from '../../audio/places'
  import { timelineOf, together, type Timeline } from '../../audio/timeline'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { offerSheet, sheetOf } from '../../sheet/sheet'
  import { DeskState } from './desk.svelte'
  import SongClimb from '../../components/SongClimb.svelte'
  import DeskHead from './DeskHead.svelte'
  import DeskTransport from './DeskTransport.svelte'
  import Evidence from './Evidence.svelte'
  import { belongsToField, DESK_KEYS } from './keys'
  import KeysList from './KeysList.svelte'
  import Legend from './Legend.svelte'
  import type FingerChoice from './FingerChoice.svelte'
  import type TapTempo from './TapTempo.svelte'
  import TabPages from './TabPages.svelte'
  import { draftBoxOf } from './textdraft.svelte'
  import TextDrawer from './TextDrawer.svelte'

  let { id }: { id: number } = $props()
  const desk = new DeskState()
  // What was typed and not saved is not hidden behind a closed drawer.
  desk.textOpen = untrack(() => draftBoxOf(id).find() !== null)
  const player = new Player()
  let keysOpen = $state(false)
  let loop = $state(false)
  let countIn = $state(true)
  let tapper = $state<TapTempo>()
  let fingers = $state<FingerChoice>()

  const song = createQuery(() => ({
    queryKey: ['song', id, desk.query],
    queryFn: () => api.song(id, desk.query),
    placeholderData: keepPreviousData,
  }))
  $effect(() => {
    if (song.data) desk.song = song.data
  })
  onDestroy(() => player.stop())
  offerSheet(() =>
    desk.analysis && desk.parts.length > 0
      ? [
          sheetOf(
            desk.analysis,
            desk.parts.map((part) => ({ name: part.name, part })),
            'as written',
          ),
        ]
      : [],
  )

  // A new tempo or a new choice of bars is heard at once: what plays begins again with it.
  $effect(() => {
    void [desk.analysis?.tempo, desk.range.join(), loop]
    untrack(() => {
      if (player.playing) start()
    })
  })

  const swing = $derived(desk.analysis?.feel === 'swing')

  function start(): void {
    if (desk.part) play(together(desk.parts.map((part) => timelineOf(part, desk.columns, swing))), loop)
  }

  /** The places of the chosen figure, one after the other. */
  function playPlaces(): void {
    if (desk.part && desk.chosenFigure)
      play(timelineOfPlaces(desk.part, desk.chosenFigure.places, swing), false)
  }

  // The analysis is timed at the practice tempo already.
  function play(timeline: Timeline, repeat: boolean): void {
    void player.play(timeline, {
      percent: 100,
      loop: repeat,
      countIn,
      onMark: (bar, event) => (desk.cursor = { bar, event }),
      onEnd: () => (desk.cursor = null),
    })
  }

  const tools = {
    playOrStop(): void {
      if (player.playing) {
        player.stop()
        desk.cursor = null
      } else start()
    },
    toggleLoop: () => void (loop = !loop),
    tap: () => tapper?.tap(),
    print: () => window.print(),
    finger: (key: string) => fingers?.press(key),
    showKeys: () => void (keysOpen = true),
  }

  function press(event: KeyboardEvent): void {
    if (belongsToField(event)) return
    const key = DESK_KEYS.find((each) => each.match(event))
    if (!key) return
    event.preventDefault()
    key.act(desk, tools, event)
  }
</script>

<svelte:head><title>{desk.analysis?.title ?? 'Desk'} - Clear Steps</title></svelte:head>
<svelte:window onkeydown={press} />

<div class="grid page-height grid-rows-[auto_auto_1fr]">
  {#if desk.song && desk.part && desk.analysis}
    <DeskHead {desk} {player} {tools} songId={id} />
    <DeskTransport {desk} {player} {loop} bind:countIn {tools} songId={id} bind:tapper />
    <main class="page-and-panel">
      <div
        class="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto] max-lg:grid-rows-[auto_auto_auto]"
      >
        <div class="border-b border-contour px-6 pt-2 pb-1.5 max-sm:px-3">
          <SongClimb
            part={desk.part}
            chosen={(bar) => desk.isChosen(bar)}
            sounding={desk.cursor?.bar}
            onchoose={(bar, extend) => (extend ? desk.extendTo(bar) : desk.chooseWorst(bar))}
          />
          <Legend {desk} />
        </div>
        <TabPages {desk} parts={desk.parts} />
        {#if desk.textOpen}<TextDrawer {desk} songId={id} />{/if}
      </div>
      <aside class="side-panel" aria-label="Evidence" class:opacity-60={song.isFetching && !song.data}>
        {#if song.isError}<ErrorNote message={song.error.message} />{/if}
        <Evidence {desk} songId={id} bind:fingers onplay={playPlaces} />
      </aside>
    </main>
  {:else if song.isError}
    <div class="p-8">
      <ErrorNote message={song.error.message} />
      <p class="mt-4"><a class="underline" href="#/">Back to the songs</a></p>
    </div>
  {:else}
    <p class="p-8 text-quiet" role="status">Fetching the song …</p>
  {/if}
</div>
<KeysList bind:open={keysOpen} />
