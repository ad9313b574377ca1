<!-- What a student plays, at its Step for them. -->
<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query'
  import { api, type Student, type StudentSong } from '../../api/client'
  import FetchErrors from '../../components/FetchErrors.svelte'
  import StepBadge from '../../components/StepBadge.svelte'
  import { stepText } from '../../components/steps'
  import { chooseStudent } from '../../whom.svelte'

  let { student }: { student: Student } = $props()
  const found = createQuery(() => ({
    queryKey: ['student songs', student.id, student.number],
    queryFn: () => api.studentSongs(student.id),
  }))
  const bars = (numbers: number[]) =>
    numbers.length === 0 ? '' : `bar${numbers.length > 1 ? 's' : ''} ${numbers.join(', ')}`

  function told(song: StudentSong): string {
    if (song.step === null) return `not graded: ${song.problem}`
    const past = [song.past_song, bars(song.past_bars)].filter(Boolean).join('; ')
    const reach = song.within_reach ? ', within reach' : `; past: ${past}`
    return `the original is ${stepText(song.step)} for ${student.name}${reach}`
  }
</script>

<FetchErrors of={[found]} />
{#if found.data && found.data.songs.length > 0}
  <section class="mb-6" aria-label="Songs of {student.name}">
    <h2 class="mb-1 text-lg">Songs</h2>
    <ul>
      {#each found.data.songs as song (song.song_id)}
        <li class="flex flex-wrap items-baseline gap-x-4 gap-y-1 border-b border-contour py-2">
          <a
            class="font-bold hover:underline"
            href="#/song/{song.song_id}"
            onclick={() => chooseStudent(student.id)}>{song.title}</a
          >
          <span class="text-quiet">{told(song)}</span>
          <span class="grow"></span>
          {#each song.versions as version (version.id)}
            <a
              class="inline-flex items-baseline gap-2 hover:underline"
              href="#/song/{song.song_id}/versions?version={version.id}"
              onclick={() => chooseStudent(student.id)}
              >{version.asked}<StepBadge step={version.step} />
              {#if version.within_reach}<span class="text-quiet">within reach</span>{/if}</a
            >
          {/each}
        </li>
      {/each}
    </ul>
  </section>
{/if}
