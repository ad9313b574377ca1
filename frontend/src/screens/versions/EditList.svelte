<script lang="ts">
  import Fold from '../../ui/Fold.svelte'
  import Select from '../../ui/Select.svelte'
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
  const counted = $derived(alikes(version.edits).length) // as a teacher counts
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
    {counted} change{counted === 1 ? '' : 's'}{refused ? `, ${refused} refused` : ''}
  </h3>
  <span class="flex items-center gap-2 text-sm text-quiet">
    by <Select
      label="Listed by"
      class="text-ink"
      bind:value={screen.grouping}
      options={[
        { value: 'kind', words: 'kind' },
        { value: 'bar', words: 'bar' },
      ]}
    />
  </span>
</div>
<ul class="mt-2">
  {#each groups as group (group.name)}
    <li class="border-t border-contour py-2" data-group={group.name}>
      <div class="flex items-baseline gap-2">
        <span class="grow first-letter:uppercase" class:line-through={group.refused}>{group.name}</span>
        <span class="shrink-0 text-sm text-quiet tabular-nums">costs {group.loss.toFixed(1)} %</span>
        {@render toggle(group.edits, group.edits.length > 1 ? ' all' : '')}
      </div>
      <Fold
        class="mt-1 text-sm text-quiet"
        title={screen.grouping === 'kind' ? barsOf(group.edits) : 'what and why'}
      >
        <ul class="mt-1 space-y-2 pl-3 text-ink">
          {#each alikes(group.edits) as row (row[0].id)}
            <li>
              <span class:line-through={row.every((edit) => edit.refused)}>
                {#if screen.grouping === 'bar'}<span class="inline-block text-quiet first-letter:uppercase"
                    >{row[0].does}.</span
                  >{/if}
                {row[0].reason}
                <span class="inline-block text-quiet first-letter:uppercase"
                  >{row[0].effect}; costs {row.reduce((sum, edit) => sum + edit.loss, 0).toFixed(1)} %.</span
                >
              </span>
              {@render toggle(row, '')}
              {#if row.length > 1}
                <Fold class="mt-0.5 pl-3" title="{row.length} times, in {barsOf(row)}">
                  <ul>
                    {#each row as edit (edit.id)}
                      <li class="flex gap-2">
                        <span
                          class="inline-block grow first-letter:uppercase"
                          class:line-through={edit.refused}
                          >{edit.effect}; costs {edit.loss.toFixed(2)} %</span
                        >{@render toggle([edit], '')}
                      </li>
                    {/each}
                  </ul>
                </Fold>
              {/if}
            </li>
          {/each}
        </ul>
      </Fold>
    </li>
  {/each}
</ul>
