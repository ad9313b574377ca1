<script lang="ts">
  import { untrack } from 'svelte'
  import { api, type Version } from '../../api/client'

  let { version, onsave }: { version: Version; onsave: (change: Promise<Version>) => void } = $props()
  const bars = $derived(version.version.parts[0].bars)
  let open = $state(false)
  let bar = $state(0)
  let tab = $state('')
  let failure = $state('')

  async function fetchBar(index: number): Promise<void> {
    failure = ''
    bar = index
    try {
      tab = (await api.versionBar(version.id, index)).tab
    } catch (error) {
      failure = error instanceof Error ? error.message : String(error)
    }
  }

  $effect(() => {
    if (open && untrack(() => tab === '')) void fetchBar(untrack(() => bar))
  })
</script>

<details class="mt-6 border-t border-contour pt-3" bind:open>
  <summary class="cursor-pointer font-bold">Change a bar by hand</summary>
  <label class="mt-2 flex items-center gap-2 text-quiet">
    bar
    <select class="field text-ink" value={String(bar)} onchange={(event) => void fetchBar(Number(event.currentTarget.value))} aria-label="Bar to change by hand">
      {#each bars as each (each.index)}<option value={String(each.index)}>{each.number}</option>{/each}
    </select>
  </label>
  <textarea class="mt-2 w-full resize-y overflow-x-auto border border-contour bg-raised p-2 font-mono text-[13px] leading-snug whitespace-pre" rows="9" spellcheck="false" bind:value={tab} aria-label="Tab of the bar"></textarea>
  {#if failure}<p class="text-past-hand" role="alert">{failure}</p>{/if}
  <button class="mt-1 underline" disabled={tab.trim() === ''} onclick={() => onsave(api.changeVersionBar(version.id, bar, tab))}>Put it in: an edit like any other</button>
</details>
