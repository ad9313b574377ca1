<script lang="ts">
  import Fold from '../../ui/Fold.svelte'
  import Select from '../../ui/Select.svelte'
  import type { NoteIn, Version } from '../../api/client'
  import { api } from '../../api/client'
  import BarByHand from './BarByHand.svelte'
  import type { VersionsState } from './versions.svelte'

  let {
    screen,
    version,
    onsave,
  }: { screen: VersionsState; version: Version; onsave: (change: () => Promise<Version>) => void } = $props()
  const part = $derived(version.version.parts[0])
  let open = $state(false)
  let panel: HTMLElement
  const bar = $derived(part.bars[screen.picked?.bar ?? 0])
  const at = $derived(Math.min(screen.picked?.event ?? 0, bar.events.length - 1))
  const event = $derived(bar.events[at])
  const letters = $derived(part.neck.string_letters)

  $effect(() => {
    if (screen.picked) {
      open = true
      requestAnimationFrame(() => panel.scrollIntoView({ block: 'nearest' }))
    }
  })

  /** `beat 2 &`, or the fraction of a beat where no word is at hand. */
  function when(index: number): string {
    const onset = bar.events[index].onset_quarters
    const beat = (bar.starts_at + onset) / bar.beat_quarters
    return `beat ${Math.floor(beat) + 1}${Number.isInteger(beat) ? '' : ` ${bar.events[index].count || `+ ${(beat % 1).toFixed(2)}`}`}`
  }

  function change(body: NoteIn): void {
    screen.picked = { bar: bar.index, event: at }
    onsave(() => api.changeNote(version.id, bar.index, body))
  }

  function write(string: number, text: string): void {
    const there = event.notes.find((note) => note.string === string)
    const fret = text.trim() === '' ? null : Number(text)
    if (fret === (there?.fret ?? null)) return
    change({ event: at, string, fret, halve: false })
  }
</script>

<div bind:this={panel} class="mt-6 border-t border-contour pt-3">
  <Fold title="Change it by hand" class="font-bold" bind:open>
    <div class="font-normal">
      <p class="mt-1 text-sm text-quiet">
        Click a note of the version, or choose it here. What you change joins the changes and can be refused
        like any other.
      </p>
      <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <span class="flex items-center gap-2 text-quiet">
          bar
          <Select
            label="Bar to change by hand"
            class="text-ink"
            value={bar.index}
            options={part.bars.map((each) => ({ value: each.index, words: String(each.number) }))}
            onchange={(index) => (screen.picked = { bar: index, event: 0 })}
          />
        </span>
        <span class="flex items-center gap-2 text-quiet">
          at
          <Select
            label="Beat to change by hand"
            class="text-ink"
            value={at}
            options={bar.events.map((_, index) => ({ value: index, words: when(index) }))}
            onchange={(index) => (screen.picked = { bar: bar.index, event: index })}
          />
        </span>
      </div>
      {#key `${version.id} ${bar.index} ${at}`}
        <div class="mt-2 w-40 font-mono" role="group" aria-label="Frets at bar {bar.number}, {when(at)}">
          {#each letters as letter, index (index)}
            {@const note = event.notes.find((each) => each.string === index + 1)}
            <label class="flex items-center gap-2">
              <span class="w-6 text-quiet">{letter}</span>
              <span class="h-px grow bg-contour"></span>
              <input
                class="field no-spin w-10 text-center"
                type="number"
                min="0"
                max={part.neck.frets_mm.length - 1}
                value={note?.fret ?? ''}
                onchange={(e) => write(index + 1, e.currentTarget.value)}
                aria-label="Fret on string {index + 1}, empty for none"
              />
              <span class="h-px grow bg-contour"></span>
            </label>
          {/each}
        </div>
      {/key}
      <button class="mt-2 underline" onclick={() => change({ event: at, string: 1, fret: null, halve: true })}
        >Make it half as long, with room for a note after it</button
      >
      {#key `${version.id} ${version.edits.length} ${bar.index}`}<BarByHand
          {version}
          bar={bar.index}
          {onsave}
        />{/key}
    </div>
  </Fold>
</div>
