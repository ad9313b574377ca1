<script lang="ts">
  import type { Card } from '../../api/client'
  import SmallClimb from '../../components/SmallClimb.svelte'
  import StepBadge from '../../components/StepBadge.svelte'
  import { stepText } from '../../components/steps'

  let { song }: { song: Card } = $props()
  const bars = $derived(`${song.bars} bar${song.bars === 1 ? '' : 's'}`)
</script>

<a
  class="group block border-b-2 border-contour pb-0 transition-colors hover:border-ink"
  href="#/song/{song.id}"
>
  <div class="flex items-baseline justify-between gap-3">
    <h2 class="truncate text-lg group-hover:underline">{song.title}</h2>
    <StepBadge step={song.step} assumed={song.tempo_assumed} />
  </div>
  <p class="mt-1 text-quiet">{song.hardest}</p>
  <p class="text-sm text-quiet">
    {bars}, {song.tuning}, {song.tempo_assumed ? 'about ' : ''}{Math.round(song.tempo)} a minute{song.parts >
    1
      ? `, ${song.parts} parts`
      : ''}{song.own_step !== null ? `, yours: Step ${stepText(song.own_step)}` : ''}
  </p>
  <div class="mt-3">
    <SmallClimb
      beats={song.climb.map((bar) => bar.beats)}
      steps={song.climb.map((bar) => bar.step)}
      label="Climb of {song.title}: Step {stepText(song.step)}, {song.hardest}"
    />
  </div>
</a>
