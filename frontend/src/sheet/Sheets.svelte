<!-- While the browser prints, what the open screen offers stands here, and the screen itself is hidden. -->
<script lang="ts">
  import { flushSync } from 'svelte'
  import Sheet from './Sheet.svelte'
  import LadderSheet from './LadderSheet.svelte'
  import LessonSheet from './LessonSheet.svelte'
  import { sheetsNow } from './sheet'

  let contents = $state.raw<ReturnType<typeof sheetsNow>>([])

  function begin(): void {
    flushSync(() => (contents = sheetsNow()))
    document.documentElement.toggleAttribute('data-sheet', contents.length > 0)
  }

  function end(): void {
    contents = []
    document.documentElement.removeAttribute('data-sheet')
  }
</script>

<svelte:window onbeforeprint={begin} onafterprint={end} />
{#if contents.length > 0}
  <div class="sheets" aria-label="The sheet">
    {#each contents as content (content)}{#if 'rungs' in content}<LadderSheet
          {content}
        />{:else if 'blocks' in content}<LessonSheet {content} />{:else}<Sheet {content} />{/if}{/each}
  </div>
{/if}
