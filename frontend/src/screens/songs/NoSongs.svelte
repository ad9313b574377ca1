<!-- A library without songs: the three ways to begin. -->
<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { LibraryState } from '../library/library.svelte'
  import { OpenFiles } from './openfiles.svelte'

  let { putAway }: { putAway: boolean } = $props()
  const queries = useQueryClient()
  const library = new LibraryState(queries)
  const files = new OpenFiles()
  const busy = $derived(library.busy || files.under_way)

  async function open(chosen: FileList | null): Promise<void> {
    if (await files.open([...(chosen ?? [])])) await queries.invalidateQueries({ queryKey: ['songs'] })
  }
</script>

<section class="max-w-prose py-10">
  <h2 class="mb-2 text-xl">{putAway ? 'Every song is put away' : 'No song yet'}</h2>
  <p>
    Paste a tab as you would type it for a student, or open files. You see its Step, bar by bar, before
    anything is saved.
  </p>
  <div class="mt-4 flex flex-wrap items-center gap-3">
    <a class="key-button" href="#/new">Paste a tab</a>
    <label class="quiet-button cursor-pointer focus-within:outline-2">
      Open files<input
        class="sr-only"
        type="file"
        multiple
        accept=".tab,.txt,.musicxml,.xml,.mxl,.abc,.json,text/plain"
        disabled={busy !== ''}
        onchange={(event) => void open(event.currentTarget.files)}
      />
    </label>
    {#if !putAway}<button
        class="quiet-button"
        disabled={busy !== ''}
        onclick={() => void library.putDemoSongsIn()}>Put the demo songs in</button
      >{/if}
  </div>
  <p class="mt-3 text-quiet" role="status">{busy}</p>
  {#each [library.failure, ...files.failures].filter(Boolean) as failure, at (at)}<ErrorNote
      message={failure}
    />{/each}
  <p class="mt-3 text-quiet">
    Looking for songs that were here before? <a class="underline" href="#/library">Backup</a> lists the copies.
  </p>
</section>
