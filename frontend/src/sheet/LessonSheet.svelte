<!-- What a student takes home: blocks under a title, on screen as on paper. -->
<script lang="ts">
  import { stepText } from '../components/steps'
  import { setupWords } from '../components/setup'
  import { engraved } from '../tab/engrave'
  import { layers } from '../tab/layers.svelte'
  import { systemsOf } from '../tab/systems'
  import TabPicture from '../tab/TabPicture.svelte'
  import { BLOCK_NAMES, SHEET_WORDS, tempiOf } from './lessonwords'
  import { PAGE_WIDTH } from './pages'
  import RowNames from './RowNames.svelte'
  import ShapePicture from './ShapePicture.svelte'
  import SheetTitle from './SheetTitle.svelte'
  import { orderOf, PAIN, type LessonContent } from './sheet'

  let { content }: { content: LessonContent } = $props()
  const SCALE = 0.78
  const NAME_ROOM = 18
  const part = $derived(content.part)
  const words = $derived(SHEET_WORDS[content.language])
  const fresh = $derived(content.lesson?.chunks.filter(({ like }) => like === null) ?? [])
  const parts = $derived(content.rows.map((row) => row.part))
  const named = $derived(parts.length > 1)
  const systems = $derived(
    systemsOf(parts, PAGE_WIDTH / SCALE, layers, true).map((system) => ({
      system,
      picture: engraved(parts, system, layers, named ? NAME_ROOM : 0),
    })),
  )
  const filled = $derived({
    hard: part.sentences.length > 0,
    setup: true,
    map: orderOf(part).length > 0,
    shapes: part.shapes.length > 0,
    tab: true,
    words: content.lesson !== null,
    steps: fresh.length > 0,
    care: part.cautions.length > 0,
  })
</script>

<article class="lesson-sheet" style:width="{PAGE_WIDTH}px" lang={content.language}>
  <SheetTitle
    title={content.analysis.title}
    under={content.under}
    right="Step {stepText(part.step)} {words.for} {content.analysis.whom}"
  />
  {#each content.blocks.filter((block) => filled[block]) as block (block)}
    <section class="mt-2.5" data-block={block}>
      <h2 class="break-after-avoid text-[13px]">{BLOCK_NAMES[block][content.language]}</h2>
      {#if block === 'hard'}
        <div lang="en">
          {#each part.sentences.slice(0, 2) as sentence (sentence)}<p>{sentence}</p>{/each}
        </div>
      {:else if block === 'setup'}
        <p>{setupWords([part], content.analysis.marked_tempo, content.analysis.feel)}</p>
        {#each content.lesson?.setting_up ?? [] as sentence (sentence)}<p>{sentence}</p>{/each}
      {:else if block === 'map'}
        <p>{orderOf(part).join(' – ')}</p>
      {:else if block === 'shapes'}
        <div class="flex flex-wrap gap-x-1 gap-y-1">
          {#each part.shapes as shape (shape.frets.join())}<ShapePicture {shape} />{/each}
        </div>
      {:else if block === 'tab'}
        {#each systems as { system, picture } (system.first)}
          <div class="break-inside-avoid overflow-clip" style:height="{(picture.height + 6) * SCALE}px">
            <div class="relative origin-top-left" style:transform="scale({SCALE})" data-system={system.first}>
              <TabPicture {picture} height={picture.height} />
              {#if named}<RowNames rows={picture.rows} names={content.rows.map(({ name }) => name)} />{/if}
            </div>
          </div>
        {/each}
      {:else if block === 'words'}
        <ol class="columns-2 gap-6">
          {#each content.lesson!.chunks as chunk, at (at)}
            <li class="mb-1 break-inside-avoid"><b>{chunk.called}.</b> {chunk.words.join(' ')}</li>
          {/each}
        </ol>
      {:else if block === 'steps'}
        <p>{words.each}</p>
        <ul class="columns-2 gap-6">
          {#each fresh as chunk, at (at)}
            <li class="flex break-inside-avoid items-baseline gap-x-3">
              <b class="min-w-16">{chunk.called}</b>
              {#each tempiOf(chunk, content.analysis.marked_tempo) as tempo (tempo)}<span
                  class="whitespace-nowrap"><span class="tick" aria-hidden="true"></span> {tempo}</span
                >{/each}
              {#if at > 0}<span class="whitespace-nowrap"
                  ><span class="tick" aria-hidden="true"></span> {words.so_far}</span
                >{/if}
            </li>
          {/each}
        </ul>
      {:else if block === 'care'}
        <ul lang="en">
          {#each [...new Set(part.cautions.map((caution) => caution.words)), PAIN] as caution (caution)}<li>
              {caution}
            </li>{/each}
        </ul>
      {/if}
    </section>
  {/each}
</article>

<style>
  .tick {
    display: inline-block;
    width: 11px;
    height: 11px;
    border: 1.2px solid currentColor;
    vertical-align: -1px;
  }
</style>
