<!-- The top of a sheet: what it is, for whom, why it is hard, how to set up, what to take care of. -->
<script lang="ts">
  import { stepText } from '../components/steps'
  import { layers } from '../tab/layers.svelte'
  import SheetTitle from './SheetTitle.svelte'
  import ShapePicture from './ShapePicture.svelte'
  import { cautionsOf, PAIN, type SheetContent } from './sheet'

  let { content }: { content: SheetContent } = $props()
  const cautions = $derived(cautionsOf(content))
  const bracketed = $derived(
    layers.figures && content.rows.length === 1 && content.rows[0].part.figures.length > 0,
  )
  const shapes = $derived(
    content.rows
      .flatMap(({ part }) => part.shapes)
      .filter((shape, at, all) => all.findIndex((each) => each.frets.join() === shape.frets.join()) === at),
  )
</script>

<header class="sheet-head">
  <SheetTitle
    title={content.title}
    under={content.under}
    right="Step {stepText(content.step)} for {content.whom}"
  />
  <p class="mt-1">{content.setup}</p>
  {#if content.order.length > 0}<p><b>As played:</b> {content.order.join(' – ')}</p>{/if}
  {#each content.why as sentence, at (at)}<p>{sentence}</p>{/each}
  {#if content.play.length > 0}<p class="mt-1"><b>To play:</b> {content.play.join(' ')}</p>{/if}
  {#if bracketed}<p class="text-[11px]">
      What carries the same letter comes back; with a dash it is not the very same, and a notch shows where.
    </p>{/if}
  {#if shapes.length > 0}
    <div class="mt-2 flex flex-wrap gap-x-1 gap-y-1">
      {#each shapes as shape, at (at)}<ShapePicture {shape} />{/each}
    </div>
  {/if}
  {#if cautions.length > 0}
    <ul class="mt-1 border-l-2 border-ink pl-2 text-[11px]" aria-label="Take care">
      {#each [...cautions, PAIN] as words, at (at)}<li>{words}</li>{/each}
    </ul>
  {/if}
</header>
