<script lang="ts">
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy, untrack } from 'svelte'
  import { api, ApiError } from '../../api/client'
  import { Preview } from '../../components/preview.svelte'
  import TabTextEditor from '../../components/TabTextEditor.svelte'
  import type { DeskState } from './desk.svelte'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  const preview = new Preview()
  let text = $state(untrack(() => desk.song!.text))
  let editor = $state<TabTextEditor>()
  const changed = $derived(text !== desk.song!.text)
  const revisions = createQuery(() => ({
    queryKey: ['revisions', songId, desk.song!.revision],
    queryFn: () => api.revisions(songId),
  }))

  const save = createMutation(() => ({
    mutationFn: () => api.save(songId, desk.song!.revision, text),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['song', songId] })
      desk.draft = null
      void queries.invalidateQueries({ queryKey: ['songs'] })
    },
  }))

  // The Desk shows the text under the editor as soon as it can be read; until then the last readable one.
  $effect(() => {
    if (preview.analysis && untrack(() => changed)) desk.draft = preview.analysis
  })
  $effect(() => {
    const query = desk.query
    untrack(() => changed && preview.ask(text, query))
  })
  onDestroy(() => {
    preview.stop()
    desk.draft = null
  })

  function change(typed: string): void {
    text = typed
    save.reset()
    if (typed === desk.song!.text) {
      preview.stop()
      preview.message = ''
      preview.problems = []
      desk.draft = null
    } else preview.ask(typed, desk.query)
  }

  function bringBack(number: string): void {
    const revision = revisions.data?.revisions.find((each) => String(each.number) === number)
    if (revision) change(revision.text)
  }

  function close(): void {
    if (!changed || confirm('Close without saving what you typed?')) desk.textOpen = false
  }
</script>

<section class="grid h-[42dvh] grid-rows-[auto_1fr] border-t border-ink px-6 pt-2 pb-3" aria-label="Tab text">
  <div class="flex flex-wrap items-center gap-4 pb-2">
    <h2 class="font-bold">Tab text</h2>
    <span class="text-quiet">revision {desk.song!.revision}{changed ? ', changed' : ', saved'}</span>
    {#if (revisions.data?.revisions.length ?? 0) > 1}
      <label class="text-quiet">
        bring back
        <select
          class="field text-ink"
          value={String(desk.song!.revision)}
          onchange={(event) => bringBack(event.currentTarget.value)}
        >
          {#each revisions.data!.revisions as revision (revision.number)}
            <option value={String(revision.number)}
              >revision {revision.number}, {new Date(`${revision.saved_at}Z`).toLocaleString()}</option
            >
          {/each}
        </select>
      </label>
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
      disabled={!changed || preview.message !== '' || preview.waiting || save.isPending}
      onclick={() => save.mutate()}>Save revision</button
    >
  </div>
  <TabTextEditor
    bind:this={editor}
    {text}
    label="Tab text"
    problems={save.error instanceof ApiError && save.error.problems.length
      ? save.error.problems
      : preview.problems}
    onchange={change}
  />
</section>
