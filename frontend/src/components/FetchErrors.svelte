<!-- What could not be fetched of all that a screen asks for: told once, never waited for in silence. -->
<script lang="ts">
  import ErrorNote from './ErrorNote.svelte'

  let { of }: { of: readonly { isError: boolean; error: Error | null }[] } = $props()
  const messages = $derived([
    ...new Set(of.flatMap(({ isError, error }) => (isError && error ? [error.message] : []))),
  ])
</script>

{#each messages as message (message)}<ErrorNote {message} />{/each}
