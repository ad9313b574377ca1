<script lang="ts">
  import Fold from '../../ui/Fold.svelte'
  import { api, type Version } from '../../api/client'

  let {
    version,
    bar,
    onsave,
  }: { version: Version; bar: number; onsave: (change: () => Promise<Version>) => void } = $props()
  let tab = $state('')
  let failure = $state('')

  let open = $state(false)
  $effect(() => {
    if (open) void fetchBar()
  })

  async function fetchBar(): Promise<void> {
    if (tab) return
    try {
      tab = (await api.versionBar(version.id, bar)).tab
    } catch (error) {
      failure = error instanceof Error ? error.message : String(error)
    }
  }
</script>

<Fold class="mt-2 text-quiet" title="the whole bar as text" bind:open>
  <textarea
    class="mt-2 w-full resize-y overflow-x-auto border border-contour bg-raised p-2 font-mono text-[13px] leading-snug whitespace-pre"
    rows="9"
    spellcheck="false"
    bind:value={tab}
    aria-label="Tab of the bar"></textarea>
  {#if failure}<p class="text-past-hand" role="alert">{failure}</p>{/if}
  <button
    class="mt-1 underline"
    disabled={tab.trim() === ''}
    onclick={() => onsave(() => api.changeVersionBar(version.id, bar, tab))}
    >Put it in: a change like any other</button
  >
</Fold>
