<script lang="ts">
  import type { Edit, Version } from '../../api/client'
  import { alikes, barsOf, choice, grouped, type VersionsState } from './versions.svelte'

  let {
    screen,
    version,
    busy,
    onchoice,
  }: { screen: VersionsState; version: Version; busy: boolean; onchoice: (refused: number[]) => void } =
    $props()
  const groups = $derived(grouped(version.edits, screen.grouping))
  const refused = $derived(version.edits.filter((edit) => edit.refused).length)
</script>

{#snippet toggle(edits: Edit[], words: string)}
  {@const gone = edits.every((edit) => edit.refused)}
  <button
    class="shrink-0 text-sm underline"
    disabled={busy}
    onclick={() => onchoice(choice(version, edits, !gone))}>{gone ? 'Keep' : 'Refuse'}{words}</button
  >
{/snippet}

<div class="mt-6 flex items-baseline justify-between">
  <h3>
    {version.edits.length} edit{version.edits.length === 1 ? '' : 's'}{refused ? `, ${refused} refused` : ''}
  </h3>
  <label class="text-sm text-quiet">
    by <select class="field text-ink" bind:value={screen.grouping}
      ><option value="kind">kind</option><option value="bar">bar</option></select
    >
  </label>
</div>
<ul class="mt-2">
  {#each groups as group (group.name)}
    <li class="border-t border-contour py-2" data-group={group.name}>
      <div class="flex items-baseline gap-2">
        <span class="grow first-letter:uppercase" class:line-through={group.refused}>{group.name}</span>
        <span class="shrink-0 text-sm text-quiet tabular-nums">{group.loss.toFixed(1)} points</span>
        {@render toggle(group.edits, group.edits.length > 1 ? ' all' : '')}
      </div>
      <details class="mt-1 text-sm">
        <summary class="cursor-pointer text-quiet"
          >{screen.grouping === 'kind' ? barsOf(group.edits) : 'what and why'}</summary
        >
        <ul class="mt-1 space-y-2 pl-3">
          {#each alikes(group.edits) as row (row[0].id)}
            <li>
              <span class:line-through={row.every((edit) => edit.refused)}>
                {#if screen.grouping === 'bar'}<span class="inline-block text-quiet first-letter:uppercase"
                    >{row[0].does}.</span
                  >{/if}
                {row[0].reason}
                <span class="inline-block text-quiet first-letter:uppercase"
                  >{row[0].effect}; {row.reduce((sum, edit) => sum + edit.loss, 0).toFixed(1)} points.</span
                >
              </span>
              {@render toggle(row, '')}
              {#if row.length > 1}
                <details class="mt-0.5 pl-3">
                  <summary class="cursor-pointer text-quiet">{row.length} times, in {barsOf(row)}</summary>
                  <ul>
                    {#each row as edit (edit.id)}
                      <li class="flex gap-2">
                        <span
                          class="inline-block grow first-letter:uppercase"
                          class:line-through={edit.refused}>{edit.effect}; {edit.loss.toFixed(2)} points</span
                        >{@render toggle([edit], '')}
                      </li>
                    {/each}
                  </ul>
                </details>
              {/if}
            </li>
          {/each}
        </ul>
      </details>
    </li>
  {/each}
</ul>
