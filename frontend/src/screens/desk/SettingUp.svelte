<!-- The guitar made ready for the song, string by string, with a tone for each. -->
<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query'
  import Volume2 from '@lucide/svelte/icons/volume-2'
  import { api, type Setting } from '../../api/client'
  import type { Player } from '../../audio/player.svelte'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import LanguageChoice from '../../components/LanguageChoice.svelte'
  import TuningField from '../../components/TuningField.svelte'
  import Tick from '../../ui/Tick.svelte'
  import Window from '../../ui/Window.svelte'
  import type { DeskState } from './desk.svelte'
  import type { LessonState } from './lesson.svelte'

  interface Props {
    open: boolean
    desk: DeskState
    lesson: LessonState
    player: Player
    songId: number
  }
  let { open = $bindable(), desk, lesson, player, songId }: Props = $props()
  let tunedTo = $state('')
  let to = $state('')
  const asked = $derived({ ...lesson.query, tuned_to: tunedTo, to })
  const found = createQuery(() => ({
    queryKey: ['setting up', songId, desk.song?.revision, asked],
    queryFn: () => api.settingUp(songId, asked),
    placeholderData: keepPreviousData,
    enabled: open && desk.song !== null,
  }))
</script>

{#snippet setting(made: Setting)}
  {#if made.sounds}<p>{made.sounds}</p>{/if}
  <dl class="grid grid-cols-[auto_1fr] gap-x-3 tabular-nums">
    <dt class="text-quiet">the guitar now</dt>
    <dd>{made.own}</dd>
    <dt class="text-quiet">the song sounds</dt>
    <dd>{made.record}</dd>
  </dl>
  <p>
    {made.turns.length === 0 ? 'No string to turn.' : ''}
    {made.capo_words}
  </p>
  <ol class="mt-1 space-y-1" lang={lesson.language}>
    {#each made.turns as sentence, at (at)}<li>{sentence}</li>{/each}
  </ol>
  <div class="mt-2 flex flex-wrap gap-2" role="group" aria-label="Tones, {made.tuning}">
    {#each [...made.strings].reverse() as open (open.string)}
      <button
        class="quiet-button inline-flex items-center gap-1.5 !px-2.5 {open.turned
          ? '!border-ink font-bold'
          : ''}"
        aria-label="Tone of string {open.string}, {open.name}"
        onclick={() => void player.tone(open.pitch, found.data!.cents)}
        ><Volume2 size={15} /> {open.string}: {open.name}</button
      >
    {/each}
  </div>
{/snippet}

<Window bind:open title="Setting up">
  <div class="flex flex-wrap items-center gap-2">
    <span>The guitar is in</span>
    <TuningField
      label="The guitar is in"
      value={tunedTo || (found.data?.tuned_to ?? '')}
      tunings={found.data?.tunings ?? []}
      onchange={(value) => (tunedTo = value)}
    />
    <span>and goes to</span>
    <TuningField
      label="It goes to"
      value={to || (desk.part?.tuning ?? '')}
      tunings={found.data?.tunings ?? []}
      onchange={(value) => (to = value === desk.part?.tuning ? '' : value)}
    />
    <LanguageChoice
      language={lesson.language}
      names={lesson.names}
      onlanguage={(language) => (lesson.language = language)}
      onnames={(names) => (lesson.names = names)}
    />
  </div>
  <p class="mt-1 text-sm text-quiet">Say it as you like: Eb standard, drop C#, C G C F A D.</p>
  {#if found.isError}
    <div class="mt-3"><ErrorNote message={found.error.message} /></div>
  {:else if found.data}
    {@const { asked: made, fewer, cents } = found.data}
    <div class="mt-3 max-h-[55vh] overflow-y-auto">
      {#if fewer}
        <section class="mb-4 border-l-4 border-changed pl-3" aria-label="Fewer changes">
          <h3>Sounds the same for fewer changes, with the same shapes</h3>
          {@render setting(fewer)}
        </section>
      {/if}
      <section aria-label="As asked">
        {#if fewer}<h3>As written</h3>{/if}
        {@render setting(made)}
      </section>
      {#if cents !== 0}
        <p class="mt-3" lang={lesson.language}>{found.data.cents_words}</p>
        <Tick bind:checked={desk.asRecorded}
          >hear the song as on the recording, {Math.abs(cents)} cents {cents > 0 ? 'higher' : 'lower'}</Tick
        >
      {/if}
      {#if made.turns.length > 0}
        <p class="mt-3">
          <a
            class="underline"
            href="#/song/{songId}/versions?tuning={encodeURIComponent(found.data.tuned_to)}"
            >Keep {found.data.tuned_to} and look for the same music there</a
          >
        </p>
      {/if}
    </div>
  {/if}
</Window>
