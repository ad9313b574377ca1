<script lang="ts">
  import Play from '@lucide/svelte/icons/play'
  import Printer from '@lucide/svelte/icons/printer'
  import Square from '@lucide/svelte/icons/square'
  import { createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy } from 'svelte'
  import { api, isStale, type Group, type GroupIn } from '../../api/client'
  import { Player } from '../../audio/player.svelte'
  import { timelineOf, together } from '../../audio/timeline'
  import Select from '../../ui/Select.svelte'
  import Tick from '../../ui/Tick.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import Conflict from '../../components/Conflict.svelte'
  import FetchErrors from '../../components/FetchErrors.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import StopBar from '../../components/StopBar.svelte'
  import { doneLately } from '../../done.svelte'
  import { OneByOne } from '../../onebyone'
  import { offerSheet } from '../../sheet/sheet'
  import { alignedParts } from '../../tab/aligned'
  import { layers } from '../../tab/layers.svelte'
  import Score from '../../tab/Score.svelte'
  import { present } from '../students/students'
  import { bodyOf, groupLines, groupSheets, GroupState } from './group.svelte'
  import GroupSystem from './GroupSystem.svelte'
  import SeatList from './SeatList.svelte'

  let { params }: { params?: { id?: string } } = $props()
  const songId = $derived(Number(params?.id))
  // Another song's group is chosen anew.
  $effect(() => {
    void songId
    chosen = null
  })
  const queries = useQueryClient()
  const screen = new GroupState()
  const player = new Player()
  onDestroy(() => player.stop())
  offerSheet(() => (group.data ? groupSheets(group.data, screen.pageEach) : []))
  let chosen = $state<number | null>(null)
  let width = $state(0)
  let failure = $state('')
  let meanwhile = $state.raw<{ saved: Group; mine: GroupIn } | null>(null)

  const list = createQuery(() => ({ queryKey: ['groups', songId], queryFn: () => api.groups(songId) }))
  const versions = createQuery(() => ({
    queryKey: ['versions', songId],
    queryFn: () => api.versions(songId),
  }))
  const students = createQuery(() => ({ queryKey: ['students'], queryFn: api.students }))
  const songs = createQuery(() => ({ queryKey: ['songs'], queryFn: api.songs }))
  const shownId = $derived(chosen ?? list.data?.groups.at(-1)?.id ?? null)
  const group = createQuery(() => ({
    queryKey: ['group', shownId],
    queryFn: () => api.group(shownId!),
    enabled: shownId !== null,
  }))
  const title = $derived(songs.data?.songs.find((song) => song.id === songId)?.title ?? '')
  const ready = $derived(versions.data && students.data && list.data)

  let busy = $state(false)

  const changes = new OneByOne()

  function show(change: () => Promise<Group>): Promise<Group | null> {
    return changes.run(() => shown(change))
  }

  async function shown(change: () => Promise<Group>): Promise<Group | null> {
    failure = ''
    busy = true
    try {
      const made = await change()
      queries.setQueryData(['group', made.id], made)
      await queries.invalidateQueries({ queryKey: ['groups', songId] })
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

  function begin(): void {
    void show(async () => api.addGroup(songId, await api.proposedGroup(songId)))
  }

  /** Save a change of the group as it is by then; undone, what stood before is the revision after. */
  async function save(change: (body: GroupIn) => GroupIn, from = group.data): Promise<void> {
    if (!from) return
    let before = bodyOf(from)
    let body = change(before)
    try {
      const made = await show(() => {
        const now = queries.getQueryData<Group>(['group', from.id]) ?? from
        before = bodyOf(now)
        body = change(before)
        return api.saveGroup(now.id, now.number, body)
      })
      if (!made) return
      doneLately.tell(`${made.name} is saved`, async () => {
        await show(() => api.saveGroup(made.id, made.number, before))
      })
    } catch {
      meanwhile = { saved: await api.group(from.id), mine: body }
    }
  }

  function takeTheirs(): void {
    queries.setQueryData(['group', meanwhile!.saved.id], meanwhile!.saved)
    meanwhile = null
  }

  function keepMine(): void {
    const { saved, mine } = meanwhile!
    meanwhile = null
    queries.setQueryData(['group', saved.id], saved)
    void save(() => mine, saved)
  }

  function playOrStop(): void {
    const heard = aligned.filter((_, at) => screen.hears(group.data!.seats[at], at))
    if (player.playing || heard.length === 0) {
      player.stop()
      screen.cursor = null
      return
    }
    const swing = group.data?.feel === 'swing'
    const timelines = heard.map((part) => timelineOf(part, [0, part.bars.length - 1], swing))
    void player.play(together(timelines), {
      percent: 100,
      loop: false,
      countIn: true,
      onMark: (bar, event) => (screen.cursor = { bar, event }),
      onEnd: () => (screen.cursor = null),
    })
  }

  const aligned = $derived(alignedParts(group.data?.seats.map((seat) => seat.part) ?? []))
  const uneven = $derived(new Set(group.data?.seats.map((seat) => seat.part.bars.length)).size > 1)
</script>

<svelte:head><title>{title} in a group - Clear Steps</title></svelte:head>
<StopBar playing={player.playing} onstop={playOrStop} />
<div class="grid page-height grid-rows-[auto_1fr]">
  <TopBar back={{ href: `#/song/${songId}/versions`, words: 'Versions' }} {title} under="played together">
    {#if (list.data?.groups.length ?? 0) > 1}
      <Select
        label="Which group"
        class="max-w-52"
        value={shownId ?? 0}
        options={list.data!.groups.map((each) => ({ value: each.id, words: each.name }))}
        onchange={(id) => (chosen = id)}
      />
    {/if}
    {#if ready}<button class="quiet-button" disabled={busy} onclick={begin}
        >{shownId === null ? 'Make a group' : 'Another group'}</button
      >{/if}
    {#if group.data}
      <Tick bind:checked={screen.pageEach}>a page each</Tick>
      <button class="quiet-button inline-flex items-center gap-2" onclick={() => window.print()}
        ><Printer size={17} /> Print</button
      >
      <button class="key-button inline-flex items-center gap-2" onclick={playOrStop}
        >{#if player.playing}<Square size={15} /> Stop{:else}<Play size={15} /> Play together{/if}</button
      >
    {/if}
  </TopBar>
  {#if [list, group, versions, students].some(({ isError }) => isError)}
    <div class="p-8"><FetchErrors of={[list, group, versions, students]} /></div>
  {:else if group.data && ready}
    <main class="page-and-panel">
      <!-- svelte-ignore a11y_no_noninteractive_tabindex: it scrolls, and keys must reach it -->
      <section
        bind:clientWidth={width}
        tabindex="0"
        class="min-h-0 overflow-y-auto px-6 py-4 max-lg:overflow-visible max-sm:px-3"
        aria-label="All parts, lined up bar by bar"
      >
        {#if uneven}<p class="mb-3 border-l-4 border-changed pl-3">
            The parts differ in length. They stand under one another section by section; where a part has
            nothing it is silent.
          </p>{/if}
        <Score
          parts={aligned}
          {layers}
          width={width - (width < 600 ? 24 : 48)}
          head={22}
          spoken={group.data.seats.map((seat) => `${seat.who}: ${seat.plays}`)}
        >
          {#snippet over(picture)}<GroupSystem
              seats={group.data!.seats}
              {picture}
              cursor={screen.cursor}
            />{/snippet}
        </Score>
      </section>
      <aside class="side-panel" aria-label="Who plays what">
        {#if failure}<ErrorNote message={failure} />{/if}
        <SeatList
          {screen}
          group={group.data}
          parts={versions.data!.parts}
          versions={versions.data!.versions}
          students={present(students.data!.students)}
          {busy}
          onsave={(change) => void save(change)}
        />
      </aside>
    </main>
  {:else if ready && shownId === null}
    <section class="max-w-prose p-8">
      <h2 class="mb-2 text-xl">Nobody plays together yet</h2>
      <p>
        In a group each plays the version that fits: one strums, one plays the part, one the solo. All
        versions of a song line up bar by bar, so they sound together and print under one another.
      </p>
      {#if failure}<ErrorNote message={failure} />{/if}
      <p class="mt-4"><button class="key-button" disabled={busy} onclick={begin}>Make a group</button></p>
    </section>
  {:else}
    <p class="p-8 text-quiet" role="status">Fetching the group …</p>
  {/if}
</div>
{#if meanwhile}
  <Conflict
    open
    what="this group"
    theirs={groupLines(bodyOf(meanwhile.saved), versions.data?.versions ?? [])}
    mine={groupLines(meanwhile.mine, versions.data?.versions ?? [])}
    {busy}
    ontake={takeTheirs}
    onkeep={keepMine}
    onedit={takeTheirs}
  />
{/if}
