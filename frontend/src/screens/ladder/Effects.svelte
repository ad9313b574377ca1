<script lang="ts">
  import Slider from '../../ui/Slider.svelte'
  import { createQuery } from '@tanstack/svelte-query'
  import { api } from '../../api/client'
  import FetchErrors from '../../components/FetchErrors.svelte'
  import { stepText } from '../../components/steps'
  import type { LadderState } from './ladder.svelte'

  let { state: screen }: { state: LadderState } = $props()
  const differences = createQuery(() => ({
    queryKey: ['differences'],
    queryFn: api.differences,
    refetchInterval: ({ state }) => (state.data?.waiting ? ASKED_AGAIN_MS : false),
  }))
  const ASKED_AGAIN_MS = 1500
  const songs = $derived(
    [...(screen.preview?.songs ?? [])].sort(
      (a, b) => Math.abs(b.step_then - b.step) - Math.abs(a.step_then - a.step),
    ),
  )
</script>

<FetchErrors of={[differences]} />
<h2 class="text-lg">What Step {screen.step} allows</h2>
<div class="mt-1 flex items-center gap-3">
  <Slider
    class="grow"
    label="Step shown in words"
    min={1}
    max={10}
    step={1}
    value={screen.step}
    onchange={(step) => (screen.step = step)}
  />
  <span class="w-6 text-right font-bold tabular-nums">{screen.step}</span>
</div>
<ul class="mt-2 space-y-1 text-[15px] leading-snug">
  {#each screen.rung?.measures ?? [] as { measure, words } (measure)}
    <li class={measure === screen.measure ? 'font-bold' : ''}>
      <span class="text-quiet">{measure}:</span>
      {words}
    </li>
  {/each}
</ul>
<p class="mt-1 text-sm text-quiet">Each alone; several together make a bar harder.</p>
<p class="mt-1 text-sm text-quiet">
  “From memory” is judgement of teaching, held against pieces that teachers graded, not a measurement.
</p>

<h2 class="mt-6 mb-1 text-lg">What it does to your songs</h2>
{#if screen.message}
  <p class="border-l-4 border-past-hand pl-3" role="alert">{screen.message}</p>
{:else if songs.length === 0}
  <p class="text-quiet" role="status">{screen.preview ? 'No song is stored yet.' : 'Grading the songs …'}</p>
{:else}
  <ul>
    {#each songs as song (song.song_id)}
      {@const change = song.step_then - song.step}
      <li class="flex items-baseline gap-2 border-b border-contour py-1 tabular-nums">
        <a class="grow truncate hover:underline" href="#/song/{song.song_id}">{song.title}</a>
        <span>{stepText(song.step)}</span>
        {#if Math.abs(change) >= 0.05}<span class="font-bold"
            >→ {stepText(song.step_then)} ({change > 0 ? '+' : '−'}{stepText(Math.abs(change))})</span
          >{/if}
      </li>
    {/each}
  </ul>
  {#if screen.preview?.left_out}
    <p class="mt-1 text-sm text-quiet">
      Tried on the songs saved last; {screen.preview.left_out} more are left out here.
    </p>
  {/if}
{/if}

<h2 class="mt-6 mb-1 text-lg">Where you and the ladder differ</h2>
{#if differences.data && differences.data.differences.length > 0}
  <table class="w-full tabular-nums">
    <thead class="text-left text-sm text-quiet"
      ><tr
        ><th class="font-normal">song</th><th class="font-normal">yours</th><th class="font-normal">ladder</th
        ><th class="font-normal">likely by</th></tr
      ></thead
    >
    <tbody>
      {#each differences.data.differences as row (`${row.song_id} ${row.part_index}`)}
        <tr class="border-b border-contour">
          <td class="max-w-36 truncate py-1"
            ><a class="hover:underline" href="#/song/{row.song_id}">{row.title}</a></td
          >
          <td class="font-bold">{stepText(row.own)}</td>
          <td>{stepText(row.computed)}</td>
          <td
            >{#if row.measure}<button class="underline" onclick={() => (screen.measure = row.measure)}
                >{row.measure}</button
              >{:else}<span class="text-quiet">agree</span>{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
{:else}
  <p class="text-quiet">
    Give songs a Step of your own on the Desk; the differences are listed here, so that the ladder can be put
    right.
  </p>
{/if}
{#each differences.data?.not_graded ?? [] as told (told)}
  <p class="mt-1 text-sm text-quiet">Not compared: {told}</p>
{/each}
