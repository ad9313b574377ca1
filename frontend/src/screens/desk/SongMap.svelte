<!-- The sections as they are played, each a way to its first bar, with how often and how long. -->
<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api, type RoleIn } from '../../api/client'
  import SectionRoles from '../../components/SectionRoles.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { sectionTint } from '../../components/sections'
  import Fold from '../../ui/Fold.svelte'
  import type { DeskState } from './desk.svelte'
  import { savedSong } from './saving'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  const order = $derived(
    desk.analysis!.order.length > 0
      ? desk.analysis!.order.join(', ')
      : desk.part!.sections.map(({ name }) => name).join(', '),
  )
  let typed = $state<string | null>(null)
  const write = createMutation(() => ({
    mutationFn: (text: string) => {
      const before = desk.song!
      return savedSong(queries, before, () => api.writeOrder(songId, before.revision, text))
    },
    onSuccess: () => void (typed = null),
  }))
  const give = createMutation(() => ({
    mutationFn: (body: RoleIn) => savedSong(queries, desk.song!, () => api.giveRole(songId, body)),
  }))
  const part = $derived(desk.part!)
  const often = $derived(
    part.map.reduce(
      (counts, { name, times }) => counts.set(name, (counts.get(name) ?? 0) + times),
      new Map<string, number>(),
    ),
  )
  const mentioned = (name: string) => part.map.filter((passage) => passage.name === name).length > 1

  /** `2:05`. */
  function clock(seconds: number): string {
    const whole = Math.round(seconds)
    return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
  }
</script>

{#if part.map.length > 1 || part.map[0]?.name}
  <h3 class="mt-4 mb-1 flex items-baseline justify-between">
    <span>Song map</span><span class="font-normal text-quiet">{clock(part.seconds)} minutes as played</span>
  </h3>
  <ol aria-label="Sections as played">
    {#each part.map as passage, at (at)}
      <li class="border-b border-contour">
        <button
          class="grid min-h-8 w-full grid-cols-[14px_1fr_auto_3.2rem] items-baseline gap-x-2 text-left hover:bg-raised"
          onclick={() => desk.choose(passage.first_bar, desk.firstNote(passage.first_bar))}
        >
          <span
            class="h-3 w-3 self-center"
            style:background={passage.name ? sectionTint(part.sections, passage.name) : 'transparent'}
          ></span>
          <span>
            {passage.name || 'before the first section'}{#if passage.like}<span
                class="block text-sm text-quiet"
                >as {passage.like}, other: bar{passage.changed_bars.length > 1 ? 's' : ''}
                {passage.changed_bars.join(', ')}</span
              >{/if}{#if passage.role}<span class="ml-2 text-sm text-quiet" data-role
                >{[passage.role, ...passage.sound].join(', ')}{passage.role_said ? '' : ' (guessed)'}</span
              >{/if}
          </span>
          <span class="text-quiet"
            >{passage.counted
              ? passage.times > 1
                ? `${passage.times} times`
                : ''
              : 'several times, played once'}{mentioned(passage.name)
              ? ` (${often.get(passage.name)} in all)`
              : ''}</span
          >
          <span class="text-right text-quiet tabular-nums">{clock(passage.seconds)}</span>
        </button>
      </li>
    {/each}
  </ol>
  <Fold class="mt-1 text-quiet" title="another order">
    <form
      class="flex items-end gap-2 text-ink"
      onsubmit={(event) => (event.preventDefault(), write.mutate(typed ?? order))}
    >
      <label class="grow text-sm text-quiet"
        >sections as played, with commas; a count after x: Verse x2
        <input
          class="field block w-full text-base text-ink"
          value={typed ?? order}
          maxlength="2000"
          oninput={(event) => (typed = event.currentTarget.value)}
          aria-label="Sections as played"
        /></label
      >
      <button
        class="quiet-button"
        disabled={typed === null || typed === order || write.isPending || desk.textOpen}
        >Save the order</button
      >
    </form>
    {#if write.isError}<ErrorNote message={write.error.message} />{/if}
  </Fold>
  {#if part.map.some(({ name }) => name)}
    <Fold class="text-quiet" title="what each section is">
      <SectionRoles
        {part}
        busy={give.isPending || desk.textOpen}
        ongive={(first_bar, role) =>
          give.mutate({
            based_on: desk.song!.revision,
            part_index: desk.partIndex,
            first_bar,
            role,
          })}
      />
      {#if give.isError}<ErrorNote message={give.error.message} />{/if}
    </Fold>
  {/if}
{/if}
{#if part.map_problems.length > 0}
  <ul class="mt-2 space-y-1 border-l-4 border-past-hand pl-3" aria-label="What of the map cannot be played">
    {#each part.map_problems as words, at (at)}<li class="first-letter:uppercase">{words}.</li>{/each}
  </ul>
{/if}
