<script lang="ts">
  import { untrack } from 'svelte'
  import { api, type Measure, type Student, type Technique } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import type { Draft } from './students'

  interface Props {
    student: Student | undefined // none: a new one
    start: Draft
    presets: Record<string, number>
    measures: Measure[]
    techniques: Technique[]
    onsaved: (student: Student) => void
  }
  let { student, start, presets, measures, techniques, onsaved }: Props = $props()
  const draft = $state(untrack(() => start))
  const before = untrack(() => JSON.stringify(start))
  let failure = $state('')
  let done = $state('')
  const changed = $derived(JSON.stringify(draft) !== before)
  const hands = $derived(
    [
      { hand: 'fretting', words: 'the fretting hand' },
      { hand: 'picking', words: 'the picking hand' },
    ].map((each) => ({ ...each, rows: techniques.filter((row) => row.hand === each.hand) })),
  )

  function know(rows: Technique[], known: boolean): void {
    const names = rows.map((row) => row.technique as (typeof draft.unknown_techniques)[number])
    const others = draft.unknown_techniques.filter((each) => !names.includes(each))
    draft.unknown_techniques = known ? others : [...others, ...names]
  }

  function limit(measure: string, text: string): void {
    const { [measure]: _old, ...others } = draft.steps
    draft.steps = text === '' ? others : { ...others, [measure]: Number(text) }
  }

  async function save(put_away = draft.put_away): Promise<void> {
    failure = done = ''
    try {
      const made = student
        ? await api.saveStudent(student.id, student.number, { ...draft, put_away })
        : await api.addStudent(draft)
      done = 'Saved.'
      onsaved(made)
    } catch (error) {
      failure = error instanceof Error ? error.message : String(error)
    }
  }
</script>

<form
  onsubmit={(event) => (event.preventDefault(), void save())}
  aria-label={student ? student.name : 'New student'}
>
  <div class="flex flex-wrap items-end gap-x-6 gap-y-3">
    <label class="text-quiet"
      >name <input
        class="field block w-56 text-lg font-bold text-ink"
        bind:value={draft.name}
        maxlength="80"
        required
      /></label
    >
    <span class="grow"></span>
    {#if done && !changed}<span role="status">{done}</span>{/if}
    {#if student}<button type="button" class="quiet-button" onclick={() => void save(!draft.put_away)}
        >{draft.put_away ? 'Bring back' : 'Put away'}</button
      >{/if}
    <button class="key-button" disabled={!changed}>{student ? 'Save' : 'Add the student'}</button>
  </div>
  {#if failure}<div class="mt-3"><ErrorNote message={failure} /></div>{/if}

  <fieldset class="mt-6">
    <legend class="font-bold">The hand</legend>
    <div class="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2">
      <label class="flex items-center gap-1.5 text-quiet"
        >spans <input
          class="field no-spin w-12 text-right text-ink"
          type="number"
          min="40"
          max="200"
          step="1"
          bind:value={draft.span_mm}
          required
        /> mm, index to little finger</label
      >
      <span class="flex gap-2" role="group" aria-label="Usual spans">
        {#each Object.entries(presets).sort(([, a], [, b]) => a - b) as [name, span] (name)}
          <button
            type="button"
            class="quiet-button !min-h-8 !px-3 !py-0.5"
            aria-pressed={draft.span_mm === span}
            onclick={() => (draft.span_mm = span)}>{name}</button
          >
        {/each}
      </span>
      <label class="flex items-center gap-2 text-quiet">
        little finger
        <select class="field text-ink" bind:value={draft.little_finger}>
          <option value="usual">as usual</option><option value="avoided">avoided</option><option
            value="preferred">preferred</option
          >
        </select>
      </label>
      <label class="flex items-center gap-2"
        ><input type="checkbox" class="accent-(--ink)" bind:checked={draft.thumb_over} /> the thumb may fret the
        bass</label
      >
    </div>
  </fieldset>

  <fieldset class="mt-6">
    <legend class="font-bold">What comes out clean now</legend>
    <p class="mt-1 max-w-prose text-quiet">
      A version written for this student stays within the hand's span and within what is said here. What is
      left empty limits nothing.
    </p>
    <div class="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2">
      <label class="flex items-center gap-1.5 text-quiet"
        >up to <input
          class="field no-spin w-14 text-right text-ink"
          type="number"
          min="0.5"
          max="20"
          step="0.1"
          bind:value={draft.notes_per_second}
        /> notes a second</label
      >
      <label class="flex items-center gap-2 text-quiet">
        shapes
        <select class="field text-ink" bind:value={draft.hardest_shape}>
          <option value="no barre">without a barre</option><option value="small barre"
            >up to small barres</option
          ><option value="full barre">full barres too</option>
        </select>
      </label>
    </div>
    {#each hands as { hand, words, rows } (hand)}
      <div class="mt-4 flex items-baseline gap-3 text-[15px]">
        <h3 class="text-quiet">known techniques of {words}</h3>
        <button
          type="button"
          class="underline"
          onclick={() => know(rows, true)}
          aria-label="Knows all techniques of {words}">all</button
        >
        <button
          type="button"
          class="underline"
          onclick={() => know(rows, false)}
          aria-label="Knows no technique of {words}">none</button
        >
      </div>
      <div class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-4 gap-y-1">
        {#each rows as row (row.technique)}
          <label class="flex items-center gap-2">
            <input
              type="checkbox"
              class="accent-(--ink)"
              checked={!draft.unknown_techniques.some((each) => each === row.technique)}
              onchange={(event) => know([row], event.currentTarget.checked)}
            />
            {row.name}
          </label>
        {/each}
      </div>
    {/each}
    <h3 class="mt-4 text-[15px] text-quiet">comfortable up to Step, by measure</h3>
    <div class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(340px,1fr))] gap-x-6 gap-y-1">
      {#each measures as measure (measure.name)}
        <label class="flex items-baseline gap-2">
          <input
            class="field no-spin w-12 text-right"
            type="number"
            min="1"
            max="10"
            step="0.5"
            value={draft.steps[measure.name] ?? ''}
            onchange={(event) => limit(measure.name, event.currentTarget.value)}
          />
          <span
            ><span class="font-bold">{measure.name}</span>
            <span class="text-sm text-quiet">{measure.about}</span></span
          >
        </label>
      {/each}
    </div>
  </fieldset>
</form>
