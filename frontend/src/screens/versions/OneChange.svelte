<!-- One change on some bars: what applies there, with the Step it would give. -->
<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query'
  import { api, type Version } from '../../api/client'
  import { stepText } from '../../components/steps'
  import Fold from '../../ui/Fold.svelte'
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
  let chosenLast = $state<number | null>(null)
  const first = $derived(Math.min(screen.picked?.bar ?? 0, part.bars.length - 1))
  const last = $derived(Math.min(Math.max(chosenLast ?? first, first), part.bars.length - 1))
  const offers = createQuery(() => ({
    queryKey: ['changes', version.id, version.edits.length, version.choice, first, last],
    queryFn: () => api.changesOf(version.id, first, last),
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
          onchange={(bar) => (screen.picked = { bar, event: 0 })}
        />
        to
        <Select
          label="Last bar to change"
          class="text-ink"
          value={last}
          options={numbers.slice(first)}
          onchange={(bar) => (chosenLast = bar)}
        />
      </div>
      {#if offers.isError}
        <p class="mt-2 text-past-hand">{offers.error.message}</p>
      {:else if offers.data}
        {@const now = offers.data}
        <p class="mt-2 text-sm text-quiet">
          Now Step {stepText(now.bar_step)} there, the song {stepText(now.step)}. What applies here, and what
          it would give:
        </p>
        <ul class="mt-1" aria-label="Changes that apply">
          {#each now.changes as change (`${change.kind} ${change.says}`)}
            <li>
              <button
                class="flex w-full items-baseline justify-between gap-3 border-b border-contour py-1.5 text-left hover:bg-raised"
                disabled={busy}
                onclick={() =>
                  onsave(() =>
                    api.askForChange(version.id, { first, last, kind: change.kind, says: change.says }),
                  )}
              >
                <span class="first-letter:uppercase">{change.says}</span>
                <span class="shrink-0 text-sm whitespace-nowrap tabular-nums"
                  >{stepText(change.bar_step)}, song {stepText(change.step)}</span
                >
              </button>
            </li>
          {:else}
            <li class="text-quiet">Nothing applies here.</li>
          {/each}
        </ul>
      {:else}
        <p class="mt-2 text-quiet" role="status">Trying what applies …</p>
      {/if}
    </div>
  </Fold>
</div>
