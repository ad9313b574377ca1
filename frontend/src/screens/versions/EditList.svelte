<script lang="ts">
  import type { Version } from '../../api/client'
  import { choice, grouped, type VersionsState } from './versions.svelte'

  let { screen, version, onchoice }: { screen: VersionsState; version: Version; onchoice: (refused: number[]) => void } = $props()
  const groups = $derived(grouped(version.edits, screen.grouping))
  const refused = $derived(version.edits.filter((edit) => edit.refused).length)
</script>

<div class="mt-6 flex items-baseline justify-between">
  <h3>{version.edits.length} edits{refused ? `, ${refused} refused` : ''}</h3>
  <label class="text-sm text-quiet">
    by <select class="field text-ink" bind:value={screen.grouping}><option value="kind">kind</option><option value="bar">bar</option></select>
  </label>
</div>
<ul class="mt-2">
  {#each groups as group (group.name)}
    <li class="border-t border-contour py-2" data-group={group.name}>
      <div class="flex items-baseline gap-2">
        <span class="grow first-letter:uppercase" class:line-through={group.refused}>{group.name}</span>
        <span class="text-sm text-quiet tabular-nums">{group.edits.length > 1 ? `${group.edits.length} x, ` : ''}{group.loss.toFixed(1)} points</span>
        <button class="text-sm underline" onclick={() => onchoice(choice(version, group.edits, !group.refused))}>
          {group.refused ? 'Keep' : 'Refuse'}{group.edits.length > 1 ? ' all' : ''}
        </button>
      </div>
      <details class="mt-1 text-sm">
        <summary class="cursor-pointer text-quiet">{screen.grouping === 'kind' ? `bar${group.edits.some((edit) => edit.bars[0] !== group.edits[0].bars[0]) ? 's' : ''} ${[...new Set(group.edits.flatMap((edit) => edit.bars))].sort((a, b) => a - b).join(', ')}` : 'what and why'}</summary>
        <ul class="mt-1 space-y-2 pl-3">
          {#each group.edits as edit (edit.id)}
            <li class:line-through={edit.refused}>
              <span class="text-quiet">{edit.does}.</span> {edit.reason} <span class="text-quiet">{edit.effect}; {edit.loss.toFixed(2)} points.</span>
              <button class="underline" onclick={() => onchoice(choice(version, [edit], !edit.refused))}>{edit.refused ? 'Keep' : 'Refuse'}</button>
            </li>
          {/each}
        </ul>
      </details>
    </li>
  {/each}
</ul>
