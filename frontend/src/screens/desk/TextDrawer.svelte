<script lang="ts">
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy, untrack } from 'svelte'
  import { api, ApiError, isStale, USUAL } from '../../api/client'
  import { connection } from '../../api/connection.svelte'
  import Conflict from '../../components/Conflict.svelte'
  import { Preview } from '../../components/preview.svelte'
  import Select from '../../ui/Select.svelte'
  import TabTextEditor from '../../components/TabTextEditor.svelte'
  import type { DeskState } from './desk.svelte'
  import { savedSong, songMoved } from './saving'
  import { TextDraft } from './textdraft.svelte'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  const preview = new Preview()
  const stored = $derived(desk.song!)
  const draft = untrack(() => new TextDraft(songId, stored))
  let editor = $state<TabTextEditor>()
  const revisions = createQuery(() => ({
    queryKey: ['revisions', songId, stored.revision],
    queryFn: () => api.revisions(songId),
  }))

  const save = createMutation(() => ({
    mutationFn: () => {
      const before = stored
      return savedSong(queries, before, async () => {
        const saved = await api.save(songId, draft.basedOn, draft.text)
        draft.forget(saved)
        desk.draft = null
        return saved
      })
    },
    onError: async (error) => {
      if (isStale(error)) draft.meanwhile = await api.song(songId, USUAL)
    },
  }))

  // The Desk shows the text under the editor as soon as it can be read; until then the last readable one.
  $effect(() => {
    if (preview.analysis && preview.problems.length === 0 && untrack(() => draft.changed))
      desk.draft = preview.analysis
  })
  $effect(() => {
    const query = desk.query
    untrack(() => draft.changed && preview.ask(draft.text, query))
  })
  $effect(() => {
    const now = stored
    untrack(() => draft.follow(now))
  })
  onDestroy(connection.onReturn(() => save.reset()))
  onDestroy(() => {
    preview.stop()
    draft.stop()
    desk.draft = null
  })

  function change(typed: string): void {
    if (typed === draft.text) return
    draft.type(typed, stored)
    save.reset()
    if (draft.changed) preview.ask(typed, desk.query)
    else settle()
  }

  /** Nothing is under the pen any more. */
  function settle(): void {
    preview.stop()
    preview.message = ''
    preview.problems = []
    desk.draft = null
  }

  const SHORT = { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' } as const
  function shortTime(utc: string): string {
    return new Date(`${utc}Z`).toLocaleString(undefined, SHORT)
  }

  function bringBack(number: number): void {
    const revision = revisions.data?.revisions.find((each) => each.number === number)
    if (revision) change(revision.text)
  }

  /** Those who use keys go on where they opened it. */
  function close(): void {
    desk.textOpen = false
    document.querySelector<HTMLElement>('[data-text-switch]')?.focus()
  }

  function forget(): void {
    draft.forget(stored)
    save.reset()
    settle()
  }

  async function takeTheirs(): Promise<void> {
    forget()
    await songMoved(queries, songId)
  }

  async function keepMine(): Promise<void> {
    draft.goOnFrom(draft.meanwhile!)
    save.mutate()
  }
</script>

<section class="grid h-[42dvh] grid-rows-[auto_1fr] border-t border-ink px-6 pt-2 pb-3" aria-label="Tab text">
  <div class="flex flex-wrap items-center gap-x-4 gap-y-1 pb-2">
    <h2 class="font-bold">Tab text</h2>
    <span class="text-quiet">
      writing {draft.basedOn}{draft.changed ? ', changed' : ', saved'}{draft.pickedUp
        ? `; typed ${draft.pickedUp}, not saved yet`
        : ''}{draft.kept ? '' : '; this browser keeps no drafts, so save before you leave'}
    </span>
    {#if draft.changed}<button class="underline" disabled={save.isPending} onclick={forget}>Forget it</button
      >{/if}
    {#if (revisions.data?.revisions.length ?? 0) > 1}
      <span class="flex items-center gap-2 text-quiet">
        bring back
        <Select
          label="Bring back"
          class="text-ink"
          value={stored.revision}
          options={revisions.data!.revisions.map((revision) => ({
            value: revision.number,
            words: `writing ${revision.number}, ${shortTime(revision.saved_at)}`,
          }))}
          onchange={bringBack}
        />
      </span>
    {/if}
    <span class="min-w-0 grow truncate text-past-hand" role="status">
      {#if save.isError}
        {save.error.message}
      {:else if preview.problems.length > 0}
        <button class="underline" onclick={() => editor?.show(preview.problems[0].place)}
          >Line {preview.problems[0].place.line}</button
        >: {preview.problems[0].message}
      {:else}{preview.message}{/if}
    </span>
    <button class="quiet-button" onclick={close}>Close</button>
    <button
      class="key-button"
      disabled={!draft.changed || preview.message !== '' || preview.waiting || save.isPending}
      onclick={() => save.mutate()}>{save.isPending ? 'Saving …' : 'Save'}</button
    >
  </div>
  <TabTextEditor
    bind:this={editor}
    text={draft.text}
    label="Tab text"
    problems={save.error instanceof ApiError && save.error.problems.length
      ? save.error.problems
      : preview.problems}
    onchange={change}
  />
</section>
<Conflict
  open={draft.meanwhile !== null}
  what="this song"
  theirs={draft.meanwhile?.text ?? ''}
  mine={draft.text}
  busy={save.isPending}
  ontake={() => void takeTheirs()}
  onkeep={() => void keepMine()}
  onedit={() => {
    draft.goOnFrom(draft.meanwhile!)
    save.reset()
  }}
/>
