<script lang="ts">
  import Fold from '../../ui/Fold.svelte'
  import Select from '../../ui/Select.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import Moon from '@lucide/svelte/icons/moon'
  import Plus from '@lucide/svelte/icons/plus'
  import Sun from '@lucide/svelte/icons/sun'
  import { createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { fromAddress, intoAddress } from '../../address'
  import { api, type Card } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { doneLately } from '../../done.svelte'
  import { theme, toggleTheme } from '../../theme.svelte'
  import NoSongs from './NoSongs.svelte'
  import SongRows from './SongRows.svelte'
  import { ANYTHING, found, terracesOf, wantedOf, type Wanted } from './terraces'

  const ASKED_AGAIN_MS = 1500
  const queries = useQueryClient()
  const songs = createQuery(() => ({
    queryKey: ['songs'],
    queryFn: api.songs,
    refetchInterval: (query) => (query.state.data?.waiting ? ASKED_AGAIN_MS : false),
  }))
  const library = createQuery(() => ({ queryKey: ['library'], queryFn: api.library }))
  const said = fromAddress()
  let wanted = $state<Wanted>(wantedOf(said))
  let order = $state<'step' | 'name'>(said.order === 'name' ? 'name' : 'step')
  $effect(() => intoAddress({ ...wanted, order: order === 'step' ? '' : order }))
  let failure = $state('')
  const all = $derived((songs.data?.songs ?? []).filter((song) => !song.put_away))
  const away = $derived((songs.data?.songs ?? []).filter((song) => song.put_away))
  const shown = $derived(found(all, wanted, order === 'step'))
  const filters = $derived([
    { name: 'Step', key: 'step' as const, options: terracesOf(all).map(String) },
    { name: 'tuning', key: 'tuning' as const, options: named((song) => [song.grade?.tuning ?? '']) },
    { name: 'technique', key: 'technique' as const, options: named((song) => song.grade?.techniques ?? []) },
    { name: 'section', key: 'section' as const, options: named((song) => song.grade?.sections ?? []) },
  ])

  function named(of: (song: Card) => string[]): string[] {
    return [...new Set(all.flatMap(of))].filter(Boolean).sort()
  }

  async function putAway(song: Card, away: boolean): Promise<void> {
    failure = ''
    try {
      await api.putSongAway(song.id, away)
      await queries.invalidateQueries({ queryKey: ['songs'] })
      doneLately.tell(`${song.title} is ${away ? 'put away' : 'back'}`, async () => {
        await api.putSongAway(song.id, !away)
        await queries.invalidateQueries({ queryKey: ['songs'] })
      })
    } catch (error) {
      failure = error instanceof Error ? error.message : String(error)
    }
  }
</script>

<svelte:head><title>Songs - Clear Steps</title></svelte:head>

<TopBar title="Clear Steps">
  <button
    class="icon-link"
    onclick={toggleTheme}
    aria-label={theme.name === 'dark' ? 'Light paper' : 'Dark paper'}
  >
    {#if theme.name === 'dark'}<Sun size={18} />{:else}<Moon size={18} />{/if}
  </button>
  <a class="icon-link" href="#/students">Students</a>
  <a class="icon-link" href="#/ladder">Ladder</a>
  <a class="icon-link" href="#/library">Backup</a>
  <a class="key-button inline-flex items-center gap-2" href="#/new"><Plus size={18} /> New song</a>
</TopBar>
<main class="mx-auto max-w-6xl px-6 py-4 max-sm:px-3">
  <div class="mb-3">
    <div class="flex w-full flex-wrap items-center gap-x-4 gap-y-2" role="search">
      <label class="flex items-center gap-2 text-quiet">
        Find <input class="field w-44 text-ink" type="search" bind:value={wanted.name} placeholder="a name" />
      </label>
      {#each filters as filter (filter.name)}
        <Select
          class="w-40"
          label="Only songs with this {filter.name}"
          bind:value={wanted[filter.key]}
          options={[
            { value: '', words: `any ${filter.name}` },
            ...filter.options.map((value) => ({
              value,
              words: filter.name === 'Step' ? `Step ${value}` : value,
            })),
          ]}
        />
      {/each}
      <span class="flex items-center gap-2 text-quiet">
        in order of
        <Select
          label="In order of"
          class="text-ink"
          bind:value={order}
          options={[
            { value: 'step', words: 'Step' },
            { value: 'name', words: 'name' },
          ]}
        />
      </span>
    </div>
  </div>

  {#if library.data?.is_demo}
    <p class="mb-3 text-sm text-quiet">
      This is the demo: its songs are made up, to look around. What you type here stays. <a
        class="underline"
        href="#/library">Backup, or start the demo over</a
      >
    </p>
  {/if}
  {#if failure}<ErrorNote message={failure} />{/if}
  {#if songs.isError}
    <ErrorNote message={songs.error.message} />
  {:else if songs.isPending}
    <p class="text-quiet" role="status">Fetching the songs …</p>
  {:else}
    {#if songs.data.waiting > 0}
      {@const count = songs.data.songs.length}
      <p class="mb-3 flex items-center gap-3 text-quiet" role="status">
        <progress class="h-2 w-40" max={count} value={count - songs.data.waiting} aria-label="Grading"
        ></progress>
        {count - songs.data.waiting} of {count} songs are graded
      </p>
    {/if}
    {#if all.length === 0}
      <NoSongs putAway={away.length > 0} />
    {:else if shown.length === 0}
      <p role="status">
        {wanted.name ? `No song is called “${wanted.name}”` : 'No song is like this'}{wanted.step ||
        wanted.tuning ||
        wanted.technique ||
        wanted.section
          ? ', with what you chose above'
          : ''}.
        <button class="underline" onclick={() => (wanted = { ...ANYTHING })}>Show all</button>
      </p>
    {:else}
      <SongRows
        songs={shown}
        byStep={order === 'step'}
        marksDemo={library.data?.is_demo === false}
        onaway={(song, gone) => void putAway(song, gone)}
      />
    {/if}
    {#if away.length > 0}
      <Fold class="mt-8 border-t border-contour pt-3 text-quiet" title="put away ({away.length})">
        <ul class="mt-2 max-w-2xl">
          {#each away as song (song.id)}
            <li class="flex items-baseline gap-4 border-b border-contour py-1.5">
              <a class="grow truncate hover:underline" href="#/song/{song.id}">{song.title}</a>
              <button class="underline" onclick={() => void putAway(song, false)}>Bring back</button>
            </li>
          {/each}
        </ul>
      </Fold>
    {/if}
  {/if}
</main>
