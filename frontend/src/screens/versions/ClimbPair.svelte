<script lang="ts">
  import type { Version } from '../../api/client'
  import { columns } from '../../components/climb'
  import SmallClimb from '../../components/SmallClimb.svelte'
  import { stepText } from '../../components/steps'

  let { version }: { version: Version } = $props()
  const WIDTH = 300
  const rows = $derived(
    (['original', 'version'] as const).map((name) => {
      const part = version[name].parts[0]
      const [beats, steps] = [
        part.bars.map((bar) => bar.quarters / bar.beat_quarters),
        part.bars.map((bar) => bar.step),
      ]
      return { name, part, beats, steps }
    }),
  )
  const places = $derived(columns(rows[1].beats, rows[1].steps, WIDTH))
  const harder = $derived(
    rows[1].part.bars.flatMap((bar, index) =>
      version.harder.includes(bar.number)
        ? [{ number: bar.number, x: places[index].x + places[index].width / 2 }]
        : [],
    ),
  )
</script>

<div class="mb-3 grid grid-cols-[auto_1fr] items-end gap-x-3 gap-y-1" aria-label="Both climbs" role="group">
  {#each rows as { name, part, beats, steps } (name)}
    <span class="text-sm whitespace-nowrap text-quiet"
      >{name} <strong class="text-ink tabular-nums">{stepText(part.step)}</strong></span
    >
    <SmallClimb {beats} {steps} height={36} label="{name}: Step {stepText(part.step)}, bar by bar" />
  {/each}
  {#if harder.length > 0}
    <span class="text-sm text-quiet">harder</span>
    <svg class="block h-3 w-full" viewBox="0 0 {WIDTH} 12" preserveAspectRatio="none" aria-hidden="true">
      {#each harder as { number, x } (number)}
        <path d="M{x - 2} 10 L{x} 2 L{x + 2} 10 Z" fill="var(--past-hand)" />
      {/each}
    </svg>
  {/if}
</div>
