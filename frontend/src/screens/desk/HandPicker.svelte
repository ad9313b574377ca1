<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import { present } from '../students/students'
  import type { DeskState } from './desk.svelte'

  let { desk }: { desk: DeskState } = $props()
  const students = createQuery(() => ({ queryKey: ['students'], queryFn: api.students }))
  const hands = $derived([
    ...present(students.data?.students).map((student) => ({
      name: student.name,
      span_mm: student.span_mm,
      little: student.little_finger ?? 'usual',
      thumb: student.thumb_over ?? false,
    })),
    ...Object.entries(students.data?.preset_spans_mm ?? {}).map(([name, span_mm]) => ({
      name: `${name} hand`,
      span_mm,
      little: 'usual' as const,
      thumb: false,
    })),
  ])
  const chosen = $derived(
    hands.find(
      (hand) =>
        hand.span_mm === desk.spanMm && hand.little === desk.littleFinger && hand.thumb === desk.thumbOver,
    )?.name ?? 'other',
  )

  function choose(name: string): void {
    const hand = hands.find((each) => each.name === name)
    if (!hand) return
    desk.spanMm = hand.span_mm
    desk.littleFinger = hand.little
    desk.thumbOver = hand.thumb
  }

  function type(text: string): void {
    const span = Number(text)
    if (span >= 40 && span <= 200) desk.spanMm = span
  }
</script>

<label class="flex items-center gap-2 text-quiet">
  for
  <select
    class="field w-24 text-ink"
    aria-label="Whose hand"
    value={chosen}
    onchange={(event) => choose(event.currentTarget.value)}
  >
    {#each hands as hand (hand.name)}<option value={hand.name}>{hand.name}</option>{/each}
    <option value="other" hidden>another hand</option>
  </select>
</label>
<label class="flex items-center gap-1 text-quiet">
  <input
    class="field no-spin w-10 text-right text-ink"
    type="number"
    min="40"
    max="200"
    step="1"
    aria-label="Hand span in mm, index to little finger"
    value={desk.spanMm}
    oninput={(event) => type(event.currentTarget.value)}
  /> mm
</label>
<details class="relative">
  <summary
    class="cursor-pointer list-none text-quiet hover:text-ink"
    aria-label="What this hand is used to"
    title="What this hand is used to"
    >habits{desk.littleFinger !== 'usual' || desk.thumbOver ? ' *' : ''}</summary
  >
  <div class="absolute top-8 right-0 z-10 w-64 border border-contour bg-raised p-3">
    <label class="flex items-baseline justify-between gap-2">
      little finger
      <select class="field" bind:value={desk.littleFinger} aria-label="Little finger">
        <option value="usual">as usual</option><option value="avoided">avoided</option><option
          value="preferred">preferred</option
        >
      </select>
    </label>
    <label class="mt-2 flex items-center gap-2"
      ><input type="checkbox" class="accent-(--ink)" bind:checked={desk.thumbOver} /> the thumb may fret the bass</label
    >
  </div>
</details>
