<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import type { DeskState } from './desk.svelte'

  let { desk }: { desk: DeskState } = $props()
  const players = createQuery(() => ({ queryKey: ['players'], queryFn: api.players }))
  const hands = $derived([
    ...(players.data?.players ?? []).map((player) => ({ name: player.name, span_mm: player.span_mm, little: player.little_finger, thumb: player.thumb_over })),
    ...Object.entries(players.data?.preset_spans_mm ?? {}).map(([name, span_mm]) => ({ name: `${name} hand`, span_mm, little: 'usual' as const, thumb: false })),
  ])
  const chosen = $derived(hands.find((hand) => hand.span_mm === desk.spanMm && hand.little === desk.littleFinger && hand.thumb === desk.thumbOver)?.name ?? 'other')

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
  <select class="field text-ink" aria-label="Whose hand" value={chosen} onchange={(event) => choose(event.currentTarget.value)}>
    {#each hands as hand (hand.name)}<option value={hand.name}>{hand.name}</option>{/each}
    <option value="other" hidden>another hand</option>
  </select>
</label>
<label class="flex items-center gap-1 text-quiet">
  <input class="field no-spin w-11 text-right text-ink" type="number" min="40" max="200" step="1" aria-label="Hand span in mm, index to little finger" value={desk.spanMm} oninput={(event) => type(event.currentTarget.value)} /> mm
</label>
