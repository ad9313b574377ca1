<!-- Another tuning and capo by name: what of the part could stay on it, and where that would sit. -->
<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query'
  import { api, type TuningAndCapo } from '../../api/client'
  import TuningField from '../../components/TuningField.svelte'
  import Select from '../../ui/Select.svelte'
  import { SETUP_WORDS, type VersionsState } from './versions.svelte'

  interface Props {
    screen: VersionsState
    songId: number
    asked: TuningAndCapo
    tunings: string[]
  }
  let { screen, songId, asked, tunings }: Props = $props()
  const CAPOS = Array.from({ length: 13 }, (_, fret) => ({
    value: fret,
    words: fret ? `capo ${fret}` : 'no capo',
  }))
  const offers = createQuery(() => ({
    queryKey: ['setups', songId, screen.partIndex, asked],
    queryFn: () => api.setups(songId, screen.partIndex, asked),
  }))
  const setups = $derived(
    (offers.data?.setups ?? []).map(({ wish, sits }) => ({
      value: wish,
      words: `${SETUP_WORDS[wish]} (${sits})`,
    })),
  )
  // The first that can stay is proposed; nothing that cannot be had is asked for.
  $effect(() => {
    if (!offers.data) return
    if (!setups.some(({ value }) => value === screen.setup)) screen.setup = setups[0]?.value ?? ''
  })
</script>

<div class="tool-row text-[15px]" role="group" aria-label="Another tuning or capo">
  <span class="text-quiet">tuned to</span>
  <TuningField
    label="Tuning"
    value={asked.tuning}
    {tunings}
    onchange={(tuning) => (screen.asked = { ...asked, tuning })}
  />
  <Select
    label="Capo"
    value={asked.capo}
    options={CAPOS}
    onchange={(capo) => (screen.asked = { ...asked, capo })}
  />
  {#if offers.isError}
    <span class="text-past-hand" role="status">{offers.error.message}</span>
  {:else if setups.length > 0}
    <Select label="What stays" class="max-w-96" bind:value={screen.setup} options={setups} />
  {:else if offers.data}
    <span class="text-quiet" role="status">Neither the shapes nor the music have a place there.</span>
  {/if}
</div>
