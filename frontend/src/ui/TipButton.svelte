<!-- A button whose sign needs a word: the word comes up where it is pointed at or reached by keys. -->
<script lang="ts">
  import { Tooltip } from 'bits-ui'
  import type { Snippet } from 'svelte'
  import type { HTMLButtonAttributes } from 'svelte/elements'

  interface Props extends HTMLButtonAttributes {
    tip: string
    children: Snippet
  }
  let { tip, children, ...button }: Props = $props()
</script>

<Tooltip.Provider delayDuration={350}>
  <Tooltip.Root>
    <Tooltip.Trigger>
      {#snippet child({ props })}<button {...props} {...button}>{@render children()}</button>{/snippet}
    </Tooltip.Trigger>
    <Tooltip.Portal>
      <Tooltip.Content class="tip" sideOffset={6}>{tip}</Tooltip.Content>
    </Tooltip.Portal>
  </Tooltip.Root>
</Tooltip.Provider>
