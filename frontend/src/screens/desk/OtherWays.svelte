<script lang="ts">
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { api, type Alternative } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import Fold from '../../ui/Fold.svelte'
  import { stepText } from '../../components/steps'
  import type { DeskState } from './desk.svelte'
  import { savedSong } from './saving'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const MOST_BARS = 8
  let open = $state(false)
  const queries = useQueryClient()
  const passage = $derived({
    ...desk.ends,
    part_index: desk.partIndex,
    grade: desk.query,
  })
  const tooLong = $derived(passage.last - passage.first >= MOST_BARS)
  const named = $derived.by(() => {
    const [first, last] = [desk.part?.bars[passage.first]?.number, desk.part?.bars[passage.last]?.number]
    if (desk.notes) return 'the chosen notes'
    return first === last ? `bar ${first}` : `bars ${first}-${last}`
  })
  const ways = createQuery(() => ({
    queryKey: ['alternatives', songId, desk.song?.revision, passage],
    queryFn: () => api.alternatives(songId, passage),
    enabled: open && !tooLong && !desk.textOpen,
    staleTime: Infinity,
  }))
  const use = createMutation(() => ({
    mutationFn: (way: Alternative) =>
      savedSong(queries, desk.song!, () => api.save(songId, ways.data!.revision, way.text)),
  }))
</script>

<section class="mt-5 border-t border-contour pt-3" aria-label="Other ways to play it">
  <Fold title="Other ways to play {named}" class="font-bold" bind:open>
    <div class="font-normal">
      {#if desk.textOpen}
        <p class="mt-2 text-quiet">Close the text first: ways are found for what is saved.</p>
      {:else if tooLong}
        <p class="mt-2 text-quiet">Choose at most {MOST_BARS} bars.</p>
      {:else if ways.isError}
        <ErrorNote message={ways.error.message} />
      {:else if ways.isPending}
        <p class="mt-2 text-quiet" role="status">Trying places and fingers …</p>
      {:else}
        {#if use.isError}<ErrorNote message={use.error.message} />{/if}
        {#if ways.data.schools_agree}<p class="mt-2 text-sm text-quiet">
            Keeping fingers down or moving the hand: both schools finger it as written.
          </p>{/if}
        {#if ways.data.nothing_easier}<p class="mt-2 text-sm text-quiet">
            {ways.data.alternatives.length > 1
              ? 'Nothing easier was found: what follows is as hard as written, or harder.'
              : 'Every shape here lies where everybody plays it, with the fingers it is taught with.'}
          </p>{/if}
        <ul class="mt-1">
          {#each ways.data.alternatives as way, index (index)}
            <li class="border-b border-contour py-2.5 last:border-b-0" data-way={way.title}>
              <div class="flex items-baseline gap-3">
                <span class="grow font-bold">{way.title}</span>
                <span class="font-bold whitespace-nowrap tabular-nums">Step {stepText(way.step)}</span>
              </div>
              <p class="text-sm leading-snug">{way.sentence}</p>
              {#if index > 0}
                <Fold
                  class="mt-1 text-sm"
                  title="the tab, and what it makes of the song: Step {stepText(way.song_step)}"
                >
                  <pre
                    class="mt-1 overflow-x-auto font-mono text-[12px] leading-tight"
                    tabindex="-1">{way.tab}</pre>
                </Fold>
                <button
                  class="mt-1.5 text-sm underline disabled:no-underline"
                  disabled={use.isPending}
                  onclick={() => use.mutate(way)}>Play it this way: saved as a new writing</button
                >
              {/if}
            </li>
          {/each}
        </ul>
      {/if}
    </div>
  </Fold>
</section>
