<script lang="ts">
  import ArrowLeft from '@lucide/svelte/icons/arrow-left'
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy } from 'svelte'
  import { push } from 'svelte-spa-router'
  import { api, ApiError, USUAL } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { Preview } from '../../components/preview.svelte'
  import TabTextEditor from '../../components/TabTextEditor.svelte'
  import Reading from './Reading.svelte'

  const queries = useQueryClient()
  const preview = new Preview()
  let text = $state('')
  let dropping = $state(false)
  let dropError = $state('')
  let editor = $state<TabTextEditor>()
  const readable = $derived(text.trim() !== '' && preview.message === '' && !preview.waiting)

  const save = createMutation(() => ({
    mutationFn: () => api.addSong(text),
    onSuccess: (desk) => {
      void queries.invalidateQueries({ queryKey: ['songs'] })
      void push(`/song/${desk.id}`)
    },
  }))
  onDestroy(() => preview.stop())

  function change(changed: string): void {
    text = changed
    save.reset()
    preview.ask(changed, USUAL)
  }

  async function take(file: File | undefined): Promise<void> {
    dropError = ''
    if (!file) return
    try {
      change(new TextDecoder('utf-8', { fatal: true }).decode(await file.arrayBuffer()))
    } catch {
      dropError = `${file.name} is not UTF-8 text; save it as UTF-8 and drop it again.`
    }
  }

  function drop(event: DragEvent): void {
    event.preventDefault()
    dropping = false
    void take(event.dataTransfer?.files[0])
  }
</script>

<svelte:head><title>New song - Clear Steps</title></svelte:head>

<main
  class="grid h-dvh grid-rows-[auto_1fr] px-6 pt-4 pb-6"
  ondragover={(event) => {
    event.preventDefault()
    dropping = true
  }}
  ondragleave={() => (dropping = false)}
  ondrop={drop}
>
  <header class="mb-4 flex flex-wrap items-center gap-4 border-b border-ink pb-3">
    <a class="quiet-button inline-flex items-center gap-1.5" href="#/"><ArrowLeft size={18} /> Songs</a>
    <h1 class="text-2xl">New song</h1>
    <span class="grow text-quiet">Paste a tab below, or drop a text file anywhere.</span>
    <label class="quiet-button cursor-pointer focus-within:outline-2">
      Open a file<input class="sr-only" type="file" accept=".tab,.txt,text/plain" onchange={(event) => void take(event.currentTarget.files?.[0])} />
    </label>
    <button class="key-button" disabled={!readable || save.isPending} onclick={() => save.mutate()}>Save song</button>
  </header>
  <div class="grid min-h-0 gap-6 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]" class:opacity-60={dropping}>
    <TabTextEditor bind:this={editor} {text} label="Tab text of the new song" problems={preview.problems} onchange={change} />
    <section class="min-h-0 overflow-y-auto" aria-live="polite" aria-label="Preview">
      {#if dropError}<ErrorNote message={dropError} />{/if}
      {#if save.isError}<ErrorNote message={save.error.message} problems={save.error instanceof ApiError ? save.error.problems : []} />{/if}
      <Reading {preview} onplace={(place) => editor?.show(place)} />
    </section>
  </div>
</main>
