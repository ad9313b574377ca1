<script lang="ts">
  import type { Import } from '../../api/client'

  let { imported }: { imported: Import & { name: string } } = $props()
  const FEW = 8
  const groups = $derived([
    { name: 'Read', rows: imported.read, warns: false },
    { name: 'Guessed, please check', rows: imported.guessed, warns: false },
    { name: 'Not placed', rows: imported.not_placed, warns: true },
    { name: 'Reads otherwise in the text', rows: imported.changed, warns: true },
  ])
</script>

<section class="mb-5 border-b border-contour pb-4" aria-label="What {imported.name} says">
  <h2 class="text-lg">{imported.name}</h2>
  <p class="text-quiet">
    Nothing is saved yet. The text on the left is what it became; change it as you like.
  </p>
  {#each groups as group (group.name)}
    {#if group.rows.length > 0}
      <h3 class="mt-2">{group.name}</h3>
      <ul class={group.warns ? 'border-l-4 border-past-hand pl-3' : 'text-quiet'}>
        {#each group.rows.slice(0, FEW) as row, index (index)}<li>{row}</li>{/each}
        {#if group.rows.length > FEW}<li>and {group.rows.length - FEW} more</li>{/if}
      </ul>
    {/if}
  {/each}
</section>
