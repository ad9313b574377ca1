<script lang="ts" generics="T extends string | number">
  import Check from '@lucide/svelte/icons/check'
  import ChevronDown from '@lucide/svelte/icons/chevron-down'
  import { Select } from 'bits-ui'

  interface Props {
    label: string // what is chosen, for those who do not see it
    value: T
    options: { value: T; words: string }[]
    onchange?: (value: T) => void
    disabled?: boolean
    class?: string
  }
  let { label, value = $bindable(), options, onchange, disabled, class: own = '' }: Props = $props()
  const chosen = $derived(options.find((option) => option.value === value)?.words ?? '')

  function choose(text: string): void {
    const option = options.find((each) => String(each.value) === text)
    if (!option || option.value === value) return
    value = option.value
    onchange?.(option.value)
  }
</script>

<Select.Root type="single" value={String(value)} onValueChange={choose} {disabled}>
  <Select.Trigger class="control {own}" aria-label="{label}: {chosen}" title={chosen}>
    <span class="min-w-0 truncate">{chosen}</span><ChevronDown size={16} class="shrink-0 text-quiet" />
  </Select.Trigger>
  <Select.Portal>
    <Select.Content class="float max-h-80" sideOffset={4} aria-label={label}>
      <Select.Viewport>
        {#each options as option (option.value)}
          <Select.Item class="float-item" value={String(option.value)} label={option.words}>
            {#snippet children({ selected })}
              <span class="w-5"
                >{#if selected}<Check size={15} />{/if}</span
              >{option.words}
            {/snippet}
          </Select.Item>
        {/each}
      </Select.Viewport>
    </Select.Content>
  </Select.Portal>
</Select.Root>
