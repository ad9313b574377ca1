<script lang="ts">
  import type { Problem } from '../api/client'

  let { message, problems = [] }: { message: string; problems?: Problem[] } = $props()
</script>

<div role="alert" class="border-l-4 border-past-hand pl-3">
  {#if problems.length === 0}
    <p>{message}</p>
  {:else}
    <ul class="space-y-1">
      {#each problems as problem, index (index)}
        <li>
          <span class="font-mono text-sm text-quiet"
            >line {problem.place.line}, column {problem.place.column}</span
          ><br />{problem.message}
        </li>
      {/each}
    </ul>
  {/if}
</div>
