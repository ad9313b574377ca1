<script lang="ts">
  import Select from '../../ui/Select.svelte'
  import Tick from '../../ui/Tick.svelte'
  import { createQuery } from '@tanstack/svelte-query'
  import { api, type Approach, type PartOffer, type Wish } from '../../api/client'
  import FetchErrors from '../../components/FetchErrors.svelte'
  import Menu from '../../ui/Menu.svelte'
  import AnotherTuning from './AnotherTuning.svelte'
  import { present } from '../students/students'
  import {
    APPROACH_WORDS,
    LAYER_WORDS,
    SETUP_WORDS,
    staircasesTo,
    type VersionsState,
  } from './versions.svelte'

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
  const offers = createQuery(() => ({
    queryKey: ['setups', songId, screen.partIndex, part?.tuning, part?.capo],
    queryFn: () => api.setups(songId, screen.partIndex, null),
    enabled: part !== undefined,
  }))
  const ANOTHER = 'another' // tuning or capo, by name
  const setups = $derived([
    { value: '' as const, words: 'as written' },
    ...(offers.data?.setups ?? []).map(({ wish, sits }) => ({
      value: wish,
      words: `${SETUP_WORDS[wish]} (${sits})`,
    })),
    ...(offers.data ? [{ value: ANOTHER as typeof ANOTHER, words: 'another tuning or capo …' }] : []),
  ])

  function setUp(value: (typeof setups)[number]['value']): void {
    if (value === ANOTHER) {
      const other = offers.data!.tunings.find((name) => name !== part?.tuning)
      screen.asked = { tuning: other ?? part!.tuning, capo: 0 }
      return
    }
    screen.asked = null
    screen.setup = value
  }
  const staircases = $derived(
    staircasesTo(part?.step ?? 10).map((stairs) => ({
      words: `Step${stairs.length > 1 ? 's' : ''} ${stairs.join(', ')}`,
      choose: () => onwrite({ target: stairs[0], further_targets: stairs.slice(1) }),
    })),
  )
  const others = $derived(parts.length > 2 ? parts.filter(({ index }) => index !== screen.partIndex) : [])
  const layers = $derived([
    ...(Object.entries(LAYER_WORDS) as [Exclude<Wish['layer'], ''>, string][])
      .filter(([layer]) => layer !== 'one guitar' || parts.length > 1)
      .map(([layer, words]) => ({ words, choose: () => onwrite({ target: 10, layer }) })),
    ...others.map(({ index, name }) => ({
      words: `this guitar with ${name || `part ${index + 1}`} alone`,
      choose: () => onwrite({ target: 10, layer: 'one guitar', with_parts: [index] }),
    })),
  ])
  const forWhom = $derived([
    ...present(students.data?.students).map((student) => ({
      words: student.name,
      choose: () => onwrite({ target: 10, student_id: student.id }),
    })),
    { words: 'What each student can play …', href: '#/students' },
  ])
</script>

<FetchErrors of={[students, offers]} />
<div class="tool-row text-[15px]">
  {#if parts.length > 1}
    <Select
      label="Which part to make easier"
      class="max-w-48"
      bind:value={screen.partIndex}
      options={parts.map((each) => ({
        value: each.index,
        words: `${each.name || `part ${each.index + 1}`}${each.carries_the_tune ? ' (the tune)' : ''}`,
      }))}
    />
  {/if}
  <span class="flex items-center gap-2 text-quiet">
    give up last
    <Select
      label="Approach"
      class="text-ink"
      bind:value={screen.approach}
      options={Object.entries(APPROACH_WORDS).map(([value, words]) => ({ value: value as Approach, words }))}
    />
  </span>
  <span class="flex items-center gap-2 text-quiet">
    set up
    <Select
      label="Tuning and capo"
      class="max-w-52 text-ink"
      value={screen.asked ? ANOTHER : screen.setup}
      options={setups}
      onchange={setUp}
    />
  </span>
  {#if part && part.short_bars.length > 0}
    <Tick bind:checked={screen.fillShortBars}
      >fill the short bar{part.short_bars.length > 1 ? 's' : ''}
      {part.short_bars.join(', ')} (it no longer fits the recording then)</Tick
    >
  {/if}
  <span class="grow"></span>
  <span class="flex flex-wrap items-center gap-x-4 gap-y-1">
    <span class="text-quiet">or write</span>
    <Menu
      name={staircases.length > 0 ? 'a staircase' : 'no staircase: easy enough'}
      choices={staircases}
      disabled={screen.searching || staircases.length === 0}
    />
    <Menu name="a layer" choices={layers} disabled={screen.searching} />
    <Menu name="for a student" choices={forWhom} disabled={screen.searching} />
    <a class="underline" href="#/song/{songId}/group">a group</a>
  </span>
  {#if count > 0}
    <button
      class="quiet-button"
      aria-pressed={screen.sideBySide}
      onclick={() => (screen.sideBySide = !screen.sideBySide)}>Side by side ({count})</button
    >
  {/if}
</div>
{#if screen.asked}
  <AnotherTuning {screen} {songId} asked={screen.asked} tunings={offers.data?.tunings ?? []} />
{/if}
