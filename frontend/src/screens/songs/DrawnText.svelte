<!-- The tab of the text, drawn as on the Desk; what was guessed or cannot be read stands under its bar. -->
<script lang="ts">
  import type { Analysis, Problem } from '../../api/client'
  import { layers } from '../../tab/layers.svelte'
  import type { SystemPicture } from '../../tab/engrave'
  import Score from '../../tab/Score.svelte'
  import type { SystemBars } from '../../tab/systems'
  import { notesOf, type MarginNote } from './margin'

  interface Props {
    analysis: Analysis
    problems: Problem[]
    onplace: (place: Problem['place']) => void
  }
  let { analysis, problems, onplace }: Props = $props()
  let width = $state(0)
  const ROW = 20
  const notes = $derived(notesOf(analysis, problems))

  const of = (part: number, { first, last }: SystemBars): MarginNote[] =>
    notes.filter((note) => note.part === part && note.bar >= first && note.bar <= last)
  const leftOf = (note: MarginNote, picture: SystemPicture): number =>
    Math.min(
      picture.rows[0].bars.find((box) => box.index === note.bar)?.x ?? 0,
      Math.max(picture.width - 330, 0),
    )
</script>

<div bind:clientWidth={width}>
  {#each analysis.parts as part, at (at)}
    {#if analysis.parts.length > 1}<h3 class="mt-3 font-bold">{part.name || `Part ${at + 1}`}</h3>{/if}
    <Score parts={[part]} {layers} {width} below={(system) => 10 + ROW * of(at, system).length}>
      {#snippet over(picture, system)}
        {#each of(at, system) as note, row (row)}
          <button
            class="absolute max-w-full truncate text-left text-[13px] italic hover:underline {note.wrong
              ? 'text-past-hand'
              : 'text-quiet'}"
            style:left="{leftOf(note, picture)}px"
            style:top="{picture.height + ROW * row}px"
            style:max-width="{Math.max(picture.width - leftOf(note, picture), 320)}px"
            title={note.words}
            onclick={() => onplace(note.place)}
            >{note.wrong ? '!' : '?'} bar {note.number}: {note.words}</button
          >
        {/each}
      {/snippet}
    </Score>
  {/each}
</div>
