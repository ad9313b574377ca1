<!-- What comes back: of the whole song, or of the chosen bar. Choosing a figure shows all its places. -->
<script lang="ts">
  import Play from '@lucide/svelte/icons/play'
  import type { Figure, FigurePlace } from '../../api/client'
  import Fold from '../../ui/Fold.svelte'
  import { figureName, isInBar, placeName } from '../../tab/brackets'
  import type { DeskState } from './desk.svelte'

  interface Props {
    desk: DeskState
    onplay: () => void
  }
  let { desk, onplay }: Props = $props()
  const part = $derived(desk.part!)
  const named = $derived(part.figures.map((figure, index) => ({ figure, index })))
  const here = $derived(
    named.filter(({ figure, index }) => desk.bar < 0 || index === desk.figure || isInBar(figure, desk.bar)),
  )
  const outer = $derived(here.filter(({ figure }) => !figure.within))
  const inner = $derived(here.filter(({ figure }) => figure.within))
  const rules = $derived(
    part.rules.filter(({ first, last }) => desk.bar < 0 || (first.bar <= desk.bar && last.bar >= desk.bar)),
  )
  /** How the place that was gone to differs, for those who hear the page. */
  const spoken = $derived.by(() => {
    const place = desk.chosenFigure?.places.find((each) => desk.isAtPlace(each))
    return place ? `${place.where}: ${place.words}` : ''
  })
  let innerOpen = $state(false)
  $effect(() => {
    if (inner.some(({ index }) => index === desk.figure)) innerOpen = true
  })

  /** Places that are like the first in the same way, in the order of the first of each. */
  function alike({ places }: Figure): { words: string; places: FigurePlace[] }[] {
    const words = [...new Set(places.map((place) => place.words))]
    return words.map((own) => ({ words: own, places: places.filter((place) => place.words === own) }))
  }
</script>

{#snippet row(figure: Figure, index: number)}
  {@const open = desk.figure === index}
  <li>
    <button
      class="grid w-full grid-cols-[26px_1fr] items-baseline gap-x-2 px-1 py-1 text-left hover:bg-raised"
      class:font-bold={open}
      aria-expanded={open}
      onclick={() => desk.chooseFigure(open ? -1 : index)}
    >
      <span class="rounded-sm border border-contour text-center text-sm italic">{figureName(index)}</span>
      <span>{figure.words}</span>
    </button>
    {#if open}
      <div class="mb-2 ml-[34px] border-l-2 border-changed pl-2">
        <button class="quiet-button my-1 inline-flex items-center gap-1.5" onclick={onplay}
          ><Play size={15} />Play {figure.places.length === 2 ? 'both' : 'all'}, one after the other</button
        >
        <ol aria-label="Places of {figure.words}">
          {#each alike(figure) as { words, places }, at (at)}
            <li class="flex gap-x-2 px-1 py-0.5">
              <span class="w-5 shrink-0 text-sm text-quiet italic">{placeName(index, places[0])}</span>
              <span>
                {#each places as place, at (at)}<button
                    class="underline decoration-contour underline-offset-2 hover:bg-raised"
                    class:font-bold={desk.isAtPlace(place)}
                    aria-current={desk.isAtPlace(place)}
                    aria-label="{place.where}: {words}"
                    onclick={() => desk.goTo(place)}>{place.where}</button
                  >{at < places.length - 1 ? ', ' : ''}{/each}: {words}
              </span>
            </li>
          {/each}
        </ol>
      </div>
    {/if}
  </li>
{/snippet}

{#if here.length + rules.length > 0}
  <section class="relative" aria-label="What comes back">
    <p class="sr-only" aria-live="polite" data-testid="place-words">{spoken}</p>
    <h3 class="mt-4 mb-1">What comes back{desk.bar < 0 ? '' : ' here'}</h3>
    <ul>
      {#each outer as { figure, index } (index)}{@render row(figure, index)}{/each}
      {#each rules as rule, at (at)}
        <li>
          <button
            class="grid w-full grid-cols-[26px_1fr] items-baseline gap-x-2 px-1 py-1 text-left hover:bg-raised"
            onclick={() => desk.choose(rule.first.bar, rule.first.event)}
          >
            <span class="text-center text-sm text-quiet" aria-hidden="true">↻</span>
            <span class="first-letter:uppercase">{rule.where}: {rule.words}</span>
          </button>
        </li>
      {/each}
    </ul>
    {#if inner.length > 0}
      <Fold title="{inner.length} within {inner.length === 1 ? 'it' : 'them'}" bind:open={innerOpen}>
        <ul>
          {#each inner as { figure, index } (index)}{@render row(figure, index)}{/each}
        </ul>
      </Fold>
    {/if}
  </section>
{/if}
