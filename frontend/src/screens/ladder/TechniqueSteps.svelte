<script lang="ts">
  import type { LadderState } from './ladder.svelte'

  let { state: screen }: { state: LadderState } = $props()
  let name = $state('')
  let step = $state(3)
  const ladder = $derived(screen.ladder!)
  const NAME = /^[A-Za-z][A-Za-z0-9_]{0,23}$/
  const wrong = $derived(
    name !== '' && (!NAME.test(name) || (ladder.own_techniques ?? []).some((own) => own.name === name)),
  )

  function set(row: { step: number }, text: string): void {
    const value = Number(text)
    if (text.trim() === '' || Number.isNaN(value) || value < 0 || value > 10) return
    row.step = value
    screen.ask()
  }

  function modify(row: { adds: number }, text: string): void {
    const value = Number(text)
    if (text.trim() === '' || Number.isNaN(value) || Math.abs(value) > 5) return
    row.adds = value
    screen.ask()
  }

  function add(event: SubmitEvent): void {
    event.preventDefault()
    if (name === '' || wrong) return
    ladder.own_techniques = [...(ladder.own_techniques ?? []), { name, step }]
    name = ''
    screen.ask()
  }
</script>

<h3 class="mb-1">Of your own</h3>
<p class="mb-2 text-quiet">
  Written on the how line of a tab after a star: <code class="font-mono">*name</code>.
</p>
<ul class="mb-2 max-w-md">
  {#each ladder.own_techniques ?? [] as own, index (own.name)}
    <li class="flex items-baseline gap-3 border-b border-contour py-1">
      <span class="grow font-mono">*{own.name}</span>
      <input
        class="field no-spin w-14 text-right font-bold"
        type="number"
        min="0"
        max="10"
        step="0.1"
        value={own.step}
        aria-label="Step of {own.name}"
        oninput={(event) => set(own, event.currentTarget.value)}
      />
      <button
        class="text-sm underline"
        onclick={() => {
          ladder.own_techniques = ladder.own_techniques!.filter((_, at) => at !== index)
          screen.ask()
        }}>Remove</button
      >
    </li>
  {/each}
</ul>
<form class="mb-5 flex max-w-md items-baseline gap-3" onsubmit={add}>
  <input
    class="field grow"
    bind:value={name}
    placeholder="a name"
    aria-label="Name of your own technique"
    aria-invalid={wrong}
  />
  <input
    class="field no-spin w-14 text-right"
    type="number"
    min="0"
    max="10"
    step="0.1"
    bind:value={step}
    aria-label="Its Step"
  />
  <button class="quiet-button" disabled={name === '' || wrong}>Add</button>
</form>
{#if wrong}<p class="mb-3 text-past-hand" role="alert">
    A name is 1 to 24 letters, digits or _ that no other has, and begins with a letter.
  </p>{/if}
<h3 class="mb-1">Known everywhere</h3>
<ul class="grid max-w-3xl gap-x-8 sm:grid-cols-2">
  {#each [...ladder.techniques].sort((a, b) => a.step - b.step) as row (row.technique)}
    <li class="flex items-baseline gap-3 border-b border-contour py-0.5">
      <span class="grow"
        >{screen.screen!.technique_names[row.technique]}{#if row.source !== 'from memory'}<span
            class="block text-sm text-quiet">{row.source}</span
          >{/if}</span
      >
      <input
        class="field no-spin w-14 text-right font-bold"
        type="number"
        min="0"
        max="10"
        step="0.1"
        value={row.step}
        aria-label="Step of {screen.screen!.technique_names[row.technique]}"
        onchange={(event) => set(row, event.currentTarget.value)}
      />
    </li>
  {/each}
</ul>

<h3 class="mt-5 mb-1">Harder or easier by</h3>
<p class="mb-2 text-quiet">Added to a technique's Step where this is so; below 0 it makes it easier.</p>
<ul class="max-w-md">
  {#each ladder.modifiers ?? [] as row (row.modifier)}
    <li class="flex items-baseline gap-3 border-b border-contour py-1">
      <span class="grow">{row.modifier}</span>
      <input
        class="field no-spin w-14 text-right font-bold"
        type="number"
        min="-5"
        max="5"
        step="0.1"
        value={row.adds}
        aria-label="Added for {row.modifier}"
        oninput={(event) => modify(row, event.currentTarget.value)}
      />
    </li>
  {/each}
</ul>
