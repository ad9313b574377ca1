<!-- The lesson under the tab: the chunks in the order they are learnt, and how what is chosen is
  practised. -->
<script lang="ts">
  import { CLICKS } from '../../audio/practice'
  import { stepColour, stepText } from '../../components/steps'
  import Select from '../../ui/Select.svelte'
  import TipButton from '../../ui/TipButton.svelte'
  import { CLICK_WORDS, ORDERS, type Hearing, type LessonState } from './lesson.svelte'

  interface Props {
    lesson: LessonState
    onhear: (hearing: Hearing) => void
  }
  let { lesson, onhear }: Props = $props()
  const HEARINGS: { value: Hearing; words: string; tip: string }[] = [
    { value: 'new', words: 'new', tip: 'Hear the chosen notes (U)' },
    { value: 'so far', words: 'so far', tip: 'Hear everything learnt up to here (I)' },
    { value: 'whole', words: 'whole', tip: 'Hear the whole (O)' },
  ]
  let row: HTMLElement

  // The chosen chunk comes into sight.
  $effect(() => {
    void lesson.chosen
    row.querySelector('[aria-current="true"]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  })
</script>

<section class="min-w-0 border-t border-contour px-6 pt-2 pb-2 max-sm:px-3" aria-label="Lesson">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1.5 text-[15px]">
    <div class="flex" role="group" aria-label="What is heard">
      {#each HEARINGS as { value, words, tip } (value)}
        <TipButton
          class="quiet-button !rounded-none !px-2.5 -ml-px"
          aria-pressed={lesson.hearing === value}
          {tip}
          onclick={() => onhear(value)}>{words}</TipButton
        >
      {/each}
    </div>
    <Select label="Order of learning" class="w-40" bind:value={lesson.order} options={ORDERS} />
    <Select
      label="Click"
      class="w-44"
      bind:value={lesson.click}
      options={CLICKS.map((value) => ({ value, words: CLICK_WORDS[value] }))}
    />
    <Select
      label="Gap between repeats"
      class="w-32"
      bind:value={lesson.gap}
      options={[0, 1, 2, 4].map((value) => ({
        value,
        words: value === 0 ? 'no gap' : `${value} ${value === 1 ? 'beat' : 'beats'} gap`,
      }))}
    />
    <TipButton
      class="quiet-button !px-2.5"
      aria-pressed={lesson.rises}
      tip="The tempo rises by itself while it is repeated"
      onclick={() => (lesson.rises = !lesson.rises)}>faster by itself</TipButton
    >
    {#if lesson.rises}
      <span class="flex items-center gap-1.5"
        >by <input
          class="field w-14"
          type="number"
          min="1"
          max="50"
          aria-label="Faster by, per cent"
          bind:value={lesson.by}
        />
        % after
        <input
          class="field w-14"
          type="number"
          min="1"
          max="50"
          aria-label="After how many times"
          bind:value={lesson.after}
        />
        times, to
        <input
          class="field w-16"
          type="number"
          min="25"
          max="150"
          aria-label="Goal, per cent of the marked tempo"
          bind:value={lesson.goal}
        /> %</span
      >
    {/if}
    {#if lesson.twoVoices}
      <Select
        label="Voice"
        class="w-36"
        bind:value={lesson.voice}
        options={[
          { value: 'all', words: 'both voices' },
          { value: 'melody', words: 'melody in front' },
          { value: 'bass', words: 'bass in front' },
        ]}
      />
    {/if}
    {#if lesson.heardPercent !== null}<span class="tabular-nums" aria-live="off"
        >now at {Math.round(lesson.heardPercent)} %</span
      >{/if}
  </div>
  <ol bind:this={row} class="relative mt-2 flex gap-1 overflow-x-auto pb-1" aria-label="Chunks">
    {#each lesson.inOrder as index (index)}
      {@const chunk = lesson.chunks[index]}
      {@const current = index === lesson.chosen}
      <li class="shrink-0">
        <button
          class="block h-full max-w-48 min-w-14 border px-2 pt-0.5 text-left {current
            ? 'border-2 border-ink bg-raised font-bold'
            : 'border-contour hover:bg-raised'} {chunk.like === null ? '' : 'border-dashed'}"
          aria-current={current}
          onclick={() => lesson.choose(index)}
        >
          <span class="block truncate"
            ><span class="sr-only">Chunk </span><span data-called>{chunk.called}</span><span class="sr-only"
              >, {chunk.where}, Step</span
            ></span
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
