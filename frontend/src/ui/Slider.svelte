<script lang="ts">
  import { Slider } from 'bits-ui'

  interface Props {
    label: string
    value: number
    min: number
    max: number
    step: number
    spoken?: string // the value as said aloud
    onchange: (value: number) => void
    class?: string
  }
  let { label, value, min, max, step, spoken, onchange, class: own = 'w-24' }: Props = $props()
</script>

<Slider.Root type="single" {value} {min} {max} {step} onValueChange={onchange} class="slider {own}">
  <span class="slider-track"><Slider.Range class="slider-range" /></span>
  <Slider.Thumb index={0} class="slider-thumb" aria-label={label} aria-valuetext={spoken} />
</Slider.Root>
