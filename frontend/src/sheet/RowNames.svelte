<!-- Who plays each row of a system, over it. -->
<script lang="ts">
  interface Props {
    rows: { top: number }[]
    names: string[]
  }
  let { rows, names }: Props = $props()
</script>

{#each rows as row, number (number)}<span
    class="row-name absolute left-[34px] text-[13px] font-bold"
    style:top="{row.top - 19}px">{names[number]}</span
  >{/each}
