<!-- The version said string by string: of the picked bars, or all of it. -->
<script lang="ts">
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query'
  import { api, type LessonQuery, type Version } from '../../api/client'
  import ErrorNote from '../../components/ErrorNote.svelte'
  import LanguageChoice from '../../components/LanguageChoice.svelte'
  import Fold from '../../ui/Fold.svelte'
  import { whomQuery } from '../../whom.svelte'
  import type { VersionsState } from './versions.svelte'

  let { screen, version }: { screen: VersionsState; version: Version } = $props()
  let open = $state(false)
  let language = $state<NonNullable<LessonQuery['language']>>('en')
  let names = $state<NonNullable<LessonQuery['names']>>('letters')
  const query = $derived({ ...whomQuery(), part_index: version.part_index, language, names })
  const lesson = createQuery(() => ({
    queryKey: ['version lesson', version.id, version.choice, query],
    queryFn: () => api.versionLesson(version.id, query),
    placeholderData: keepPreviousData,
    enabled: open,
  }))
  const chunks = $derived(
    (lesson.data?.chunks ?? []).filter(
      ({ first, last }) =>
        !screen.picked ||
        (first.bar <= (screen.pickedTo ?? screen.picked).bar && last.bar >= screen.picked.bar),
    ),
  )
</script>

<Fold class="mt-4" title="in words" bind:open>
  <div class="flex gap-2">
    <LanguageChoice
      {language}
      {names}
      onlanguage={(value) => (language = value)}
      onnames={(value) => (names = value)}
    />
  </div>
  {#if lesson.isError}
    <div class="mt-2"><ErrorNote message={lesson.error.message} /></div>
  {:else if lesson.data}
    <ol class="mt-2" lang={language} aria-label="The version in words">
      {#each chunks as chunk, at (at)}
        <li class="mb-2">
          <b>{chunk.called}</b>, {chunk.where}: {chunk.words.join(' ')}
        </li>
      {/each}
    </ol>
    <p class="text-sm text-quiet">
      {screen.picked ? 'Of the picked bars.' : 'Pick bars of the version to read theirs alone.'}
    </p>
  {:else}
    <p class="mt-2 text-quiet" role="status">Putting it into words …</p>
  {/if}
</Fold>
