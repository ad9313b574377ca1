<!-- A box to tick, with its words. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check'
  import { Checkbox } from 'bits-ui'
  import type { Snippet } from 'svelte'

  interface Props {
    checked: boolean
    onchange?: (checked: boolean) => void
    children: Snippet
    class?: string
  }
  let { checked = $bindable(), onchange, children, class: own = '' }: Props = $props()
</script>

<label class="inline-flex min-h-7 cursor-pointer items-center gap-1.5 {own}">
  <Checkbox.Root bind:checked onCheckedChange={onchange} class="tick-box">
    {#snippet children({ checked: on })}{#if on}<Check size={14} strokeWidth={3} />{/if}{/snippet}
  </Checkbox.Root>
  <span>{@render children()}</span>
</label>
