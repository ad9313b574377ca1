<script lang="ts">
  import { DropdownMenu } from 'bits-ui'

  interface Choice {
    words: string
    choose?: () => void
    href?: string
  }
  let { name, choices, disabled = false }: { name: string; choices: Choice[]; disabled?: boolean } = $props()
</script>

<DropdownMenu.Root>
  <DropdownMenu.Trigger class="underline disabled:text-quiet disabled:no-underline" {disabled}
    >{name}</DropdownMenu.Trigger
  >
  <DropdownMenu.Content
    class="z-20 min-w-48 border border-contour bg-raised py-1.5"
    sideOffset={6}
    align="end"
  >
    {#each choices as choice (choice.words)}
      <DropdownMenu.Item
        class="cursor-pointer px-4 py-1.5 data-highlighted:bg-contour"
        onSelect={() => (choice.href ? (location.hash = choice.href) : choice.choose?.())}
        >{choice.words}</DropdownMenu.Item
      >
    {/each}
  </DropdownMenu.Content>
</DropdownMenu.Root>
