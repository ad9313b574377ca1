<!-- A heading that unfolds what belongs to it. -->
<script lang="ts">
  import ChevronRight from '@lucide/svelte/icons/chevron-right'
  import { Collapsible } from 'bits-ui'
  import type { Snippet } from 'svelte'

  interface Props {
    title: string
    open?: boolean
    children: Snippet
    class?: string
    label?: string // where the title alone does not say enough
  }
  let { title, open = $bindable(false), children, class: own = '', label }: Props = $props()
</script>

<Collapsible.Root bind:open class={own}>
  <Collapsible.Trigger class="fold-trigger" aria-label={label}>
    <ChevronRight size={16} class="fold-arrow" /><span>{title}</span>
  </Collapsible.Trigger>
  <Collapsible.Content>{@render children()}</Collapsible.Content>
</Collapsible.Root>
