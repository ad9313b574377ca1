<!-- A tuning, typed as people say it or taken from those that have a name. -->
<script lang="ts">
  interface Props {
    label: string
    value: string
    tunings: string[]
    placeholder?: string
    onchange: (value: string) => void
  }
  let { label, value, tunings, placeholder = '', onchange }: Props = $props()
  const id = $props.id()
</script>

<input
  class="field w-44"
  aria-label={label}
  list={id}
  maxlength="100"
  {placeholder}
  {value}
  onchange={(event) => onchange(event.currentTarget.value.trim())}
/>
<datalist {id}>
  {#each tunings as name (name)}<option value={name}></option>{/each}
</datalist>
