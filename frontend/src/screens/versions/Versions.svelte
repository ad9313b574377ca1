<script lang="ts">
  import { createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy, untrack } from 'svelte'
  import { router } from 'svelte-spa-router'
  import { fromAddress, intoAddress, numberOf } from '../../address'
  import { api, isStale, type Role, type Version, type Wish } from '../../api/client'
  import { Player } from '../../audio/player.svelte'
  import { timelineOf } from '../../audio/timeline'
  import SectionRoles from '../../components/SectionRoles.svelte'
  import Fold from '../../ui/Fold.svelte'
  import Conflict from '../../components/Conflict.svelte'
  import { rowNames } from '../../components/setup'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import StopBar from '../../components/StopBar.svelte'
  import { Following } from '../../tab/following.svelte'
  import { doneLately } from '../../done.svelte'
  import { OneByOne } from '../../onebyone'
  import { offerSheet, sheetOf } from '../../sheet/sheet'
  import { isAnybody, whom, whomQuery } from '../../whom.svelte'
  import EditList from './EditList.svelte'
  import HandEdit from './HandEdit.svelte'
  import KeptScores from './KeptScores.svelte'
  import OneChange from './OneChange.svelte'
  import Refusal from './Refusal.svelte'
  import SideBySide from './SideBySide.svelte'
  import VersionPages from './VersionPages.svelte'
  import VersionsBar from './VersionsBar.svelte'
  import VersionWords from './VersionWords.svelte'
  import WaysFound from './WaysFound.svelte'
  import WishRow from './WishRow.svelte'
  import { barsOf, refusalLines, refusedIn, VersionsState } from './versions.svelte'

  let { params }: { params?: { id?: string } } = $props()
  const songId = $derived(Number(params?.id))
  const queries = useQueryClient()
  const screen = new VersionsState()
  const player = new Player()
  const following = new Following()
  let chosen = $state<number | null>(null)
  let failure = $state('')
  let meanwhile = $state.raw<{ saved: Version; refused: number[] } | null>(null)
  onDestroy(() => player.stop())
  // Another song is another search: nothing found or chosen for the last one stays.
  $effect(() => {
    void songId
    untrack(() => {
      screen.begin()
      const { tuning } = fromAddress()
      if (tuning) screen.asked = { tuning, capo: 0 }
      chosen = null
    })
  })
  $effect(() => {
    const { version } = fromAddress(`?${router.querystring}`)
    if (version) chosen = numberOf(version, 0) || null
  })
  $effect(() => intoAddress({ tuning: fromAddress().tuning ?? '', version: chosen ?? '' }))
  // A version is asked for where the student is comfortable, else one Step below the song's, until another
  // Step is chosen.
  const students = createQuery(() => ({ queryKey: ['students'], queryFn: api.students }))
  $effect(() => {
    const comfortable = students.data?.students.find(({ id }) => id === whom.studentId)?.comfortable_step
    const step = list.data?.parts[screen.partIndex]?.step
    const proposed = comfortable ?? (step && step - 1)
    if (proposed) untrack(() => !screen.touched && screen.propose(proposed))
  })
  offerSheet(() => {
    const shown = version.data
    if (!shown) return []
    const [original, easier] = [shown.original.parts[0], shown.version.parts[0]]
    const names = rowNames(original, easier)
    const own = { name: names[1], part: easier }
    const rows = screen.withOriginal
      ? [{ name: names[0], part: original }, own]
      : [{ name: '', part: own.part }]
    return [sheetOf(shown.version, rows, shown.asked, shown.summary)]
  })

  const list = createQuery(() => ({ queryKey: ['versions', songId], queryFn: () => api.versions(songId) }))
  const inSight = $derived((list.data?.versions ?? []).filter((each) => !each.put_away || each.id === chosen))
  const isGone = $derived(!list.isFetching && !list.data?.versions.some((each) => each.id === chosen))
  const shownId = $derived((isGone ? null : chosen) ?? inSight.at(-1)?.id ?? null)
  const version = createQuery(() => ({
    queryKey: ['version', shownId, whomQuery()],
    queryFn: () => api.version(shownId!, whomQuery()),
    placeholderData: keepPreviousData,
    enabled: shownId !== null,
  }))
  const song = createQuery(() => ({ queryKey: ['songs'], queryFn: api.songs }))
  const original = $derived(song.data?.songs.find((each) => each.id === songId))
  const title = $derived(
    version.data?.title ?? song.data?.songs.find((each) => each.id === songId)?.title ?? '',
  )

  async function write(wish: Partial<Wish> = {}): Promise<void> {
    const id = await screen.search(songId, wish)
    if (id === null) return
    screen.sideBySide = (wish.further_targets?.length ?? 0) > 0
    await queries.invalidateQueries({ queryKey: ['versions', songId] })
    chosen = id
  }

  async function take(way: number): Promise<void> {
    const id = await screen.take(way)
    if (id === null) return
    screen.sideBySide = false
    await queries.invalidateQueries({ queryKey: ['versions', songId] })
    chosen = id
  }

  /** The same again, with what was refused left as the original has it. */
  async function anotherWay(shown: Version): Promise<void> {
    await write({
      target: shown.target,
      approach: shown.approach,
      layer: shown.layer,
      part_index: shown.part_index,
      keeping: shown.id,
    })
  }

  let busy = $state(false)

  const changes = new OneByOne()

  /** Show what a change made, one change after another; nothing where it was not made. */
  function show(change: () => Promise<Version>): Promise<Version | null> {
    return changes.run(() => shownAfter(change))
  }

  async function shownAfter(change: () => Promise<Version>): Promise<Version | null> {
    failure = ''
    busy = true
    try {
      const made = await change()
      if (isAnybody()) queries.setQueryData(['version', made.id, whomQuery()], made)
      else await queries.invalidateQueries({ queryKey: ['version', made.id] })
      void queries.invalidateQueries({ queryKey: ['versions', songId] })
      chosen = made.id
      return made
    } catch (error) {
      if (isStale(error)) throw error
      failure = error instanceof Error ? error.message : String(error)
      return null
    } finally {
      busy = false
    }
  }

  async function refuse(shown: Version, refused: number[]): Promise<void> {
    const before = refusedIn(shown)
    try {
      const made = await show(() => api.refuse(shown.id, shown.choice, refused))
      if (!made) return
      const count = refused.length
      doneLately.tell(`${count || 'No'} change${count === 1 ? ' is' : 's are'} refused now`, async () => {
        await show(() => api.refuse(made.id, made.choice, before))
      })
    } catch {
      meanwhile = { saved: await api.version(shown.id, whomQuery()), refused }
    }
  }

  async function byHand(change: () => Promise<Version>): Promise<void> {
    const made = await show(change)
    const edit = made?.edits.at(-1)
    if (!made || !edit) return
    doneLately.tell(`Changed by hand: ${barsOf([edit])}`, async () => {
      const now = await api.version(made.id, whomQuery())
      await show(() => api.refuse(now.id, now.choice, [...refusedIn(now), edit.id]))
    })
  }

  /** Say what a section is: the song is saved so, and ways are found by it from then on. */
  async function giveRole(shown: Version, first_bar: number, role: Role | null): Promise<void> {
    failure = ''
    try {
      await api.giveRole(songId, {
        based_on: shown.latest_revision,
        part_index: shown.part_index,
        first_bar,
        role,
      })
      await Promise.all(
        ['version', 'versions', 'songs', 'song'].map((name) =>
          queries.invalidateQueries({ queryKey: [name] }),
        ),
      )
    } catch (error) {
      failure = error instanceof Error ? error.message : String(error)
    }
  }

  async function keepMine(): Promise<void> {
    const { saved, refused } = meanwhile!
    meanwhile = null
    await refuse(saved, refused)
  }

  function takeTheirs(): void {
    queries.setQueryData(['version', meanwhile!.saved.id, whomQuery()], meanwhile!.saved)
    meanwhile = null
  }

  function choose(id: number): void {
    chosen = id
    screen.picked = null
    screen.partIndex = list.data?.versions.find((each) => each.id === id)?.part_index ?? screen.partIndex
  }

  async function putAway(id: number, away: boolean): Promise<void> {
    if (!(await show(() => api.putAway(id, away)))) return
    chosen = null
    doneLately.tell(`The version is ${away ? 'put away' : 'back'}`, async () => {
      await show(() => api.putAway(id, !away))
    })
  }

  function play(fromBar = 0): void {
    const part = version.data?.[screen.side].parts[0]
    if (!part) return
    const range: [number, number] = [fromBar, part.bars.length - 1]
    following.begin()
    void player.play(timelineOf(part, range, version.data?.original.feel === 'swing'), {
      percent: 100,
      loop: false,
      countIn: false,
      onMark: (bar, event) => (screen.cursor = { bar, event }),
      onEnd: () => (screen.cursor = null),
    })
  }

  function playOrStop(): void {
    if (!player.playing) return play()
    player.stop()
    screen.cursor = null
  }

  /** The other side goes on from the bar that sounds. */
  function hear(side: VersionsState['side']): void {
    screen.side = side
    if (player.playing) play(screen.cursor?.bar ?? 0)
  }
</script>

<svelte:head><title>Easier versions of {title} - Clear Steps</title></svelte:head>

<StopBar playing={player.playing} onstop={playOrStop} {following} />
<div class="flex page-height flex-col">
  <VersionsBar
    {screen}
    {player}
    {songId}
    {title}
    versions={inSight}
    {shownId}
    onchoose={choose}
    onwrite={() => void screen.findWays(songId, whom.studentId)}
    student={students.data?.students.find(({ id }) => id === whom.studentId)?.name ?? ''}
    onplay={playOrStop}
    onhear={hear}
    onprint={() => window.print()}
    there={!list.isError}
    shownStep={version.data?.version.parts[0].step}
  />
  {#if !list.isError}
    <WishRow
      {screen}
      {songId}
      count={list.data?.versions.length ?? 0}
      parts={list.data?.parts ?? []}
      onwrite={(wish) => void write(wish)}
    />
  {/if}
  {#if list.isError}
    <div class="p-8">
      <ErrorNote message={list.error.message} />
      <p class="mt-4"><a class="underline" href="#/">Back to the songs</a></p>
    </div>
  {:else if screen.ways}
    <WaysFound ways={screen.ways} ontake={(way) => void take(way)} onleave={() => (screen.ways = null)} />
  {:else if screen.sideBySide && (list.data?.versions.length ?? 0) > 0}
    <SideBySide
      song={original}
      versions={list.data!.versions}
      onopen={(id) => {
        choose(id)
        screen.sideBySide = false
      }}
      onaway={(id, away) => void putAway(id, away)}
    />
  {:else if version.isError}
    <div class="p-8"><ErrorNote message={version.error.message} /></div>
  {:else if version.data}
    {@const shown = version.data}
    <main class="page-and-panel min-h-0 grow">
      <VersionPages {screen} version={shown} {following} />
      <aside class="side-panel" aria-label="What was given up">
        {#if failure}<ErrorNote message={failure} />{/if}
        {#if shown.revision !== shown.latest_revision}
          <p class="mb-4 border-l-4 border-changed pl-3">
            This version belongs to an earlier writing of the song ({shown.revision} of {shown.latest_revision}).
            <button class="underline" onclick={() => void show(() => api.carryOver(shown.id))}
              >Carry it over</button
            >
          </p>
        {/if}
        <KeptScores version={shown} />
        {#if !shown.reached}<Refusal version={shown} />{/if}
        {#if !shown.reached && shown.edits.some((edit) => edit.refused_itself)}
          <p class="mt-3 border-l-4 border-changed pl-3">
            What you refused stays as it is, and so the version stands above its target.
            <button class="underline" disabled={screen.searching} onclick={() => void anotherWay(shown)}
              >Find another way that leaves it alone</button
            >
          </p>
        {/if}
        {#if shown.original.parts[0].map.some(({ name }) => name)}
          <Fold class="mt-4 text-quiet" title="what each section is">
            <p class="mb-2 text-sm">
              What must survive goes by it: of a strum its chords, of a line its tune.
            </p>
            <SectionRoles
              part={shown.original.parts[0]}
              {busy}
              ongive={(firstBar, role) => void giveRole(shown, firstBar, role)}
            />
          </Fold>
        {/if}
        <VersionWords {screen} version={shown} />
        <HandEdit {screen} version={shown} onsave={(change) => void byHand(change)} />
        <OneChange {screen} version={shown} {busy} onsave={(change) => void byHand(change)} />
        <EditList {screen} version={shown} {busy} onchoice={(refused) => void refuse(shown, refused)} />
      </aside>
    </main>
  {:else if list.data && inSight.length === 0}
    <section class="max-w-prose p-8">
      <h2 class="mb-2 text-xl">No easier version yet</h2>
      <p>
        Choose the Step a student can play now, then write the version. The original stays as it is; every
        change can be refused.
      </p>
    </section>
  {:else}
    <p class="p-8 text-quiet" role="status">Fetching the version …</p>
  {/if}
</div>
{#if meanwhile}
  <Conflict
    open
    what="this version's refusals"
    theirs={refusalLines(meanwhile.saved, refusedIn(meanwhile.saved))}
    mine={refusalLines(meanwhile.saved, meanwhile.refused)}
    {busy}
    ontake={takeTheirs}
    onkeep={() => void keepMine()}
    onedit={takeTheirs}
  />
{/if}
