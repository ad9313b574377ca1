<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import Fold from '../../ui/Fold.svelte'
  import type { DeskState } from './desk.svelte'
  import { savedSong } from './saving'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  let name = $state('')
  let opened = $state(false)
  const own = $derived(desk.part?.readings.filter((reading) => reading.bar === desk.bar) ?? [])
  $effect(() => {
    if (own.length > 0) opened = true
  })
  const place = $derived({ based_on: desk.song!.revision, part_index: desk.partIndex, bar: desk.bar })
  const change = createMutation(() => ({
    mutationFn: (begin: { name: string; begins: boolean }) => {
      const write = begin.begins ? api.beginReading : api.useReading
      return savedSong(queries, desk.song!, () => write(songId, { ...place, name: begin.name }))
    },
    onSuccess: () => void (name = ''),
  }))
</script>

<section class="mt-4 border-t border-contour pt-3" aria-label="Readings of this bar">
  <Fold
    bind:open={opened}
    title={own.length > 0 ? `${own.length} readings of this bar` : 'Another reading of this bar'}
  >
    {#if change.isError}<ErrorNote message={change.error.message} />{/if}
    <ul class="mt-1 space-y-1">
      {#each own as reading, at (at)}
        <li class="flex items-baseline gap-3">
          <span class="grow">{reading.name}</span>
          {#if reading.in_use}<span class="text-sm text-quiet">in use</span>
          {:else}<button
              class="text-sm underline"
              disabled={desk.textOpen || change.isPending}
              onclick={() => change.mutate({ name: reading.name, begins: false })}>Use</button
            >{/if}
        </li>
      {/each}
    </ul>
    <form
      class="mt-2 flex items-baseline gap-2"
      onsubmit={(event) => {
        event.preventDefault()
        change.mutate({ name, begins: true })
      }}
    >
      <input
        class="field min-w-0 grow"
        bind:value={name}
        maxlength="60"
        placeholder="who plays it so, or where"
        aria-label="Name of the new reading"
      />
      <button
        class="text-sm underline disabled:no-underline"
        disabled={name.trim() === '' || desk.textOpen || change.isPending}>Begin it</button
      >
    </form>
    <p class="mt-1 text-sm text-quiet">
      The bar as it stands is kept by name; the new reading takes its place, to be changed in the text.
    </p>
  </Fold>
</section>
