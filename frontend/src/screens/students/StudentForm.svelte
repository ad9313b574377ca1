<script lang="ts">
  import Check from '@lucide/svelte/icons/check'
  import LanguageChoice from '../../components/LanguageChoice.svelte'
  import TuningField from '../../components/TuningField.svelte'
  import LittleFinger from '../../components/LittleFinger.svelte'
  import Fold from '../../ui/Fold.svelte'
  import Menu from '../../ui/Menu.svelte'
  import Select from '../../ui/Select.svelte'
  import Tick from '../../ui/Tick.svelte'
  import { onDestroy, untrack } from 'svelte'
  import type { Measure, Student, Technique } from '../../api/client'
  import { connection } from '../../api/connection.svelte'
  import Conflict from '../../components/Conflict.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { StudentFormState } from './studentform.svelte'
  import { draftOf, studentLines } from './students'

  interface Props {
    student: Student | undefined // none: a new one
    presets: Record<string, number>
    measures: Measure[]
    techniques: Technique[]
    sets: { name: string; techniques: string[] }[] // what is learnt together
    others: Student[] // to copy from
    tunings: string[]
    onsaved: (student: Student) => Promise<void>
  }
  let { student, presets, measures, techniques, sets, others, tunings, onsaved }: Props = $props()
  const form = untrack(() => new StudentFormState(student, onsaved))
  $effect(() => {
    void JSON.stringify(form.draft)
    untrack(() => form.keep())
  })
  onDestroy(() => form.stop())
  onDestroy(connection.onReturn(() => (form.failure = '')))
  const hands = $derived(
    [
      { hand: 'fretting', words: 'the fretting hand' },
      { hand: 'picking', words: 'the picking hand' },
    ].map((each) => ({ ...each, rows: techniques.filter((row) => row.hand === each.hand) })),
  )

  const unknown = $derived(new Set<string>(form.draft.unknown_techniques))

  function knowNamed(names: string[], known: boolean): void {
    know(
      techniques.filter((row) => names.includes(row.technique)),
      known,
    )
  }

  /** Everything but the name from somebody else. */
  function copy(id: number): void {
    const from = others.find((each) => each.id === id)
    if (from) form.draft = { ...draftOf(from), name: form.draft.name, put_away: form.draft.put_away }
  }

  /** What needs a technique that is not known is not known either, and what it needs is known with it. */
  function know(rows: Technique[], known: boolean): void {
    const own = rows.map((row) => row.technique)
    const names = techniques
      .filter((row) =>
        known
          ? own.includes(row.technique) || row.harder.some((each) => own.includes(each))
          : rows.some((each) => each.technique === row.technique || each.harder.includes(row.technique)),
      )
      .map((row) => row.technique as (typeof form.draft.unknown_techniques)[number])
    const others = form.draft.unknown_techniques.filter((each) => !names.includes(each))
    form.draft.unknown_techniques = known ? others : [...others, ...names]
  }

  function limit(measure: string, text: string): void {
    const { [measure]: _old, ...others } = form.draft.steps
    form.draft.steps = text === '' ? others : { ...others, [measure]: Number(text) }
  }
</script>

<form
  onsubmit={(event) => (event.preventDefault(), void form.save())}
  aria-label={student ? student.name : 'New student'}
>
  <div class="flex flex-wrap items-end gap-x-6 gap-y-3">
    <label class="text-quiet"
      >name <input
        class="field block w-56 text-lg font-bold text-ink"
        bind:value={form.draft.name}
        maxlength="80"
        required
      /></label
    >
    {#if others.length > 0}
      <Menu
        name="Copy from"
        choices={others.map((each) => ({ words: each.name, choose: () => copy(each.id) }))}
      />
    {/if}
    <span class="grow"></span>
    {#if form.changed}<span class="text-quiet"
        >{form.pickedUp ? `typed ${form.pickedUp}, not saved yet` : 'not saved yet'}{form.kept
          ? ''
          : '; this browser keeps no drafts'}
        <button type="button" class="underline" onclick={() => form.forget()}>Forget it</button></span
      >{/if}
    {#if student}<button
        type="button"
        class="quiet-button"
        disabled={form.busy}
        onclick={() => void form.save(!form.draft.put_away)}
        >{form.draft.put_away ? 'Bring back' : 'Put away'}</button
      >{/if}
    <button class="key-button" disabled={!form.changed || form.busy}
      >{student ? 'Save' : 'Add the student'}</button
    >
  </div>
  {#if form.failure}<div class="mt-3"><ErrorNote message={form.failure} /></div>{/if}

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
          bind:value={form.draft.span_mm}
          required
        /> mm, index to little finger</label
      >
      <span class="flex gap-2" role="group" aria-label="Usual spans">
        {#each Object.entries(presets).sort(([, a], [, b]) => a - b) as [name, span] (name)}
          <button
            type="button"
            class="quiet-button !min-h-8 !px-3 !py-0.5"
            aria-pressed={form.draft.span_mm === span}
            onclick={() => (form.draft.span_mm = span)}>{name}</button
          >
        {/each}
      </span>
      <span class="flex items-center gap-2 text-quiet">
        little finger
        <LittleFinger bind:value={form.draft.little_finger} />
      </span>
      <Tick bind:checked={form.draft.thumb_over}>the thumb may fret the bass</Tick>
    </div>
  </fieldset>

  <fieldset class="mt-6">
    <legend class="font-bold">The guitar</legend>
    <div class="mt-2 flex flex-wrap items-center gap-x-6 gap-y-2">
      <Select
        label="Kind of guitar"
        value={form.draft.instrument ?? ''}
        options={[
          { value: '', words: 'any kind' },
          { value: 'acoustic', words: 'acoustic' },
          { value: 'classical', words: 'classical' },
          { value: 'electric', words: 'electric' },
        ]}
        onchange={(kind) => (form.draft.instrument = kind === '' ? null : kind)}
      />
      <label class="flex items-center gap-1.5 text-quiet"
        >strings <input
          class="field no-spin w-14 text-right text-ink"
          type="number"
          min="300"
          max="1000"
          step="1"
          bind:value={form.draft.scale_length_mm}
        /> mm long, nut to bridge; empty: as the song says (a three-quarter guitar has about 580)</label
      >
      <span class="flex items-center gap-1.5 text-quiet"
        >tuned to <TuningField
          label="What the guitar is tuned to"
          value={form.draft.tuning ?? ''}
          {tunings}
          placeholder="the usual tuning"
          onchange={(tuning) => (form.draft.tuning = tuning || null)}
        /></span
      >
      <span class="flex items-center gap-1.5 text-quiet"
        >sheets in <LanguageChoice
          language={form.draft.language}
          names={form.draft.names}
          onlanguage={(language) => (form.draft.language = language)}
          onnames={(names) => (form.draft.names = names)}
        /></span
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
          bind:value={form.draft.notes_per_second}
        /> notes a second</label
      >
      <span class="flex items-center gap-2 text-quiet">
        shapes
        <Select
          label="Shapes"
          class="text-ink"
          bind:value={form.draft.hardest_shape}
          options={[
            { value: 'no barre', words: 'without a barre' },
            { value: 'small barre', words: 'up to small barres' },
            { value: 'full barre', words: 'full barres too' },
          ]}
        />
      </span>
      <label class="flex items-center gap-1.5 text-quiet"
        >whole songs up to Step <input
          class="field no-spin w-14 text-right text-ink"
          type="number"
          min="1"
          max="10"
          step="0.5"
          bind:value={form.draft.comfortable_step}
        /></label
      >
    </div>
    <h3 class="mt-4 text-[15px] text-quiet">known techniques</h3>
    <div class="mt-1.5 flex flex-wrap items-center gap-2">
      {#each sets as { name, techniques: those } (name)}
        {@const known = those.every((each) => !unknown.has(each))}
        <button
          type="button"
          class="quiet-button !px-3 inline-flex items-center gap-1.5"
          aria-pressed={known}
          onclick={() => knowNamed(those, !known)}
          >{#if known}<Check size={15} />{/if}{name}</button
        >
      {/each}
      <button
        type="button"
        class="quiet-button !px-3"
        onclick={() => know(techniques, true)}
        aria-label="all: knows all techniques">all</button
      >
      <button
        type="button"
        class="quiet-button !px-3"
        onclick={() => know(techniques, false)}
        aria-label="none: knows no technique">none</button
      >
    </div>
    <Fold
      class="mt-2 text-quiet"
      title="one by one ({techniques.length - unknown.size} of {techniques.length})"
    >
      <div class="text-ink">
        {#each hands as { hand, words, rows } (hand)}
          <h4 class="mt-2 text-[15px] text-quiet">techniques of {words}</h4>
          <div class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-4 gap-y-1">
            {#each rows as row (row.technique)}
              <Tick checked={!unknown.has(row.technique)} onchange={(known) => know([row], known)}
                >{row.name}</Tick
              >
            {/each}
          </div>
        {/each}
      </div>
    </Fold>
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
            value={form.draft.steps[measure.name] ?? ''}
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
{#if form.meanwhile}
  <Conflict
    open
    what="this student"
    theirs={studentLines(draftOf(form.meanwhile), techniques)}
    mine={studentLines(form.draft, techniques)}
    busy={form.busy}
    ontake={() => void form.takeTheirs()}
    onkeep={() => void form.keepMine()}
    onedit={() => form.goOn()}
  />
{/if}
