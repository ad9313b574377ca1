<!-- Which of several guitars become parts of the song. -->
<script lang="ts">
  import { createMutation } from '@tanstack/svelte-query'
  import { api, type Part } from '../../api/client'

  let { text, parts, onchange }: { text: string; parts: Part[]; onchange: (text: string) => void } = $props()
  const keep = createMutation(() => ({
    mutationFn: (kept: number[]) => api.keepParts(text, kept),
    onSuccess: (changed) => onchange(changed.text),
  }))
  const all = $derived(parts.map((_, at) => at))
</script>

<p class="text-quiet" role="group" aria-label="Parts">
  {#each parts as part, at (at)}
    <span class="mr-4 whitespace-nowrap"
      ><span class="text-ink">{part.name || `Part ${at + 1}`}</span>, {part.tuning}
      <button class="underline" disabled={keep.isPending} onclick={() => keep.mutate([at])}
        >take only this</button
      >
      <button
        class="underline"
        disabled={keep.isPending}
        onclick={() => keep.mutate(all.filter((other) => other !== at))}>leave out</button
      ></span
    >
  {/each}
  {#if keep.isError}<span class="text-past-hand" role="alert">{keep.error.message}</span>{/if}
</p>
