<script lang="ts">
  import type { Card } from '../../api/client'
  import SmallClimb from '../../components/SmallClimb.svelte'
  import StepBadge from '../../components/StepBadge.svelte'
  import { stepText } from '../../components/steps'

  interface Props {
    song: Card
    marksDemo: boolean // among songs of one's own
    onaway: (away: boolean) => void
  }
  let { song, marksDemo, onaway }: Props = $props()
  const grade = $derived(song.grade)
</script>

<article class="group relative h-[147px]">
  <a
    class="block h-full overflow-hidden border-b-2 border-contour transition-colors hover:border-ink"
    href="#/song/{song.id}"
  >
    <div class="flex items-baseline justify-between gap-3">
      <h2 class="truncate text-lg group-hover:underline">{song.title}</h2>
      {#if grade}<StepBadge step={grade.step} assumed={grade.tempo_assumed} />{/if}
    </div>
    {#if grade}
      <p class="mt-1 truncate text-quiet">{grade.hardest}</p>
      <p class="truncate pr-20 text-sm text-quiet">
        {marksDemo && song.is_demo ? 'demo song, ' : ''}{grade.bars} bar{grade.bars === 1 ? '' : 's'}, {grade.tuning},
        {grade.tempo_assumed ? 'about ' : ''}{Math.round(grade.tempo)} a minute{grade.parts > 1
          ? `, ${grade.parts} parts`
          : ''}{song.own_step !== null ? `, yours: Step ${stepText(song.own_step)}` : ''}
      </p>
      <div class="mt-3">
        <SmallClimb
          beats={grade.climb.beats}
          steps={grade.climb.steps}
          label="Climb of {song.title}: Step {stepText(grade.step)}, {grade.hardest}"
        />
      </div>
    {:else if song.problem}
      <p class="mt-1 border-l-4 border-past-hand pl-3">It has no grade: {song.problem}</p>
    {:else}
      <p class="mt-1 text-quiet">being graded …</p>
    {/if}
  </a>
  <button
    class="card-action absolute top-[57px] right-0 text-sm text-quiet underline hover:text-ink"
    onclick={() => onaway(!song.put_away)}
    aria-label="{song.put_away ? 'Bring back' : 'Put away'} {song.title}"
    >{song.put_away ? 'Bring back' : 'Put away'}</button
  >
</article>
