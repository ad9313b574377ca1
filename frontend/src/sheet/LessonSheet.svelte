<!-- What a student takes home: blocks under a title, on screen as on paper. -->
<script lang="ts">
  import type { SheetBlock } from '../api/client'
  import { stepText } from '../components/steps'
  import { setupWords } from '../components/setup'
  import { tick, untrack } from 'svelte'
  import { engraved, type SystemPicture } from '../tab/engrave'
  import { layers } from '../tab/layers.svelte'
  import { systemsOf } from '../tab/systems'
  import TabPicture from '../tab/TabPicture.svelte'
  import { BLOCK_NAMES, SHEET_WORDS, tempiOf } from './lessonwords'
  import { DENSITIES, loosest, pagesTaken, PAGE_WIDTH } from './pages'
  import RowNames from './RowNames.svelte'
  import ShapePicture from './ShapePicture.svelte'
  import SheetTitle from './SheetTitle.svelte'
  import { orderOf, type LessonContent } from './sheet'

  interface Props {
    content: LessonContent
    onfit?: (density: number) => void // asked which density would do
  }
  let { content, onfit }: Props = $props()
  const NAME_ROOM = 18
  const CHUNK_ROOM = 22
  const SHAPES_BESIDE = 5 // shapes in half the width
  const part = $derived(content.part)
  const words = $derived(SHEET_WORDS[content.language])
  let article = $state<HTMLElement>()
  let tried = $state<number | null>(null)
  const { scale, letters, line, columns } = $derived(DENSITIES[tried ?? content.density])
  // What comes back has no letters here: chunks are called by their names.
  const shown = $derived({ ...layers, figures: false })
  let fitting = 0

  /** Set it ever more closely, and keep the loosest that saves as much paper. */
  async function fit(): Promise<void> {
    const own = ++fitting
    const taken: number[] = []
    for (const density of DENSITIES.keys()) {
      tried = density
      await tick()
      if (own !== fitting || !article) return
      const { top: start, height } = article.getBoundingClientRect()
      const boxes = [...article.querySelectorAll('[data-uncut]')].map((box) => box.getBoundingClientRect())
      taken.push(
        pagesTaken(
          height,
          boxes.map(({ top, bottom }) => ({ top: top - start, bottom: bottom - start })),
        ),
      )
    }
    tried = null
    onfit?.(loosest(taken))
  }
  $effect(() => {
    void [content.part, content.rows, content.lesson, content.blocks.join(), content.language]
    if (onfit) untrack(() => void fit())
  })

  /** The names of the chunks that begin in a system, where, and how far until the next. */
  function chunksIn(
    picture: SystemPicture,
    first: number,
    last: number,
  ): { name: string; x: number; room: number }[] {
    const found = (content.lesson?.chunks ?? [])
      .filter((chunk) => chunk.first.bar >= first && chunk.first.bar <= last)
      .map((chunk) => ({
        name: chunk.called,
        x: picture.rows[0].bars[chunk.first.bar - first].events[chunk.first.event].x,
      }))
    return found.map((chunk, at) => ({ ...chunk, room: (found[at + 1]?.x ?? picture.width) - chunk.x - 8 }))
  }
  const fresh = $derived(content.lesson?.chunks.filter(({ like }) => like === null) ?? [])
  const parts = $derived(content.rows.map((row) => row.part))
  const named = $derived(parts.length > 1)
  const systems = $derived(
    systemsOf(parts, PAGE_WIDTH / scale, shown, true).map((system) => ({
      system,
      picture: engraved(parts, system, shown, named ? NAME_ROOM : 0, content.language),
    })),
  )
  // Short blocks that follow one another stand side by side.
  const short = $derived<SheetBlock[]>([
    'hard',
    'setup',
    'map',
    'care',
    ...(part.shapes.length <= SHAPES_BESIDE ? (['shapes'] as const) : []),
  ])
  const runs = $derived.by(() => {
    const found: SheetBlock[][] = []
    for (const block of content.blocks.filter((each) => filled[each])) {
      const last = found.at(-1)
      if (last && short.includes(block) && short.includes(last[0])) last.push(block)
      else found.push([block])
    }
    return found
  })
  const filled = $derived({
    hard: (content.lesson?.hard ?? []).length > 0,
    setup: true,
    map: orderOf(part).length > 0,
    shapes: part.shapes.length > 0,
    tab: true,
    words: content.lesson !== null,
    steps: fresh.length > 0,
    care: (content.lesson?.care ?? []).length > 1,
  })
</script>

<article
  bind:this={article}
  class="lesson-sheet"
  style:width="{PAGE_WIDTH}px"
  style:font-size="{letters}px"
  style:line-height={line}
  lang={content.language}
>
  <SheetTitle
    title={content.analysis.title}
    under={content.under}
    right="Step {stepText(part.step)} {words.for} {content.analysis.whom}"
  />
  {#each runs as run, at (at)}
    <div class={run.length > 1 ? 'grid grid-cols-2 gap-x-6' : ''}>
      {#each run as block (block)}{@render section(block)}{/each}
    </div>
  {/each}
</article>

{#snippet section(block: SheetBlock)}
  <section class="mt-2.5" data-block={block}>
    <h2 class="break-after-avoid text-[1.04em]">{BLOCK_NAMES[block][content.language]}</h2>
    {#if block === 'hard'}
      {#each content.lesson!.hard as sentence, at (at)}<p>{sentence}</p>{/each}
    {:else if block === 'setup'}
      <p>{setupWords([part], content.analysis.marked_tempo, content.analysis.feel, content.language)}</p>
      {#each content.lesson?.setting_up ?? [] as sentence, at (at)}<p>{sentence}</p>{/each}
    {:else if block === 'map'}
      <p>{orderOf(part, content.language).join(' – ')}</p>
    {:else if block === 'shapes'}
      <div class="flex flex-wrap gap-x-1 gap-y-1">
        {#each part.shapes as shape, at (at)}<ShapePicture {shape} />{/each}
      </div>
    {:else if block === 'tab'}
      {#each systems as { system, picture } (system.first)}
        {@const chunks = named ? [] : chunksIn(picture, system.first, system.last)}
        <div
          class="relative break-inside-avoid overflow-clip"
          data-uncut
          style:height="{(picture.height + (chunks.length > 0 ? CHUNK_ROOM : 6)) * scale}px"
        >
          <div class="relative origin-top-left" style:transform="scale({scale})" data-system={system.first}>
            <TabPicture {picture} height={picture.height} />
            {#if named}<RowNames rows={picture.rows} names={content.rows.map(({ name }) => name)} />{/if}
          </div>
          <!-- Not within what is scaled: the printer would count it as wider than the page. -->
          {#each chunks as { name, x, room }, at (at)}<span
              class="chunk-name absolute truncate border-l-2 border-ink pl-1 leading-none font-bold"
              style:max-width="{room * scale}px"
              style:font-size="{13 * scale}px"
              style:left="{(x - 6) * scale}px"
              style:top="{picture.height * scale}px">{name}</span
            >{/each}
        </div>
      {/each}
    {:else if block === 'words'}
      <ol class="gap-6" style:columns>
        {#each content.lesson!.chunks as chunk, at (at)}
          <li class="mb-1 break-inside-avoid"><b>{chunk.called}.</b> {chunk.words.join(' ')}</li>
        {/each}
      </ol>
    {:else if block === 'steps'}
      <p>{words.each}</p>
      <ul class="break-inside-avoid gap-6" style:columns={2}>
        {#each fresh as chunk, at (at)}
          <li class="flex break-inside-avoid items-baseline gap-x-3">
            <b class="min-w-16">{chunk.called}</b>
            {#each tempiOf(chunk, content.analysis.marked_tempo) as tempo, at (at)}<span
                class="whitespace-nowrap"><span class="tick" aria-hidden="true"></span> {tempo}</span
              >{/each}
            {#if at > 0}<span class="whitespace-nowrap"
                ><span class="tick" aria-hidden="true"></span> {words.so_far}</span
              >{/if}
          </li>
        {/each}
      </ul>
    {:else if block === 'care'}
      <ul>
        {#each content.lesson!.care as sentence, at (at)}<li>{sentence}</li>{/each}
      </ul>
    {/if}
  </section>
{/snippet}

<style>
  .tick {
    display: inline-block;
    width: 11px;
    height: 11px;
    border: 1.2px solid currentColor;
    vertical-align: -1px;
  }
</style>
