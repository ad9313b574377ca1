<!-- Everything as one file, and back: where the library is, its copies, and the demo begun over. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download'
  import { createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { api, type LibraryCopy } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import BeginOver from './BeginOver.svelte'
  import { LibraryState, sizeOf, songs, timeOf } from './library.svelte'
  import Restoring from './Restoring.svelte'

  const state = new LibraryState(useQueryClient())
  const library = createQuery(() => ({ queryKey: ['library'], queryFn: api.library }))
  const KINDS: Record<LibraryCopy['kind'], string> = {
    'daily-copies': 'daily copy',
    'before-restores': 'kept at a restore',
    'before-updates': 'before an update',
  }
</script>

<svelte:head><title>Backup - Clear Steps</title></svelte:head>

<TopBar back={{ href: '#/', words: 'Songs' }} title="Backup" />
<main class="mx-auto max-w-3xl px-6 py-4 max-sm:px-3">
  {#if state.failure}<div class="mb-4"><ErrorNote message={state.failure} /></div>{/if}
  {#if state.busy}<p class="mb-4 text-quiet" role="status">{state.busy}</p>{/if}
  {#if library.isError}
    <ErrorNote message={library.error.message} />
  {:else if library.data}
    <p>
      All you wrote ({songs(library.data.songs)}, with every writing of them, versions, students, groups and
      sheets) is in one file on this machine:
    </p>
    <p class="mt-1 font-mono text-sm break-all">{library.data.path}</p>
    <div class="mt-4 flex flex-wrap gap-3">
      <a class="key-button inline-flex items-center gap-2" href="/api/library/backup" download
        ><Download size={17} /> Save a backup</a
      >
      <label class="quiet-button cursor-pointer focus-within:outline-2">
        Restore from a file …<input
          class="sr-only"
          type="file"
          accept=".sqlite3,application/vnd.sqlite3"
          disabled={state.busy !== ''}
          onchange={(event) => {
            const file = event.currentTarget.files?.[0]
            event.currentTarget.value = ''
            if (file) void state.open(file)
          }}
        />
      </label>
      {#if library.data.is_demo}<BeginOver {state} count={library.data.songs} />{/if}
    </div>
    <h2 class="mt-8 text-lg">Copies that are kept</h2>
    <p class="text-quiet">
      One a day while Clear Steps runs, the last seven, only where something changed; and what was replaced by
      a restore. They stand beside the file.
    </p>
    {#if library.data.copies.length === 0}
      <p class="mt-3">None yet: the first is kept when something is written.</p>
    {:else}
      <ul class="mt-3" aria-label="Copies">
        {#each library.data.copies as copy (copy.name)}
          <li class="flex flex-wrap items-baseline gap-x-4 border-b border-contour py-2">
            <span class="w-52">{timeOf(copy.taken_at)}</span>
            <span class="grow text-quiet">{KINDS[copy.kind]}, {sizeOf(copy.size_bytes)}</span>
            <button
              class="underline"
              disabled={state.busy !== ''}
              aria-label="Restore the copy of {timeOf(copy.taken_at)}"
              onclick={() => void state.lookInto(copy.name)}>Restore …</button
            >
          </li>
        {/each}
      </ul>
    {/if}
    <Restoring {state} now={library.data.songs} />
  {/if}
</main>
