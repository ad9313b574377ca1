<!-- Whose finger takes each note of the chosen moment: pinned by a click or a key, freed by another. -->
<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api, type FingerIn, type Note } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { stepText } from '../../components/steps'
  import type { DeskState } from './desk.svelte'
  import { savedSong } from './saving'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const FINGERS = ['1', '2', '3', '4', 'T'] as const
  const queries = useQueryClient()
  const fretted = $derived(
    desk.chosenEvent?.notes.filter((note) => note.fret > 0 && !note.tied && note.finger !== null) ?? [],
  )
  const chosen = $derived(fretted.find((note) => note.string === desk.string) ?? fretted[0])
  const bar = $derived(desk.part?.bars[desk.bar])
  const pin = createMutation(() => ({
    mutationFn: (body: FingerIn) => {
      const before = desk.song!
      const was = desk.part!.step
      return savedSong(
        queries,
        before,
        () => api.pinFinger(songId, body),
        (saved) => {
          const now = saved.analysis?.parts[body.part_index].step ?? was
          const cost =
            Math.abs(now - was) < 0.05 ? 'as hard as before' : `Step ${stepText(was)} became ${stepText(now)}`
          const same = saved.analysis?.parts[body.part_index].bars[body.bar].same_bars ?? []
          const here = body.finger ? `Finger ${body.finger} is pinned` : 'The finger is free again'
          const also = same.length > 0 ? `, also in bar${same.length > 1 ? 's' : ''} ${same.join(', ')}` : ''
          return `${here}${also}: ${cost}`
        },
      )
    },
  }))

  function choose(note: Note, finger: FingerIn['finger']): void {
    if (pin.isPending || desk.textOpen) return
    pin.mutate({
      based_on: desk.song!.revision,
      part_index: desk.partIndex,
      bar: desk.bar,
      event: desk.event,
      string: note.string,
      finger,
      grade: desk.query,
    })
  }

  /** From the keys of the Desk: 1 to 4 and T pin the chosen note, 0 frees it. */
  export function press(key: string): void {
    if (chosen) choose(chosen, key === '0' ? null : (key as FingerIn['finger']))
  }
</script>

{#if fretted.length > 0}
  <ul class="mt-1 space-y-0.5" aria-label="Fingers">
    {#each fretted as note (note.string)}
      <li class="flex items-center gap-1">
        <button
          class="min-h-7 grow text-left text-sm"
          class:font-bold={note === chosen && fretted.length > 1}
          onclick={() => (desk.string = note.string)}>string {note.string}, fret {note.fret}</button
        >
        {#each FINGERS as finger (finger)}
          {@const on = note.finger === finger}
          <button
            class="h-7 w-7 rounded-full border text-sm tabular-nums {on
              ? note.finger_pinned
                ? 'border-ink bg-ink text-paper'
                : 'border-ink'
              : 'border-transparent text-quiet hover:border-contour'}"
            aria-pressed={on && note.finger_pinned}
            aria-label="{finger === 'T' ? 'Thumb' : `Finger ${finger}`} for string {note.string}{on
              ? note.finger_pinned
                ? ', pinned'
                : ', as found'
              : ''}"
            disabled={pin.isPending || desk.textOpen}
            onclick={() => choose(note, on && note.finger_pinned ? null : finger)}>{finger}</button
          >
        {/each}
      </li>
    {/each}
  </ul>
  {#if bar && bar.pinned_as !== null}
    <p class="mt-1 text-sm text-quiet">Fingers as pinned in bar {bar.pinned_as}, which is the same.</p>
  {/if}
  {#if pin.isError}<ErrorNote message={pin.error.message} />{/if}
{/if}
