<!-- One change on some bars: what applies there, with the Step it would give. -->
<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query'
  import { api, type PassageEnds, type Version } from '../../api/client'
  import ChangesThatApply from '../../components/ChangesThatApply.svelte'
  import Fold from '../../ui/Fold.svelte'
  import Tick from '../../ui/Tick.svelte'
  import Select from '../../ui/Select.svelte'
  import type { VersionsState } from './versions.svelte'

  let {
    screen,
    version,
    busy,
    onsave,
  }: {
    screen: VersionsState
    version: Version
    busy: boolean
    onsave: (change: () => Promise<Version>) => void
  } = $props()
  const part = $derived(version.version.parts[0])
  let open = $state(false)
  $effect(() => {
    if (screen.pickedTo !== null) open = true
  })
  const first = $derived(Math.min(screen.picked?.bar ?? 0, part.bars.length - 1))
  const last = $derived(Math.min(Math.max(screen.pickedTo?.bar ?? first, first), part.bars.length - 1))
  let notesAlone = $state(false)
  const ends: PassageEnds = $derived({
    first,
    last,
    first_event: notesAlone && screen.pickedTo ? (screen.picked?.event ?? null) : null,
    last_event: notesAlone ? (screen.pickedTo?.event ?? null) : null,
  })
  const offers = createQuery(() => ({
    queryKey: ['changes', version.id, version.edits.length, version.choice, ends],
    queryFn: () => api.changesOf(version.id, ends),
    enabled: open,
  }))
  const numbers = $derived(part.bars.map(({ index, number }) => ({ value: index, words: String(number) })))
</script>

<div class="mt-4">
  <Fold title="Ask for one change" class="font-bold" bind:open>
    <div class="font-normal">
      <div class="mt-2 flex items-center gap-2 text-quiet">
        bars
        <Select
          label="First bar to change"
          class="text-ink"
          value={first}
          options={numbers}
          onchange={(bar) => screen.pick(bar, 0, false)}
        />
        to
        <Select
          label="Last bar to change"
          class="text-ink"
          value={last}
          options={numbers.slice(first)}
          onchange={(bar) => (screen.pickedTo = { bar, event: part.bars[bar].events.length - 1 })}
        />
      </div>
      {#if screen.picked && screen.pickedTo}
        <Tick bind:checked={notesAlone}>only from the picked note to the other</Tick>
      {/if}
      <ChangesThatApply
        found={offers.data}
        error={offers.error}
        {busy}
        onask={({ kind, says }) => onsave(() => api.askForChange(version.id, { ...ends, kind, says }))}
      />
    </div>
  </Fold>
</div>
