<script lang="ts">
  import { MEASURE_SIGNS } from './measures'

  let { measure, size = 16 }: { measure: string; size?: number } = $props()
</script>

<svg
  width={size}
  height={size}
  viewBox="0 0 16 16"
  fill="none"
  stroke="currentColor"
  stroke-width="1.8"
  stroke-linecap="round"
  stroke-linejoin="round"
  aria-hidden="true"
>
  <path d={MEASURE_SIGNS[measure] ?? ''} />
</svg>
