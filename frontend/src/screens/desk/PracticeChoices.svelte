<!-- How what is chosen is practised: click, gap, a tempo that rises, one voice, bends, the version. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down'
  import { Popover } from 'bits-ui'
  import type { VersionCard } from '../../api/client'
  import { CLICKS } from '../../audio/clicks'
  import Select from '../../ui/Select.svelte'
  import Tick from '../../ui/Tick.svelte'
  import type { LessonState } from './lesson.svelte'
  import { CLICK_WORDS, type PracticeState, type Voice } from './practice.svelte'

  interface Props {
    lesson: LessonState
    practice: PracticeState
    versions: VersionCard[]
    versionId: number | null // that would be heard
    open: boolean
  }
  let { lesson, practice, versions, versionId, open = $bindable() }: Props = $props()
  const gapWords = (gap: number) => (gap === 0 ? 'no gap' : `a gap of ${gap} ${gap === 1 ? 'beat' : 'beats'}`)
  const SOFTLY = 0.25
  const VOICES: { words: string; voice: Voice; others: number }[] = [
    { words: 'both voices', voice: 'all', others: SOFTLY },
    { words: 'melody in front', voice: 'melody', others: SOFTLY },
    { words: 'melody alone', voice: 'melody', others: 0 },
    { words: 'bass in front', voice: 'bass', others: SOFTLY },
    { words: 'bass alone', voice: 'bass', others: 0 },
  ]
  const FIELDS = [
    { key: 'by', words: 'by', unit: '%,', label: 'Faster by, per cent', min: 1, max: 50 },
    { key: 'after', words: 'after', unit: 'times,', label: 'After how many times', min: 1, max: 50 },
    {
      key: 'goal',
      words: 'up to',
      unit: '%',
      label: 'Goal, per cent of the marked tempo',
      min: 25,
      max: 150,
    },
  ] as const
  const words = $derived(
    [
      practice.click === 'off' ? '' : CLICK_WORDS[practice.click],
      practice.rises ? 'faster by itself' : '',
      practice.voice === 'all' ? '' : `${practice.voice} ${practice.others === 0 ? 'alone' : 'in front'}`,
      practice.behind > 0 ? 'with the others' : '',
      practice.bendsFirst ? 'bends first' : '',
      practice.onVersion ? 'the version' : '',
    ]
      .filter(Boolean)
      .join(', ') || 'as written',
  )
</script>

<Popover.Root bind:open>
  <Popover.Trigger class="control max-w-80" aria-label="heard {words}, how it is practised">
    <span class="min-w-0 truncate"><span class="text-quiet">heard</span> {words}</span>
    <ChevronDown size={16} class="shrink-0 text-quiet" />
  </Popover.Trigger>
  <Popover.Portal>
    <Popover.Content class="float w-80 space-y-2.5 !p-3" sideOffset={4} align="start">
      <Select
        label="Click"
        class="w-full"
        bind:value={practice.click}
        options={CLICKS.map((value) => ({ value, words: CLICK_WORDS[value] }))}
      />
      <Select
        label="Gap between repeats"
        class="w-full"
        bind:value={practice.gap}
        options={[0, 1, 2, 4].map((value) => ({ value, words: gapWords(value) }))}
      />
      {#if lesson.twoVoices}
        <Select
          label="Voice"
          class="w-full"
          value={VOICES.findIndex(
            ({ voice, others }) => voice === practice.voice && others === practice.others,
          )}
          options={VOICES.map(({ words }, value) => ({ value, words }))}
          onchange={(at: number) => {
            practice.voice = VOICES[at].voice
            practice.others = VOICES[at].others
          }}
        />
      {/if}
      {#if practice.otherParts.length > 0}
        <Select
          label="Other guitars"
          class="w-full"
          bind:value={practice.behind}
          options={[
            { value: 0, words: 'the other guitars silent' },
            { value: 0.35, words: 'the others softly behind' },
            { value: 1, words: 'the others as loud' },
          ]}
        />
      {/if}
      <Tick bind:checked={practice.rises}>faster by itself while it is repeated</Tick>
      {#if practice.rises}
        <p class="flex flex-wrap items-center gap-1.5 pl-7">
          {#each FIELDS as { key, words, unit, label, min, max } (key)}
            {words}
            <input
              class="field w-14"
              type="number"
              {min}
              {max}
              aria-label={label}
              bind:value={practice[key]}
            />
            {unit}
          {/each}
        </p>
      {/if}
      {#if practice.severalSections}<Tick bind:checked={practice.sectionAlone}
          >so far: of its section alone</Tick
        >{/if}
      {#if practice.bent}<Tick bind:checked={practice.bendsFirst}
          >each bend's target first, then the bend</Tick
        >{/if}
      {#if versions.length > 0}
        <Tick bind:checked={practice.onVersion}>the version at the same place (V)</Tick>
        {#if versions.length > 1}
          <Select
            label="Which version is heard"
            class="w-full"
            value={versionId ?? 0}
            options={versions.map((each) => ({
              value: each.id,
              words: `Step ${each.step.toFixed(1)}, ${each.asked}`,
            }))}
            onchange={(id: number) => (practice.versionId = id)}
          />
        {/if}
      {/if}
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
