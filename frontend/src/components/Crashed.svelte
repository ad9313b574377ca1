<!-- A screen that failed to draw itself says so; what was typed is kept as drafts. -->
<script lang="ts">
  import ErrorNote from './ErrorNote.svelte'

  let { error, again }: { error: unknown; again: () => void } = $props()
</script>

<div class="p-8">
  <ErrorNote
    message="This screen could not be shown ({error instanceof Error
      ? error.message
      : String(error)}). All that is stored is safe, and so is what you typed."
  />
  <p class="mt-4 flex gap-4">
    <button class="quiet-button" onclick={again}>Try again</button>
    <a class="underline" href="#/" onclick={() => setTimeout(again)}>Back to the songs</a>
  </p>
</div>
