<script lang="ts">
  import Fold from '../../ui/Fold.svelte'
  import type { Version } from '../../api/client'
  import { stepText } from '../../components/steps'

  let { version }: { version: Version } = $props()
  const after = $derived(version.version.parts[0])
</script>

{#if version.blocking.length > 0}
  <section class="mt-4 border-l-4 border-past-hand pl-3" aria-label="Why not easier">
    <h3 class="mb-1">
      {version.student
        ? `What ${version.student} cannot play yet`
        : `Why it stays at Step ${stepText(after.step)}`}
    </h3>
    <ul class="space-y-2">
      {#each version.blocking as row (row.bar)}
        {@const best = row.tried
          .filter((tried) => tried.step < row.step - 0.01)
          .sort((a, b) => a.step - b.step)}
        <li>
          {#if row.limit}Bar {row.bar} asks for more {row.measure}: Step {stepText(row.step)}, past {row.limit}.{:else}Bar
            {row.bar} stays at Step {stepText(row.step)}, by {row.measure}.{/if}
          <Fold class="text-sm text-quiet" title="What each kind of change could still do">
            <ul>
              {#each row.tried as tried (tried.kind)}<li>{tried.does}: Step {stepText(tried.step)}</li>{/each}
            </ul>
          </Fold>
          {#if best.length > 0}<span class="text-sm text-quiet"
              >Best: {best[0].does}, to Step {stepText(best[0].step)}.</span
            >{/if}
        </li>
      {/each}
    </ul>
  </section>
{/if}
