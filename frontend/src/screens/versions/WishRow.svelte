<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query'
  import { api, type PartOffer, type Wish } from '../../api/client'
  import Choices from '../../components/Choices.svelte'
  import { present } from '../students/students'
  import { APPROACH_WORDS, LAYER_WORDS, staircasesTo, type VersionsState } from './versions.svelte'

  interface Props {
    screen: VersionsState
    songId: number
    count: number
    parts: PartOffer[]
    onwrite: (wish: Partial<Wish>) => void
  }
  let { screen, songId, count, parts, onwrite }: Props = $props()
  const students = createQuery(() => ({ queryKey: ['students'], queryFn: api.students }))
  const part = $derived(parts[screen.partIndex])
  const setups = $derived(
    (
      [
        ['', 'as written', true],
        ['standard shapes', 'same shapes in standard tuning', part?.tuning !== 'standard'],
        ['standard music', 'same music in standard tuning', part?.tuning !== 'standard'],
        ['capo music', 'same music with the best capo', true],
        ['no capo shapes', 'same shapes without the capo', (part?.capo ?? 0) > 0],
      ] as const
    ).filter(([, , offered]) => offered),
  )
  const staircases = $derived(
    staircasesTo(part?.step ?? 10).map((stairs) => ({
      words: `Step${stairs.length > 1 ? 's' : ''} ${stairs.join(', ')}`,
      choose: () => onwrite({ target: stairs[0], further_targets: stairs.slice(1) }),
    })),
  )
  const layers = $derived(
    (Object.entries(LAYER_WORDS) as [Exclude<Wish['layer'], ''>, string][])
      .filter(([layer]) => layer !== 'one guitar' || part?.carries_the_tune)
      .map(([layer, words]) => ({ words, choose: () => onwrite({ target: 10, layer }) })),
  )
  const forWhom = $derived([
    ...present(students.data?.students).map((student) => ({
      words: student.name,
      choose: () => onwrite({ target: 10, student_id: student.id }),
    })),
    { words: 'What each student can play …', href: '#/students' },
  ])
</script>

<div
  class="flex flex-wrap items-center gap-x-3.5 gap-y-1 border-b border-contour px-6 py-1.5 text-[15px] print:hidden"
>
  {#if parts.length > 1}
    <label class="flex items-center gap-2 text-quiet">
      part
      <select
        class="field w-44 text-ink"
        bind:value={screen.partIndex}
        aria-label="Which part to make easier"
      >
        {#each parts as each (each.index)}<option value={each.index}
            >{each.name || `part ${each.index + 1}`}{each.carries_the_tune ? ' (the tune)' : ''}</option
          >{/each}
      </select>
    </label>
  {/if}
  <label class="flex items-center gap-2 text-quiet">
    give up last
    <select class="field w-32 text-ink" bind:value={screen.approach} aria-label="Approach">
      {#each Object.entries(APPROACH_WORDS) as [approach, words] (approach)}<option value={approach}
          >{words}</option
        >{/each}
    </select>
  </label>
  <label class="flex items-center gap-2 text-quiet">
    set up
    <select class="field w-28 text-ink" bind:value={screen.setup} aria-label="Tuning and capo">
      {#each setups as [setup, words] (setup)}<option value={setup}>{words}</option>{/each}
    </select>
  </label>
  {#if part && part.short_bars.length > 0}
    <label class="flex items-center gap-2" title="It no longer fits the recording then">
      <input type="checkbox" class="accent-(--ink)" bind:checked={screen.fillShortBars} /> fill the short bar{part
        .short_bars.length > 1
        ? 's'
        : ''}
      {part.short_bars.join(', ')}
    </label>
  {/if}
  <span class="grow"></span>
  <span class="flex items-center gap-x-4">
    <span class="text-quiet">or write</span>
    <Choices
      name={staircases.length > 0 ? 'a staircase' : 'no staircase: easy enough'}
      choices={staircases}
      disabled={screen.searching || staircases.length === 0}
    />
    <Choices name="a layer" choices={layers} disabled={screen.searching} />
    <Choices name="for a student" choices={forWhom} disabled={screen.searching} />
    <a class="underline" href="#/song/{songId}/group">a group</a>
  </span>
  {#if count > 0}
    <button
      class="quiet-button !min-h-8 !py-0.5"
      aria-pressed={screen.sideBySide}
      onclick={() => (screen.sideBySide = !screen.sideBySide)}>Side by side ({count})</button
    >
  {/if}
</div>
