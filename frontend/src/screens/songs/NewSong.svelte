<script lang="ts">
  import TopBar from '../../ui/TopBar.svelte'
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy } from 'svelte'
  import { push } from 'svelte-spa-router'
  import { api, ApiError, USUAL, type Import } from '../../api/client'
  import { connection } from '../../api/connection.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { Preview } from '../../components/preview.svelte'
  import TabTextEditor from '../../components/TabTextEditor.svelte'
  import ImportNotes from './ImportNotes.svelte'
  import { NewSongDraft } from './newsong.svelte'
  import Reading from './Reading.svelte'

  const queries = useQueryClient()
  const preview = new Preview()
  const draft = new NewSongDraft()
  let dropping = $state(false)
  let dropError = $state('')
  let imported = $state.raw<(Import & { name: string }) | null>(null)
  const LARGEST = 1_400 * 1024
  let editor = $state<TabTextEditor>()
  const readable = $derived(draft.text.trim() !== '' && preview.message === '' && !preview.waiting)

  const save = createMutation(() => ({
    mutationFn: () => api.addSong(draft.text, draft.name),
    onSuccess: (desk) => {
      draft.forget()
      void queries.invalidateQueries({ queryKey: ['songs'] })
      void push(`/song/${desk.id}`)
    },
  }))
  onDestroy(() => preview.stop())
  onDestroy(connection.onReturn(() => save.reset()))
  if (draft.text) preview.ask(draft.text, USUAL)

  function forget(): void {
    draft.forget()
    imported = null
    save.reset()
    preview.ask('', USUAL)
  }

  function base64Of(bytes: Uint8Array): string {
    let binary = ''
    for (let at = 0; at < bytes.length; at += 0x8000)
      binary += String.fromCharCode(...bytes.subarray(at, at + 0x8000))
    return btoa(binary)
  }

  function change(changed: string): void {
    if (changed === draft.text) return
    draft.type(changed)
    save.reset()
    preview.ask(changed, USUAL)
  }

  async function take(file: File | undefined): Promise<void> {
    dropError = ''
    if (!file) return
    imported = null
    if (file.size > LARGEST) {
      dropError = `${file.name} has ${Math.round(file.size / 1024)} kB; expected at most ${LARGEST / 1024} kB.`
      return
    }
    try {
      const found = await api.lookAtFile(file.name, base64Of(new Uint8Array(await file.arrayBuffer())))
      change(found.text)
      imported = { name: file.name, ...found }
    } catch (error) {
      dropError = `${file.name}: ${error instanceof Error ? error.message : error}`
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
  class="grid page-height grid-rows-[auto_1fr] pb-5"
  ondragover={(event) => {
    event.preventDefault()
    dropping = true
  }}
  ondragleave={() => (dropping = false)}
  ondrop={drop}
>
  <TopBar back={{ href: '#/', words: 'Songs' }} title="New song">
    <span class="min-w-40 flex-1 text-right text-quiet"
      >{#if draft.pickedUp}Picked up where you left it, typed {draft.pickedUp}.
        <button class="underline" onclick={forget}>Forget it</button>{:else if !draft.kept}This browser keeps
        no drafts, so save before you leave.{:else}Paste a tab below, or drop a file anywhere: tab text,
        MusicXML or ABC.{/if}</span
    >
    <label class="quiet-button cursor-pointer focus-within:outline-2">
      Open a file<input
        class="sr-only"
        type="file"
        accept=".tab,.txt,.musicxml,.xml,.mxl,.abc,.json,text/plain"
        onchange={(event) => void take(event.currentTarget.files?.[0])}
      />
    </label>
    <button class="key-button" disabled={!readable || save.isPending} onclick={() => save.mutate()}
      >{save.isPending ? 'Saving …' : 'Save song'}</button
    >
  </TopBar>
  <div
    class="grid min-h-0 gap-6 px-6 pt-4 max-sm:px-3 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]"
    class:opacity-60={dropping}
  >
    <TabTextEditor
      bind:this={editor}
      text={draft.text}
      label="Tab text of the new song"
      problems={preview.problems}
      onchange={change}
    />
    <section class="min-h-0 overflow-y-auto" aria-live="polite" aria-label="Preview">
      {#if dropError}<ErrorNote message={dropError} />{/if}
      {#if save.isError}<ErrorNote
          message={save.error.message}
          problems={save.error instanceof ApiError ? save.error.problems : []}
        />{/if}
      {#if imported}<ImportNotes {imported} />{/if}
      <Reading {preview} onplace={(place) => editor?.show(place)} />
    </section>
  </div>
</main>
