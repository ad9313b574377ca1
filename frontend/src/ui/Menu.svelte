<!-- A button that opens a short list of things to do. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down'
  import { DropdownMenu } from 'bits-ui'

  interface Choice {
    words: string
    choose?: () => void
    href?: string
  }
  interface Props {
    name: string
    choices: Choice[]
    disabled?: boolean
  }
  let { name, choices, disabled = false }: Props = $props()
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger class="control" {disabled}
    >{name}<ChevronDown size={16} class="shrink-0 text-quiet" /></DropdownMenu.Trigger
  >
  <DropdownMenu.Portal>
    <DropdownMenu.Content class="float" sideOffset={4} align="end">
      {#each choices as choice (choice.words)}
        <DropdownMenu.Item
          class="float-item"
          onSelect={() => (choice.href ? (location.hash = choice.href) : choice.choose?.())}
          >{choice.words}</DropdownMenu.Item
        >
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
