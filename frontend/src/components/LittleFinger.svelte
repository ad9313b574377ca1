<script lang="ts">
  import type { GradeQuery } from '../api/client'
  import Select from '../ui/Select.svelte'

  type Use = NonNullable<GradeQuery['little_finger']>
  let { value = $bindable(), onchange }: { value: Use; onchange?: (value: Use) => void } = $props()
</script>

<Select
  label="Little finger"
  class="text-ink"
  bind:value
  {onchange}
  options={[
    { value: 'usual', words: 'as usual' },
    { value: 'avoided', words: 'avoided' },
    { value: 'preferred', words: 'preferred' },
  ]}
/>
