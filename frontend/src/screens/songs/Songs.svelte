<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon'
  import Plus from '@lucide/svelte/icons/plus'
  import Sun from '@lucide/svelte/icons/sun'
  import { createQuery } from '@tanstack/svelte-query'
  import { api, type Card } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { theme, toggleTheme } from '../../theme.svelte'
  import SongCard from './SongCard.svelte'
  import { terraceOf, terraces } from './terraces'

  const songs = createQuery(() => ({ queryKey: ['songs'], queryFn: api.songs }))
  let wanted = $state('')
  let tuning = $state('')
  let technique = $state('')
  let section = $state('')
  let step = $state('')
  const all = $derived(songs.data?.songs ?? [])
  const filters = $derived([
    {
      name: 'Step',
      get: () => step,
      set: (chosen: string) => void (step = chosen),
      options: terraces(all).map((terrace) => `${terrace.step}`),
    },
    {
      name: 'tuning',
      get: () => tuning,
      set: (chosen: string) => void (tuning = chosen),
      options: [...new Set(all.map((song) => song.tuning))].sort(),
    },
    {
      name: 'technique',
      get: () => technique,
      set: (chosen: string) => void (technique = chosen),
      options: [...new Set(all.flatMap((song) => song.techniques))].sort(),
    },
    {
      name: 'section',
      get: () => section,
      set: (chosen: string) => void (section = chosen),
      options: [...new Set(all.flatMap((song) => song.sections))].sort(),
    },
  ])
  function showAll(): void {
    wanted = step = tuning = technique = section = ''
  }
  let order = $state<'step' | 'name'>('step')
  const found = $derived(
    all
      .filter((song) => step === '' || terraceOf(song.step) === Number(step))
      .filter(
        (song) =>
          (tuning === '' || song.tuning === tuning) &&
          (technique === '' || song.techniques.includes(technique)) &&
          (section === '' || song.sections.includes(section)),
      )
      .filter((song) => song.title.toLowerCase().includes(wanted.trim().toLowerCase()))
      .sort((a, b) => (order === 'step' ? a.step - b.step : 0) || a.title.localeCompare(b.title)),
  )
</script>

<svelte:head><title>Songs - Clear Steps</title></svelte:head>

<main class="mx-auto max-w-6xl px-6 py-6">
  <header class="mb-3 flex flex-wrap items-center gap-x-4 gap-y-3 border-b border-ink pb-4">
    <h1 class="text-2xl">Clear Steps</h1>
    <span class="grow"></span>
    <button
      class="quiet-button !px-3"
      onclick={toggleTheme}
      aria-label={theme.name === 'dark' ? 'Light paper' : 'Dark paper'}
    >
      {#if theme.name === 'dark'}<Sun size={18} />{:else}<Moon size={18} />{/if}
    </button>
    <a class="underline" href="#/students">Students</a>
    <a class="underline" href="#/ladder">Ladder</a>
    <a class="key-button inline-flex items-center gap-2" href="#/new"><Plus size={18} /> New song</a>
    <div class="flex w-full flex-wrap items-center gap-x-5 gap-y-2">
      <label class="flex items-center gap-2 text-quiet">
        Find <input class="field w-44 text-ink" type="search" bind:value={wanted} placeholder="a name" />
      </label>
      {#each filters as filter (filter.name)}
        <select
          class="field w-32 text-quiet"
          aria-label="Only songs with this {filter.name}"
          bind:value={filter.get, filter.set}
        >
          <option value="">any {filter.name}</option>
          {#each filter.options as option (option)}<option value={option}
              >{filter.name === 'Step' ? `Step ${option}` : option}</option
            >{/each}
        </select>
      {/each}
      <label class="flex items-center gap-2 text-quiet">
        in order of
        <select class="field text-ink" bind:value={order}>
          <option value="step">Step</option>
          <option value="name">name</option>
        </select>
      </label>
    </div>
  </header>

  {#if songs.isError}
    <ErrorNote message={songs.error.message} />
  {:else if songs.isPending}
    <p class="text-quiet" role="status">Fetching the songs …</p>
  {:else if songs.data.songs.length === 0}
    <section class="max-w-prose py-10">
      <h2 class="mb-2 text-xl">No song yet</h2>
      <p>
        Paste a tab as you would type it for a student, or drop a text file. You see its Step, bar by bar,
        before anything is saved.
      </p>
      <p class="mt-4"><a class="underline" href="#/new">Write the first one down</a></p>
    </section>
  {:else if found.length === 0}
    <p role="status">
      {wanted ? `No song is called “${wanted}”` : 'No song is like this'}{step ||
      tuning ||
      technique ||
      section
        ? ', with what you chose above'
        : ''}.
      <button class="underline" onclick={showAll}>Show all</button>
    </p>
  {:else if order === 'step'}
    {#each terraces(found) as terrace, index (terrace.step)}
      <section
        class="mb-6 grid grid-cols-[2.5rem_1fr] gap-x-4 border-contour pt-3 {index ? 'border-t' : ''}"
        aria-label="Step {terrace.step}"
      >
        <p class="font-mono text-xl text-quiet" aria-hidden="true">{terrace.step}</p>
        {@render cards(terrace.songs)}
      </section>
    {/each}
  {:else}
    {@render cards(found)}
  {/if}
</main>

{#snippet cards(songs: Card[])}
  <ul class="grid gap-x-10 gap-y-9 sm:grid-cols-2 lg:grid-cols-3">
    {#each songs as song (song.id)}
      <li><SongCard {song} /></li>
    {/each}
  </ul>
{/snippet}
