<!-- What the header of the text says, as small fields; a guess is marked, and changing a field writes its line. -->
<script lang="ts">
  import { createMutation } from '@tanstack/svelte-query'
  import { api, type Headings, type HeadingKey } from '../../api/client'

  interface Props {
    text: string
    headings: Headings
    onchange: (text: string) => void
  }
  let { text, headings, onchange }: Props = $props()

  interface Field {
    key: HeadingKey
    value: string
    guessed: boolean
    hint: string
    wide?: boolean
  }
  const fields = $derived<Field[]>([
    { key: 'Title', value: headings.title, guessed: headings.title_guessed, hint: 'Untitled', wide: true },
    { key: 'Tuning', value: headings.tuning, guessed: headings.tuning_guessed, hint: 'standard', wide: true },
    { key: 'Capo', value: headings.capo ? String(headings.capo) : '', guessed: false, hint: 'none' },
    { key: 'Tempo', value: headings.tempo, guessed: headings.tempo_guessed, hint: 'not written' },
    { key: 'Time', value: headings.time, guessed: headings.time_guessed, hint: '4/4' },
  ])
  const WORDS: Record<HeadingKey, string> = {
    Title: 'Title',
    Tuning: 'Tuning',
    Capo: 'Capo',
    Tempo: 'Tempo',
    Time: 'Metre',
  }

  const change = createMutation(() => ({
    mutationFn: ({ key, value }: { key: HeadingKey; value: string }) => api.changeHeading(text, key, value),
    onSuccess: (changed) => onchange(changed.text),
  }))

  function leave(field: Field, value: string): void {
    if (value !== field.value) change.mutate({ key: field.key, value })
  }
</script>

<div class="flex flex-wrap items-end gap-x-5 gap-y-2" role="group" aria-label="Header of the text">
  {#each fields as field (field.key)}
    {@const doubtful = field.guessed && field.value !== ''}
    <div class="text-[13px] text-quiet {field.wide ? 'w-48' : 'w-40'}">
      <div class="flex justify-between gap-2">
        <label for="heading-{field.key}">{WORDS[field.key]}{doubtful ? ', guessed' : ''}</label>
        {#if doubtful}
          <button
            class="text-ink underline"
            disabled={change.isPending}
            onclick={() => change.mutate({ key: field.key, value: field.value })}
            aria-label="{WORDS[field.key]} is right: {field.value}">is right</button
          >
        {/if}
      </div>
      <input
        id="heading-{field.key}"
        class="control w-full min-w-0 px-2 text-ink {doubtful ? 'border-dashed border-ink' : ''}"
        value={field.value}
        placeholder={field.hint}
        disabled={change.isPending}
        onchange={(event) => leave(field, event.currentTarget.value.trim())}
      />
    </div>
  {/each}
</div>
{#if change.isError}<p class="mt-1 text-past-hand" role="alert">{change.error.message}</p>{/if}
