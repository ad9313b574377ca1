<!-- The chosen notes as they are taught: Step, tempo to begin with, hardest switch, words; a chunk's name
  and borders. -->
<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query'
  import { api, type Chunk } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import LanguageChoice from '../../components/LanguageChoice.svelte'
  import { stepText } from '../../components/steps'
  import Tick from '../../ui/Tick.svelte'
  import type { DeskState } from './desk.svelte'
  import type { LessonState } from './lesson.svelte'
  import type { PracticeState } from './practice.svelte'

  interface Props {
    desk: DeskState
    lesson: LessonState
    practice: PracticeState
    songId: number
    onplay: () => void
  }
  let { desk, lesson, practice, songId, onplay }: Props = $props()
  const notes = $derived(desk.notes!)
  const isChunk = $derived(
    lesson.chunk !== null &&
      [lesson.chunk.first, lesson.chunk.last].every((at, end) => {
        const own = end === 0 ? notes.first : notes.last
        return at.bar === own.bar && at.event === own.event
      }),
  )
  const told = createQuery(() => ({
    queryKey: ['stretch', songId, desk.song?.revision, notes, lesson.query],
    queryFn: () => api.stretch(songId, { ...notes, lesson: lesson.query }),
    placeholderData: keepPreviousData,
    enabled: !isChunk,
  }))
  const chunk: Chunk | undefined = $derived(isChunk ? lesson.chunk! : told.data)
  const atTempo = $derived(chunk?.tempo ? Math.round((desk.markedTempo * chunk.tempo) / 100) : 0)

  // What sounded last stays until something else is struck.
  let sounding = $state('')
  $effect(() => {
    const now = lesson.wordsNow(chunk)
    if (now) sounding = now
  })

  function play(): void {
    practice.hearing = 'new'
    onplay()
  }

  function drill(): void {
    if (!chunk?.switch) return
    desk.chooseNotes(chunk.switch.first, chunk.switch.last)
    play()
  }
</script>

{#if told.isError && !isChunk}
  <ErrorNote message={told.error.message} />
{:else if chunk}
  <section aria-label="Chosen notes" class="mb-4 border-b border-contour pb-4">
    <h2 class="flex items-baseline justify-between gap-3 text-lg">
      <span>{isChunk ? `Chunk ${chunk.called}` : 'Chosen notes'}</span><span
        class="whitespace-nowrap tabular-nums">Step {stepText(chunk.step)}</span
      >
    </h2>
    <p class="first-letter:uppercase">
      {chunk.where}{chunk.measure ? `, hardest by the ${chunk.measure}` : ''}
    </p>
    <div class="mt-2 flex flex-wrap gap-2">
      {#if chunk.tempo === null}
        <p>Past {desk.analysis!.whom} even very slowly.</p>
      {:else}
        <button class="quiet-button" onclick={() => (desk.percent = chunk.tempo ?? 100)}
          >Begin at {atTempo} ({chunk.tempo} %)</button
        >
      {/if}
      {#if chunk.switch}<button class="quiet-button" onclick={drill}
          >Hardest switch, Step {stepText(chunk.switch_step ?? 0)}</button
        >{/if}
    </div>
    <div class="mt-3 flex items-center gap-2">
      <h3 class="grow">In words</h3>
      <LanguageChoice
        language={lesson.language}
        names={lesson.names}
        onlanguage={(language) => (lesson.language = language)}
        onnames={(names) => (lesson.names = names)}
      />
    </div>
    <Tick bind:checked={lesson.following}>word by word as it plays</Tick>
    {#if lesson.following}
      <p
        class="mt-1 min-h-14 border-l-4 border-changed pl-3 text-lg leading-snug first-letter:uppercase"
        lang={lesson.language}
        data-testid="words-now"
      >
        {sounding}
      </p>
    {/if}
    <ul class="mt-1 space-y-1" lang={lesson.language} aria-label="Directions">
      {#each chunk.words as sentence, at (at)}<li>{sentence}</li>{/each}
    </ul>
    {#if isChunk}
      <div class="mt-3 flex flex-wrap items-center gap-2">
        <input
          class="field w-36"
          aria-label="Name of the chunk"
          placeholder="a name"
          maxlength="60"
          value={chunk.name}
          onchange={(event) => lesson.rename(lesson.chosen, event.currentTarget.value)}
        />
        {#if lesson.chosen > 0}<button class="quiet-button" onclick={() => lesson.cutAt(chunk.first)}
            >Join with the one before</button
          >{/if}
        <button class="quiet-button" onclick={() => lesson.asProposed()}>All as proposed</button>
      </div>
    {:else}
      <button class="quiet-button mt-3" onclick={() => lesson.cutAt(notes.first)}
        >Cut a chunk before these</button
      >
    {/if}
  </section>
{/if}
