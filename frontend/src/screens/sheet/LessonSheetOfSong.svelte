<!-- The sheet a student takes home, put together on a screen that looks like the paper it will be. -->
<script lang="ts">
  import { createQueries, createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query'
  import Printer from '@lucide/svelte/icons/printer'
  import { api, USUAL, type Part, type SheetChoice, type Version } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import FetchErrors from '../../components/FetchErrors.svelte'
  import LanguageChoice from '../../components/LanguageChoice.svelte'
  import PastBars from '../../components/PastBars.svelte'
  import WhomPicker from '../../components/WhomPicker.svelte'
  import { doneLately } from '../../done.svelte'
  import { SHEET_WORDS, type SheetLanguage } from '../../sheet/lessonwords'
  import LessonSheet from '../../sheet/LessonSheet.svelte'
  import { offerSheet, type LessonContent, type SheetRow } from '../../sheet/sheet'
  import Select from '../../ui/Select.svelte'
  import Tick from '../../ui/Tick.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import { whom, whomQuery } from '../../whom.svelte'
  import SheetBlocks from './SheetBlocks.svelte'

  let { id }: { id: number } = $props()
  const queries = useQueryClient()
  let choice = $state.raw<SheetChoice | null>(null)
  let problem = $state('')
  let partIndex = $state(0)
  let density = $state(0)
  const student = $derived(whom.studentId)

  const song = createQuery(() => ({
    queryKey: ['song', id, whomQuery()],
    queryFn: () => api.song(id, whomQuery()),
    placeholderData: keepPreviousData,
  }))
  const kept = createQuery(() => ({
    queryKey: ['sheet', id, student],
    queryFn: () => api.sheet(id, student),
  }))
  $effect(() => {
    if (kept.data) choice = kept.data
  })
  const versions = createQuery(() => ({ queryKey: ['versions', id], queryFn: () => api.versions(id) }))
  const lessonQuery = $derived({
    ...whomQuery(),
    part_index: partIndex,
    language: choice?.language ?? ('en' as const),
    names: choice?.names ?? ('letters' as const),
  })
  const versionId = $derived(choice?.version_id ?? null)
  const lesson = createQuery(() => ({
    queryKey: ['lesson', id, song.data?.revision, versionId, lessonQuery],
    queryFn: () =>
      versionId === null ? api.lesson(id, lessonQuery) : api.versionLesson(versionId, lessonQuery),
    placeholderData: keepPreviousData,
    enabled: choice !== null,
  }))
  const version = createQuery(() => ({
    queryKey: ['version', versionId, whomQuery()],
    queryFn: () => api.version(versionId!, whomQuery()),
    enabled: versionId !== null,
  }))
  const analysis = $derived(
    versionId === null ? (song.data?.analysis ?? null) : (version.data?.version ?? null),
  )
  const part = $derived(
    analysis?.parts[versionId === null ? partIndex : (version.data?.part_index ?? 0)] ?? null,
  )
  const others = createQueries(() => ({
    queries: (choice?.beside ?? []).map((each) => ({
      queryKey: ['version', each, USUAL],
      queryFn: () => api.version(each, USUAL), // for whom each was written
    })),
    combine: (found) => found.flatMap(({ data }) => (data ? [data] : [])),
  }))
  const rows: SheetRow[] = $derived.by(() => {
    if (!part) return []
    const own = { name: versionId === null ? 'original' : nameOf(version.data!), part }
    const above =
      choice?.with_original && version.data
        ? [{ name: 'original', part: version.data.original.parts[0] }]
        : []
    const below = others.map((each) => ({ name: nameOf(each), part: each.version.parts[0] }))
    return [...above, own, ...below].filter((row) => row.part.bars.length === part.bars.length)
  })
  const content: LessonContent | null = $derived(
    analysis && part && choice
      ? {
          analysis,
          part,
          under: underOf(part, choice.language),
          rows,
          lesson: lesson.data ?? null,
          blocks: choice.blocks.filter((block) => !choice!.off.includes(block)),
          language: choice.language,
          density,
        }
      : null,
  )
  function underOf(own: Part, language: SheetLanguage): string {
    if (versionId === null) return own.name || SHEET_WORDS[language].original
    return language === 'en' ? (version.data?.asked ?? '') : SHEET_WORDS[language].version
  }
  function nameOf(each: Pick<Version, 'student' | 'asked'>): string {
    return each.student || each.asked
  }
  offerSheet(() => (content ? [content] : []))

  // Whatever is handed out is held against all that is known of who gets it.
  const handOut = createQuery(() => ({
    queryKey: ['hand-out', id, student, partIndex, versions.data?.versions.length],
    queryFn: () => api.handOut(student!, id, partIndex),
    enabled: student !== null && part !== null && !part.within_reach,
  }))
  const proposed = $derived.by(() => {
    const found = handOut.data?.proposed ?? null
    return found && found.version_id !== versionId ? found : null
  })

  async function keep(change: Partial<SheetChoice>): Promise<void> {
    if (!choice) return
    const before = choice
    const { number: based_on, ...rest } = { ...choice, ...change }
    choice = { ...choice, ...change }
    const student_id = student
    try {
      const saved = await api.keepSheet(id, { ...rest, based_on, student_id })
      choice = saved
      problem = ''
      doneLately.tell('What stands on the sheet is changed', async () => {
        const back = await api.keepSheet(id, { ...before, based_on: saved.number, student_id })
        if (student === student_id) choice = back
        await queries.invalidateQueries({ queryKey: ['sheet', id] })
      })
    } catch (error) {
      problem = (error as Error).message
    }
  }

  /** Versions of the same part that can stand under the one that is handed out. */
  const under = $derived(
    (versions.data?.versions ?? []).filter(
      (each) => !each.put_away && each.id !== versionId && each.part_index === partOfSheet,
    ),
  )
  const partOfSheet = $derived(versionId === null ? partIndex : (version.data?.part_index ?? 0))

  function toggleBeside(id: number): void {
    const beside = choice!.beside.includes(id)
      ? choice!.beside.filter((each) => each !== id)
      : [...choice!.beside, id]
    void keep({ beside })
  }
</script>

<svelte:head><title>{analysis?.title ?? 'Lesson sheet'} - Clear Steps</title></svelte:head>

<div class="grid page-height grid-rows-[auto_1fr]">
  <TopBar back={{ href: `#/song/${id}`, words: 'Desk' }} title={song.data?.title ?? ''} under="lesson sheet">
    {#snippet whom()}<WhomPicker />{/snippet}
    <button class="key-button inline-flex items-center gap-2" onclick={() => window.print()}
      ><Printer size={17} /> Print or save as PDF</button
    >
  </TopBar>
  <main class="grid min-h-0 grid-cols-[290px_minmax(0,1fr)] max-lg:grid-cols-1">
    <aside class="overflow-y-auto border-r border-contour px-5 py-4" aria-label="What stands on it">
      {#if problem}<ErrorNote message={problem} />{/if}
      <FetchErrors of={[song, kept, versions, lesson, version, handOut]} />
      {#if choice}
        <h2 class="text-lg">What stands on it</h2>
        <SheetBlocks {choice} onkeep={(change) => void keep(change)} />
        <h3 class="mt-4">What is handed out</h3>
        <Select
          label="What is handed out"
          class="mt-1 w-full"
          value={versionId ?? 0}
          options={[
            { value: 0, words: 'the original' },
            ...(versions.data?.versions ?? [])
              .filter((each) => !each.put_away)
              .map((each) => ({
                value: each.id,
                words: `version at Step ${each.step.toFixed(1)}, ${each.asked}`,
              })),
          ]}
          onchange={(value) => keep({ version_id: value === 0 ? null : value })}
        />
        {#if part && analysis && !part.within_reach}
          <div class="mt-2" role="note" aria-label="Past who gets it">
            <PastBars {part} whom={analysis.whom} />
            {#if proposed}
              <button class="underline" onclick={() => keep({ version_id: proposed!.version_id })}
                >Hand out {proposed.version_id === null ? 'the original' : 'the version'} at Step {proposed.step.toFixed(
                  1,
                )}, within reach</button
              >
            {:else if student === null || handOut.data}
              <a class="underline" href="#/song/{id}/versions">Write a version for them</a>
            {/if}
          </div>
        {/if}
        {#if under.length > 0 || versionId !== null}
          <h3 class="mt-4">Under one another</h3>
          {#if versionId !== null}<p class="py-0.5">
              <Tick
                checked={choice.with_original}
                onchange={() => keep({ with_original: !choice!.with_original })}>the original above</Tick
              >
            </p>{/if}
          {#each under as each (each.id)}
            <p class="py-0.5">
              <Tick checked={choice.beside.includes(each.id)} onchange={() => toggleBeside(each.id)}
                >Step {each.step.toFixed(1)}, {each.asked}</Tick
              >
            </p>
          {/each}
        {/if}
        {#if (song.data?.analysis?.parts.length ?? 0) > 1 && versionId === null}
          <h3 class="mt-4">Part</h3>
          <Select
            label="Part"
            class="mt-1 w-full"
            bind:value={partIndex}
            options={song.data!.analysis!.parts.map((each, index) => ({
              value: index,
              words: each.name || `part ${index + 1}`,
            }))}
          />
        {/if}
        <h3 class="mt-4">Language of the sheet</h3>
        <div class="mt-1 flex gap-2">
          <LanguageChoice
            language={choice.language}
            names={choice.names}
            onlanguage={(language) => keep({ language })}
            onnames={(names) => keep({ names })}
          />
        </div>
      {/if}
    </aside>
    <div class="overflow-auto bg-contour/40 p-6 max-sm:p-3" aria-label="The sheet as printed">
      {#if content}
        <div class="paper mx-auto w-fit p-[14mm] shadow-md">
          <LessonSheet {content} onfit={(found) => (density = found)} />
        </div>
      {:else if ![song, kept, version].some(({ isError }) => isError)}
        <p class="text-quiet" role="status">Putting the sheet together …</p>
      {/if}
    </div>
  </main>
</div>
