<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query'
  import { onDestroy, untrack } from 'svelte'
  import { fromAddress, intoAddress } from '../../address'
  import { api } from '../../api/client'
  import { Player } from '../../audio/player.svelte'
  import { timelineOfPlaces } from '../../audio/places'
  import { timelineOf, together, type Timeline } from '../../audio/timeline'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import FetchErrors from '../../components/FetchErrors.svelte'
  import StopBar from '../../components/StopBar.svelte'
  import { offerSheet, sheetOf } from '../../sheet/sheet'
  import { Following } from '../../tab/following.svelte'
  import { DeskState } from './desk.svelte'
  import SongClimb from '../../components/SongClimb.svelte'
  import DeskHead from './DeskHead.svelte'
  import DeskTransport from './DeskTransport.svelte'
  import Evidence from './Evidence.svelte'
  import { LessonState } from './lesson.svelte'
  import { PracticeState, type Hearing } from './practice.svelte'
  import LessonStrip from './LessonStrip.svelte'
  import NotGraded from './NotGraded.svelte'
  import { belongsToField, DESK_KEYS } from './keys'
  import KeysList from './KeysList.svelte'
  import Legend from './Legend.svelte'
  import SettingUp from './SettingUp.svelte'
  import type FingerChoice from './FingerChoice.svelte'
  import type TapTempo from './TapTempo.svelte'
  import TabPages from './TabPages.svelte'
  import { draftBoxOf } from './textdraft.svelte'
  import TextDrawer from './TextDrawer.svelte'

  let { id }: { id: number } = $props()
  const ASKED_AGAIN_MS = 1500
  const desk = new DeskState()
  desk.begin(fromAddress())
  // What was typed and not saved is not hidden behind a closed drawer.
  desk.textOpen = untrack(() => draftBoxOf(id).find() !== null)
  const player = new Player()
  const following = new Following()
  const lesson = new LessonState(
    desk,
    untrack(() => id),
  )
  lesson.begin(fromAddress())
  $effect(() => intoAddress({ ...desk.address, ...lesson.address }))
  const practice = new PracticeState(desk, lesson)
  let keysOpen = $state(false)
  let settingUp = $state(false)
  let practiceOpen = $state(false)
  let loop = $state(false)
  let countIn = $state(true)
  let tapper = $state<TapTempo>()
  let fingers = $state<FingerChoice>()

  const song = createQuery(() => ({
    queryKey: ['song', id, desk.query],
    queryFn: () => api.song(id, desk.query),
    placeholderData: keepPreviousData,
    refetchInterval: ({ state }) => (state.data?.waiting ? ASKED_AGAIN_MS : false),
  }))
  $effect(() => {
    if (song.data) desk.song = song.data
  })
  // The chunks are asked for with the song, not after it; the Desk does not wait for them.
  let opened = $state<number | null>(null) // the revision that was there first
  $effect(() => {
    if (!song.data || opened !== null) return
    opened = song.data.revision
    untrack(() => desk.settle())
  })
  const saves = $derived((desk.song?.revision ?? 0) - (opened ?? desk.song?.revision ?? 0))
  const taught = createQuery(() => ({
    queryKey: ['lesson', id, saves, lesson.query],
    queryFn: () => api.lesson(id, lesson.query),
    placeholderData: keepPreviousData,
  }))
  $effect(() => {
    if (!taught.data || taught.data.revision !== desk.song?.revision) return
    lesson.data = taught.data
    untrack(() => lesson.settle())
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
    void [desk.analysis?.tempo, desk.range.join(), desk.notes, loop]
    void [practice.hearing, practice.click, practice.gap, practice.rises, practice.voice, lesson.layer]
    void [
      practice.bendsFirst,
      practice.onVersion,
      practice.version,
      practice.from,
      practice.behind,
      practice.sectionAlone,
      practice.others,
    ]
    untrack(() => {
      if (player.playing) start()
    })
  })

  const swing = $derived(desk.analysis?.feel === 'swing')

  function start(): void {
    const laid = practice.timeline(loop, countIn, swing)
    if (laid) return play(laid, false, false)
    const columns = practice.hearing === 'whole' ? desk.allColumns : desk.columns
    if (desk.part) play(together(desk.parts.map((part) => timelineOf(part, columns, swing))), loop)
  }

  function startAnew(): void {
    practice.from = null
    start()
  }

  /** The places of the chosen figure, one after the other. */
  function playPlaces(): void {
    if (desk.part && desk.chosenFigure)
      play(timelineOfPlaces(desk.part, desk.chosenFigure.places, swing), false)
  }

  // The analysis is timed at the practice tempo already.
  function play(timeline: Timeline, repeat: boolean, counted = countIn): void {
    following.begin()
    void player.play(timeline, {
      percent: 100,
      loop: repeat,
      countIn: counted,
      cents: desk.asRecorded ? (desk.analysis?.cents ?? 0) : 0,
      onMark: (bar, event) => (desk.cursor = { bar, event }),
      onPass: (percent) => (practice.heardPercent = practice.rises ? (percent * desk.percent) / 100 : null),
      onEnd: () => (desk.cursor = null),
    })
  }

  // Versions are asked for once somebody wants to hear one.
  const versions = createQuery(() => ({
    queryKey: ['versions', id],
    queryFn: () => api.versions(id),
    enabled: practiceOpen || practice.onVersion,
  }))
  const own = $derived(
    (versions.data?.versions ?? []).filter((each) => !each.put_away && each.part_index === desk.partIndex),
  )
  const versionId = $derived(own.find((each) => each.id === practice.versionId)?.id ?? own.at(-1)?.id ?? null)
  const version = createQuery(() => ({
    queryKey: ['version', versionId, desk.query],
    queryFn: () => api.version(versionId!, desk.query),
    enabled: practice.onVersion && versionId !== null,
  }))
  $effect(() => {
    practice.version = practice.onVersion ? (version.data?.version.parts[0] ?? null) : null
    if (practice.onVersion && versions.data && own.length === 0) practice.onVersion = false
  })

  /** What is new, all so far, or the whole: chosen and heard with one key. */
  function hear(hearing: Hearing): void {
    practice.hearing = hearing
    if (hearing !== 'whole' && !desk.notes) lesson.step(1)
    start()
  }
  const HEARINGS: Record<string, Hearing> = { u: 'new', i: 'so far', o: 'whole' }

  const tools = {
    playOrStop(): void {
      if (player.playing) {
        player.stop()
        desk.cursor = null
      } else startAnew()
    },
    toggleLoop: () => void (loop = !loop),
    tap: () => tapper?.tap(),
    print: () => window.print(),
    finger: (key: string) => fingers?.press(key),
    showKeys: () => void (keysOpen = true),
    setUp: () => void (settingUp = true),
    nextChunk: (by: 1 | -1) => lesson.step(by),
    hear: (key: string) => hear(HEARINGS[key]),
    cut: () => void lesson.cutAt(desk.notes?.first ?? { bar: desk.bar, event: desk.event }),
    again: () => startAnew(),
    slower: () => void (practice.fallBack() || desk.quicken(-5)),
    otherWriting: () => void (practice.onVersion = !practice.onVersion),
  }

  function press(event: KeyboardEvent): void {
    if (belongsToField(event)) return
    const key = DESK_KEYS.find((each) => each.match(event))
    if (!key) return
    event.preventDefault()
    key.act(desk, tools, event)
  }
</script>

<svelte:head><title>{desk.song?.title ?? 'Desk'} - Clear Steps</title></svelte:head>
<svelte:window onkeydown={press} />

<div class="grid page-height grid-rows-[auto_auto_1fr]">
  {#if desk.song && desk.part && desk.analysis}
    <DeskHead {desk} {player} {tools} songId={id} />
    <DeskTransport {desk} {player} {loop} bind:countIn {tools} songId={id} bind:tapper />
    <main class="page-and-panel">
      <div
        class="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto_auto] max-lg:grid-rows-[auto_auto_auto_auto]"
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
        <TabPages {desk} {lesson} parts={desk.parts} {following} />
        {#if lesson.data && !desk.textOpen}<LessonStrip
            {lesson}
            {practice}
            versions={own}
            {versionId}
            bind:practiceOpen
            onhear={hear}
          />{/if}
        {#if desk.textOpen}<TextDrawer {desk} songId={id} />{/if}
      </div>
      <aside class="side-panel" aria-label="Evidence" class:opacity-60={song.isFetching && !song.data}>
        <FetchErrors of={[song, taught, versions, version]} />
        <Evidence
          {desk}
          {lesson}
          {practice}
          songId={id}
          bind:fingers
          onplay={playPlaces}
          onhear={() => start()}
        />
      </aside>
    </main>
  {:else if desk.song}
    <NotGraded {desk} songId={id} />
  {:else if song.isError}
    <div class="p-8">
      <ErrorNote message={song.error.message} />
      <p class="mt-4"><a class="underline" href="#/">Back to the songs</a></p>
    </div>
  {:else}
    <p class="p-8 text-quiet" role="status">Fetching the song …</p>
  {/if}
</div>
<StopBar playing={player.playing} onstop={() => tools.playOrStop()} {following} />
<KeysList bind:open={keysOpen} />
<SettingUp bind:open={settingUp} {desk} {lesson} {player} songId={id} />
