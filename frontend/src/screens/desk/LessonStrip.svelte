<!-- The lesson under the tab: the chunks in the order they are learnt, and how what is chosen is
  practised. -->
<script lang="ts">
  import type { VersionCard } from '../../api/client'
  import { stepColour, stepText } from '../../components/steps'
  import Select from '../../ui/Select.svelte'
  import TipButton from '../../ui/TipButton.svelte'
  import { ORDERS, type LessonState } from './lesson.svelte'
  import type { Hearing, PracticeState } from './practice.svelte'
  import PracticeChoices from './PracticeChoices.svelte'

  interface Props {
    lesson: LessonState
    practice: PracticeState
    versions: VersionCard[]
    versionId: number | null
    practiceOpen: boolean
    onhear: (hearing: Hearing) => void
  }
  let { lesson, practice, versions, versionId, practiceOpen = $bindable(), onhear }: Props = $props()
  const LAYER_WORDS = { bass: 'bass of ', melody: 'melody of ', notes: 'notes of ', all: '' }
  const HEARINGS: { value: Hearing; words: string; tip: string }[] = [
    { value: 'new', words: 'new', tip: 'Hear the chosen notes (U)' },
    { value: 'so far', words: 'so far', tip: 'Hear everything learnt up to here (I)' },
    { value: 'whole', words: 'whole', tip: 'Hear the whole (O)' },
  ]
  let row: HTMLElement

  // The chosen chunk comes into sight within its row; the page stays where it is.
  $effect(() => {
    void lesson.at
    const chosen = row.querySelector<HTMLElement>('[aria-current="true"]')
    if (!chosen) return
    const [own, room] = [chosen.getBoundingClientRect(), row.getBoundingClientRect()]
    if (own.left < room.left) row.scrollLeft += own.left - room.left
    else if (own.right > room.right) row.scrollLeft += own.right - room.right
  })
</script>

<section class="min-w-0 border-t border-contour px-6 pt-2 pb-2 max-sm:px-3" aria-label="Lesson">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1.5 text-[15px]">
    <div class="flex" role="group" aria-label="What is heard">
      {#each HEARINGS as { value, words, tip } (value)}
        <TipButton
          class="quiet-button !rounded-none !px-2.5 -ml-px"
          aria-pressed={practice.hearing === value}
          {tip}
          onclick={() => onhear(value)}>{words}</TipButton
        >
      {/each}
    </div>
    <Select label="Order of learning" class="w-40" bind:value={lesson.order} options={ORDERS} />
    <PracticeChoices {lesson} {practice} {versions} {versionId} bind:open={practiceOpen} />
    {#if practice.heardPercent !== null}<span class="tabular-nums" aria-live="off"
        >now at {Math.round(practice.heardPercent)} %</span
      >{/if}
  </div>
  <ol bind:this={row} class="relative mt-2 flex gap-1 overflow-x-auto pb-1" aria-label="Chunks">
    {#each lesson.steps as { index, layer }, at (`${layer} ${index}`)}
      {@const chunk = lesson.chunks[index]}
      {@const current = at === lesson.at}
      <li class="shrink-0">
        <button
          class="block h-full max-w-48 min-w-14 border px-2 pt-0.5 text-left {current
            ? 'border-2 border-ink bg-raised font-bold'
            : 'border-contour hover:bg-raised'} {chunk.like === null ? '' : 'border-dashed'}"
          aria-current={current}
          onclick={() => lesson.choose(index, layer)}
        >
          <span class="block truncate"
            ><span class="sr-only">Chunk </span><span data-called>{LAYER_WORDS[layer]}{chunk.called}</span
            ><span class="sr-only">, {chunk.where}, Step</span></span
          >
          <span class="flex items-center gap-1.5 pb-1 text-sm font-normal text-quiet tabular-nums"
            ><span class="inline-block h-2.5 w-5" style:background={stepColour(chunk.step)}></span>{stepText(
              chunk.step,
            )}</span
          >
        </button>
      </li>
    {/each}
  </ol>
  {#if lesson.data?.lost.length}
    <p class="mt-1 text-sm" role="status">
      No longer in the song: {lesson.data.lost.join(', ')}.
    </p>
  {/if}
  {#if lesson.problem}<p class="mt-1 text-sm text-past-hand" role="alert">{lesson.problem}</p>{/if}
</section>
