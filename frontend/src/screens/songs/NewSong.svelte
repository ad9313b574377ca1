<script lang="ts">
  import TopBar from '../../ui/TopBar.svelte'
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy } from 'svelte'
  import { push } from 'svelte-spa-router'
  import { api, ApiError, USUAL } from '../../api/client'
  import { connection } from '../../api/connection.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { Preview } from '../../components/preview.svelte'
  import TabTextEditor from '../../components/TabTextEditor.svelte'
  import { FileReading } from './filereading.svelte'
  import Headings from './Headings.svelte'
  import ImportNotes from './ImportNotes.svelte'
  import { NewSongDraft } from './newsong.svelte'
  import Reading from './Reading.svelte'
  import { SAMPLE } from './sample'
  import SeveralSongs from './SeveralSongs.svelte'

  const queries = useQueryClient()
  const preview = new Preview()
  const draft = new NewSongDraft()
  const file = new FileReading()
  let dropping = $state(false)
  let saving = $state('') // of several songs, which
  let notSaved = $state.raw<string[]>([])
  let editor = $state<TabTextEditor>()
  const readable = $derived(
    draft.text.trim() !== '' && preview.message === '' && !preview.waiting && file.under_way === '',
  )
  const titles = $derived(file.imported?.songs.length ? file.imported.songs : preview.songs)

  const save = createMutation(() => ({
    mutationFn: () => api.addSong(draft.text, draft.name),
    onSuccess: (desk) => {
      draft.forget()
      void queries.invalidateQueries({ queryKey: ['songs'] })
      void push(`/song/${desk.id}`)
    },
  }))
  onDestroy(() => preview.stop())
  onDestroy(() => file.stop())
  onDestroy(connection.onReturn(() => save.reset()))
  if (draft.text) preview.ask(draft.text, USUAL)

  function forget(): void {
    draft.forget()
    file.forget()
    save.reset()
    preview.ask('', USUAL)
  }

  function change(changed: string): void {
    if (changed === draft.text) return
    if (changed.trim() === '') file.forget()
    draft.type(changed)
    save.reset()
    preview.ask(changed, USUAL)
  }

  async function open(chosen: File | undefined): Promise<void> {
    const found = chosen && (await file.open(chosen))
    if (found) change(found.text)
  }

  async function take(song: number): Promise<void> {
    try {
      change(await textOf(song, draft.text))
    } catch (error) {
      file.error = error instanceof Error ? error.message : String(error)
    }
  }

  /** One of several songs: of the file, else of the text that was pasted. */
  async function textOf(song: number, whole: string): Promise<string> {
    if (!file.imported?.songs.length) return (await api.takeSong(whole, song)).text
    const found = await file.take(file.imported.name, song)
    if (!found) throw new Error(file.error)
    return found.text
  }

  /** Each of several songs as one of its own; those that cannot be read are told, the others are there. */
  async function saveAll(): Promise<void> {
    const [all, whole] = [titles, draft.text]
    notSaved = []
    for (const [at, title] of all.entries()) {
      saving = `Saving ${at + 1} of ${all.length}: ${title}`
      try {
        // The draft's name and the place in it: sent once more, it is the same song.
        await api.addSong(await textOf(at, whole), `${draft.name}-${at}`)
      } catch (error) {
        notSaved = [...notSaved, `${title}: ${error instanceof Error ? error.message : error}`]
      }
    }
    saving = ''
    void queries.invalidateQueries({ queryKey: ['songs'] })
    if (notSaved.length > 0) return
    draft.forget()
    void push('/')
  }

  function drop(event: DragEvent): void {
    event.preventDefault()
    dropping = false
    void open(event.dataTransfer?.files[0])
  }
</script>

<svelte:head><title>New song - Clear Steps</title></svelte:head>

<main
  class="grid page-height grid-rows-[auto_auto_1fr] pb-5"
  ondragover={(event) => {
    event.preventDefault()
    dropping = true
  }}
  ondragleave={() => (dropping = false)}
  ondrop={drop}
>
  <TopBar back={{ href: '#/', words: 'Songs' }} title="New song">
    <span class="min-w-40 flex-1 text-right text-quiet" role="status"
      >{#if file.under_way}Reading {file.under_way} …
        <button class="underline" onclick={() => file.stop()}>Stop</button>{:else if draft.pickedUp}Picked up
        where you left it, typed {draft.pickedUp}.
        <button class="underline" onclick={forget}>Forget it</button>{:else if !draft.kept}This browser keeps
        no drafts, so save before you leave.{:else}Paste a tab below, or drop a file anywhere: tab text,
        MusicXML or ABC.{/if}</span
    >
    <label class="quiet-button cursor-pointer focus-within:outline-2">
      Open a file<input
        class="sr-only"
        type="file"
        accept=".tab,.txt,.musicxml,.xml,.mxl,.abc,.json,text/plain"
        onchange={(event) => void open(event.currentTarget.files?.[0])}
      />
    </label>
    <button class="key-button" disabled={!readable || save.isPending} onclick={() => save.mutate()}
      >{save.isPending ? 'Saving …' : 'Save song'}</button
    >
  </TopBar>
  <div class="min-h-14 px-6 pt-3 max-sm:px-3">
    {#if preview.headings && draft.text}
      <Headings text={draft.text} headings={preview.headings} onchange={change} />
    {:else if !draft.text}
      <p class="text-quiet">
        Nothing at hand?
        <button class="underline" onclick={() => change(SAMPLE)}>Try a sample</button>, typed as people do,
        and see what is made of it.
      </p>
    {/if}
  </div>
  <div
    class="grid min-h-0 gap-6 px-6 pt-3 max-sm:px-3 lg:grid-cols-[minmax(0,4fr)_minmax(0,5fr)]"
    class:opacity-60={dropping}
  >
    <TabTextEditor
      bind:this={editor}
      text={draft.text}
      label="Tab text of the new song"
      problems={preview.problems}
      onchange={change}
    />
    <section class="min-h-0 overflow-y-auto pr-2" aria-live="polite" aria-label="Preview">
      {#if file.error}<ErrorNote message={file.error} />{/if}
      {#if save.isError}<ErrorNote
          message={save.error.message}
          problems={save.error instanceof ApiError ? save.error.problems : []}
        />{/if}
      {#each notSaved as words, at (at)}<ErrorNote message="Not saved: {words}" />{/each}
      {#if titles.length > 1}
        <SeveralSongs
          {titles}
          taken={file.song}
          busy={saving}
          ontake={(song) => void take(song)}
          onall={() => void saveAll()}
        />
      {/if}
      {#if file.imported}<ImportNotes imported={file.imported} />{/if}
      {#if draft.text}
        <Reading text={draft.text} {preview} onplace={(place) => editor?.show(place)} onchange={change} />
      {:else}
        <p class="max-w-prose text-quiet">
          What you paste is read as you type: here it is drawn, with its climb, one column a bar, and what was
          guessed or could not be read stands under its bar.
        </p>
      {/if}
    </section>
  </div>
</main>
