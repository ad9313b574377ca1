<script lang="ts">
  import { onStepColour, stepColour, stepText } from './steps'

  let { step, assumed = false }: { step: number; assumed?: boolean } = $props()
</script>

<span
  class="inline-flex items-baseline gap-1 rounded-sm px-2.5 py-0.5 font-bold whitespace-nowrap tabular-nums"
  style:background={stepColour(step)}
  style:color={onStepColour(step)}
>
  Step {stepText(step)}{#if assumed}<span class="font-normal">
      ~<span class="sr-only">, at an assumed tempo</span></span
    >{/if}
</span>
