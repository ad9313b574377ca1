<script lang="ts">
  import { createMutation, useQueryClient } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import TipButton from '../../ui/TipButton.svelte'
  import type { DeskState } from './desk.svelte'
  import { savedSong } from './saving'
  import { tappedTempo } from './tap'

  let { desk, songId }: { desk: DeskState; songId: number } = $props()
  const queries = useQueryClient()
  const PAUSE_MS = 2500
  let taps = $state.raw<number[]>([])
  const tempo = $derived(tappedTempo(taps))
  const write = createMutation(() => ({
    mutationFn: (tapped: number) => {
      const before = desk.song!
      return savedSong(queries, before, () => api.writeTempo(songId, before.revision, tapped))
    },
    onSuccess: () => {
      taps = []
      desk.percent = 100
    },
  }))

  export function tap(): void {
    const now = performance.now()
    const fresh = taps.length > 0 && now - taps[taps.length - 1] > PAUSE_MS
    taps = [...(fresh ? [] : taps), now].slice(-9)
  }
</script>

<TipButton
  class="quiet-button !px-2.5 text-sm"
  onclick={tap}
  tip="Tap along with the recording, one tap a quarter note">Tap</TipButton
>
{#if taps.length > 0}
  <span class="text-sm text-quiet" role="status">{tempo === null ? 'again …' : ''}</span>
  {#if tempo !== null}
    <button
      class="text-sm underline"
      disabled={desk.textOpen || write.isPending}
      onclick={() => write.mutate(tempo)}>Write {tempo}</button
    >
  {/if}
{/if}
