<script lang="ts">
  import Printer from '@lucide/svelte/icons/printer'
  import Select from '../../ui/Select.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { onDestroy, untrack } from 'svelte'
  import { api, isStale, type Ladder, type LadderScreen } from '../../api/client'
  import Conflict from '../../components/Conflict.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import { offerSheet } from '../../sheet/sheet'
  import { doneLately } from '../../done.svelte'
  import MeasureSign from '../../components/MeasureSign.svelte'
  import CurveEditor from './CurveEditor.svelte'
  import Effects from './Effects.svelte'
  import { ladderLines, LadderState, SHAPES, TECHNIQUES } from './ladder.svelte'
  import { CURVES } from '../../components/measures'
  import ShapeSteps from './ShapeSteps.svelte'
  import TechniqueSteps from './TechniqueSteps.svelte'

  const SHIPPED = 0 // no ladder of the teacher's own has this id
  const queries = useQueryClient()
  const screen = new LadderState()
  const fetched = createQuery(() => ({ queryKey: ['ladder'], queryFn: api.ladder, staleTime: Infinity }))
  $effect(() => {
    const now = fetched.data
    untrack(() => now && !screen.changed && screen.take(now))
  })
  onDestroy(() => screen.stop())
  offerSheet(() =>
    screen.ladder && screen.rungs.length > 0 ? [{ ladder: screen.ladder.name, rungs: screen.rungs }] : [],
  )

  const store = createMutation(() => ({
    mutationFn: (work: () => Promise<LadderScreen>) => work(),
    onSuccess: (stored: LadderScreen) => {
      queries.setQueryData(['ladder'], stored)
      screen.take(stored)
      for (const key of ['song', 'songs', 'differences', 'techniques', 'version', 'versions', 'group'])
        void queries.invalidateQueries({ queryKey: [key] })
    },
    onError: async (error) => {
      if (isStale(error)) meanwhile = await api.ladder()
    },
  }))
  let meanwhile = $state.raw<LadderScreen | null>(null)
  const own = $derived(screen.screen?.id ?? null)

  function snapshot(): Ladder {
    return $state.snapshot(screen.ladder) as Ladder
  }
  /** Save what is changed as the next revision; undone, what stood before becomes the one after it. */
  function save(): void {
    if (own === null) return addCopy()
    const [ladder, before] = [snapshot(), screen.screen!]
    store.mutate(async () => {
      const saved = await api.saveLadder(own, before.revision, ladder)
      doneLately.tell(`${ladder.name} is saved, writing ${saved.revision}`, () =>
        store.mutateAsync(() => api.saveLadder(own, saved.revision, before.ladder)),
      )
      return saved
    })
  }
  function takeTheirs(): void {
    queries.setQueryData(['ladder'], meanwhile!)
    screen.take(meanwhile!)
    meanwhile = null
  }
  function goOn(): void {
    screen.goOnFrom(meanwhile!)
    meanwhile = null
    store.reset()
  }
  function keepMine(): void {
    goOn()
    save()
  }
  function addCopy(): void {
    const ladder = snapshot()
    const taken = [
      ladder.name === screen.screen!.ladder.name,
      ...screen.screen!.ladders.map((each) => each.name === ladder.name),
    ].some(Boolean)
    store.mutate(() => api.addLadder(taken ? { ...ladder, name: `${ladder.name}, mine` } : ladder))
  }
</script>

<svelte:head><title>Ladder - Clear Steps</title></svelte:head>

<TopBar back={{ href: '#/', words: 'Songs' }} title="Ladder">
  {#if screen.screen && screen.ladder}
    <span class="flex items-center gap-2 text-quiet">
      graded by
      <Select
        label="Graded by"
        class="max-w-56 text-ink"
        value={own ?? SHIPPED}
        options={[
          { value: SHIPPED, words: 'the one that ships' },
          ...screen.screen.ladders.map((each) => ({ value: each.id, words: each.name })),
        ]}
        onchange={(id) => store.mutate(() => api.chooseLadder(id === SHIPPED ? null : id))}
      />
    </span>
    {#if own !== null}<label class="flex items-center gap-2 text-quiet"
        >called <input class="field w-44 text-ink" maxlength="80" bind:value={screen.ladder.name} /></label
      >{/if}
    <span class="text-quiet" role="status"
      >{screen.changed
        ? 'changed, not saved'
        : own === null
          ? 'it never changes; a change makes a copy'
          : `writing ${screen.screen.revision}, saved`}</span
    >
    <button class="quiet-button inline-flex items-center gap-2" onclick={() => window.print()}
      ><Printer size={17} /> Print</button
    >
    <button class="quiet-button" disabled={!screen.changed} onclick={() => screen.take(screen.screen!)}
      >Take back</button
    >
    {#if own !== null}<button class="quiet-button" onclick={addCopy}>Copy</button>{/if}
    <button
      class="key-button"
      disabled={!screen.changed || screen.message !== '' || store.isPending}
      onclick={save}>{own === null ? 'Save as my own' : 'Save'}</button
    >
  {/if}
</TopBar>
<main class="mx-auto max-w-7xl px-6 py-4 max-sm:px-3">
  {#if store.isError && !isStale(store.error)}<ErrorNote message={store.error.message} />{/if}
  {#if screen.screen && screen.screen.filled.length > 0}
    <p class="mb-4 border-l-4 border-changed pl-3">
      This ladder is from before these were added, so they are taken from the one that ships: {screen.screen.filled.join(
        ', ',
      )}. Saving makes them yours.
    </p>
  {/if}
  {#if fetched.isError}
    <ErrorNote message={fetched.error.message} />
  {:else if screen.screen && screen.ladder}
    <div class="grid gap-x-10 gap-y-6 lg:grid-cols-[170px_minmax(0,1fr)_340px]">
      <nav aria-label="Measures">
        <ul>
          {#each Object.keys(CURVES) as measure (measure)}
            <li>
              <button
                class="flex w-full items-center gap-2 border-b border-contour py-1.5 text-left hover:bg-raised aria-[current=true]:font-bold"
                aria-current={screen.measure === measure}
                onclick={() => (screen.measure = measure)}
              >
                <MeasureSign {measure} />{measure}
              </button>
            </li>
          {/each}
        </ul>
        <label class="mt-6 block text-sm text-quiet">
          A version is still the tune from
          <span class="mt-1 flex items-baseline gap-1"
            ><input
              class="field no-spin w-12 text-right text-base text-ink"
              type="number"
              min="0"
              max="100"
              step="1"
              bind:value={screen.ladder.tune_floor}
              oninput={() => screen.ask()}
            /> % of it kept</span
          >
        </label>
      </nav>
      <section aria-label="Rows of {screen.measure}" class="min-w-0">
        {#if screen.measure === TECHNIQUES}<TechniqueSteps state={screen} />{/if}
        {#if screen.measure === SHAPES}<ShapeSteps state={screen} />{/if}
        {#each CURVES[screen.measure] as name (name)}
          {@const curve = screen.ladder.curves.find((each) => each.curve === name)}
          {#if curve}<CurveEditor {curve} oninput={() => screen.ask()} />{/if}
        {/each}
      </section>
      <aside class="min-w-0 lg:border-l lg:border-contour lg:pl-6"><Effects state={screen} /></aside>
    </div>
  {:else}
    <p class="text-quiet" role="status">Fetching the ladder …</p>
  {/if}
</main>
{#if meanwhile && screen.ladder}
  <Conflict
    open
    what="this ladder"
    theirs={ladderLines(meanwhile.ladder)}
    mine={ladderLines(screen.ladder)}
    busy={store.isPending}
    ontake={takeTheirs}
    onkeep={keepMine}
    onedit={goOn}
  />
{/if}
