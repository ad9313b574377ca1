<script lang="ts">
  import Plus from '@lucide/svelte/icons/plus'
  import { createQuery, useQueryClient } from '@tanstack/svelte-query'
  import { api, type Student } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import Fold from '../../ui/Fold.svelte'
  import TopBar from '../../ui/TopBar.svelte'
  import StudentForm from './StudentForm.svelte'
  import StudentSongs from './StudentSongs.svelte'
  import { limitsInWords, present } from './students'

  const queries = useQueryClient()
  const list = createQuery(() => ({ queryKey: ['students'], queryFn: api.students }))
  const techniques = createQuery(() => ({ queryKey: ['techniques'], queryFn: api.techniques }))
  let chosen = $state<number | 'new' | null>(null)
  const students = $derived(present(list.data?.students))
  const away = $derived(list.data?.students.filter((each) => each.put_away) ?? [])
  const shown = $derived(chosen ?? students[0]?.id ?? 'new')
  const student = $derived(list.data?.students.find((each) => each.id === shown))

  async function saved(made: Student): Promise<void> {
    await queries.invalidateQueries({ queryKey: ['students'] })
    chosen = made.id
  }
</script>

{#snippet names(each_of: Student[])}
  <ul>
    {#each each_of as each (each.id)}
      <li class="border-b border-contour">
        <button
          class="block w-full py-2.5 text-left hover:text-ink"
          class:text-quiet={each.id !== shown}
          aria-current={each.id === shown}
          onclick={() => (chosen = each.id)}
        >
          <span class="block font-bold" class:underline={each.id === shown}>{each.name}</span>
          <span class="block text-sm">{limitsInWords(each)}</span>
        </button>
      </li>
    {/each}
  </ul>
{/snippet}

<svelte:head><title>Students - Clear Steps</title></svelte:head>

<TopBar back={{ href: '#/', words: 'Songs' }} title="Students">
  <button class="key-button inline-flex items-center gap-2" onclick={() => (chosen = 'new')}
    ><Plus size={18} /> New student</button
  >
</TopBar>
{#if list.isError}
  <div class="p-8"><ErrorNote message={list.error.message} /></div>
{:else if list.data && techniques.data}
  <main class="mx-auto grid max-w-6xl grid-cols-[260px_minmax(0,1fr)] gap-x-10 px-6 py-6 max-md:grid-cols-1">
    <nav aria-label="Students">
      {@render names(students)}
      {#if students.length === 0}<p class="text-quiet">
          Nobody yet. What a student can play now is the measure for a version of their own.
        </p>{/if}
      {#if away.length > 0}
        <Fold class="mt-6 text-quiet" title="put away ({away.length})" open={student?.put_away}>
          {@render names(away)}
        </Fold>
      {/if}
    </nav>
    <div class="min-w-0">
      {#if student}<StudentSongs {student} />{/if}
      {#key `${shown} ${student?.number}`}
        <StudentForm
          {student}
          presets={list.data.preset_spans_mm}
          measures={list.data.measures}
          techniques={techniques.data.techniques}
          sets={techniques.data.sets}
          others={students.filter((each) => each.id !== student?.id)}
          tunings={list.data.tunings}
          onsaved={saved}
        />
      {/key}
    </div>
  </main>
{:else}
  <p class="p-8 text-quiet" role="status">Fetching the students …</p>
{/if}
