<script lang="ts">
  import type { Ways } from '../../api/client'
  import StepBadge from '../../components/StepBadge.svelte'
  import { stepText } from '../../components/steps'
  import { layers } from '../../tab/layers.svelte'
  import Score from '../../tab/Score.svelte'

  let { ways, ontake, onleave }: { ways: Ways; ontake: (way: number) => void; onleave: () => void } = $props()
  const MOST_PX = 420 // a bar alone need not be wider
  let width = $state(0)
</script>

<main class="min-h-0 grow overflow-y-auto px-6 py-5 max-sm:px-3" aria-label="Ways to choose from">
  <div class="flex flex-wrap items-baseline gap-x-6 gap-y-1">
    <h2 class="text-xl">Ways to Step {stepText(ways.target)}</h2>
    <button class="text-sm underline" onclick={onleave}>Take none</button>
  </div>
  {#if ways.otherwise.length > 0}
    <section class="mt-3 max-w-prose" aria-label="Without changing a note">
      <h3 class="text-quiet">Without changing a note</h3>
      <ul class="mt-1">
        {#each ways.otherwise as other (other.words)}
          <li class="flex items-baseline gap-3">
            <StepBadge step={other.step} /> <span>{other.words}</span>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <ul class="mt-6 grid gap-x-10 gap-y-10 md:grid-cols-2 xl:grid-cols-3">
    {#each ways.ways as way, index (way.name)}
      <li class="flex min-w-0 flex-col border-t-4 border-ink pt-3" data-way={way.name}>
        <span class="flex items-baseline justify-between gap-3">
          <StepBadge step={way.step} />
          <span class="font-bold tabular-nums">{way.overall.toFixed(0)} % kept</span>
        </span>
        <h3 class="mt-2 text-lg first-letter:uppercase">{way.name}</h3>
        <p class="mt-1">{way.sentence}</p>
        {#if !way.reached}<p class="mt-1 text-past-hand">
            It stays above {stepText(ways.target)}: this is as far as is worth its loss.
          </p>{/if}
        {#if !way.still_the_tune}<p class="mt-1 text-past-hand">This is no longer the tune.</p>{/if}
        {#if way.before && way.after}
          <p class="mt-3 text-sm text-quiet">Bar {way.bar} changes most: as it is, then as it would be.</p>
          <div class="mt-1 overflow-hidden" bind:clientWidth={width}>
            <Score
              parts={[way.before, way.after]}
              layers={{ ...layers, picking: false, counts: false, shapes: false }}
              width={Math.min(width, MOST_PX)}
              below={0}
              spoken={['as written', 'as it would be']}
            />
          </div>
        {/if}
        <span class="grow"></span>
        <button class="key-button mt-4 self-start" onclick={() => ontake(index)}
          >Take this way<span class="sr-only">: {way.name}</span></button
        >
      </li>
    {/each}
  </ul>
</main>
