<script lang="ts">
  import Check from '@lucide/svelte/icons/check'
  import ChevronDown from '@lucide/svelte/icons/chevron-down'
  import { createQuery } from '@tanstack/svelte-query'
  import { Popover } from 'bits-ui'
  import { api } from '../api/client'
  import { present } from '../screens/students/students'
  import FetchErrors from './FetchErrors.svelte'
  import LittleFinger from './LittleFinger.svelte'
  import Tick from '../ui/Tick.svelte'
  import { chooseHand, chooseStudent, MEDIUM, whom } from '../whom.svelte'

  const list = createQuery(() => ({ queryKey: ['students'], queryFn: api.students }))
  const students = $derived(present(list.data?.students))
  const presets = $derived(Object.entries(list.data?.preset_spans_mm ?? {}).sort(([, a], [, b]) => a - b))
  const student = $derived(list.data?.students.find((each) => each.id === whom.studentId))
  const preset = $derived(presets.find(([, span]) => span === whom.hand.span_mm)?.[0])
  const name = $derived(
    whom.studentId === null
      ? preset
        ? `a ${preset} hand`
        : `a hand of ${whom.hand.span_mm} mm`
      : (student?.name ?? '…'),
  )
  let open = $state(false)

  // Somebody who is not known any more is nobody.
  $effect(() => {
    if (list.data && whom.studentId !== null && !student) chooseHand({ ...MEDIUM })
  })

  function take(choose: () => void): void {
    choose()
    open = false
  }

  function type(text: string): void {
    const span = Number(text)
    if (span >= 40 && span <= 200) chooseHand({ ...whom.hand, span_mm: span })
  }
</script>

<Popover.Root bind:open>
  <Popover.Trigger class="control max-w-48" aria-label="for {name}, for whom" data-whom>
    <span class="min-w-0 truncate"><span class="text-quiet">for</span> {name}</span>
    <ChevronDown size={16} class="shrink-0 text-quiet" />
  </Popover.Trigger>
  <Popover.Portal>
    <Popover.Content class="float w-72" sideOffset={4} align="start">
      <FetchErrors of={[list]} />
      <ul aria-label="Students">
        {#each students as each (each.id)}
          <li>
            <button class="float-item w-full" onclick={() => take(() => chooseStudent(each.id))}>
              <span class="w-5"
                >{#if each.id === whom.studentId}<Check size={15} />{/if}</span
              >
              <span class="grow truncate text-left">{each.name}</span>
              <span class="text-sm text-quiet">{each.span_mm} mm</span>
            </button>
          </li>
        {/each}
      </ul>
      <ul class="mt-1 border-t border-contour pt-1" aria-label="Hands">
        {#each presets as [hand, span_mm] (hand)}
          <li>
            <button
              class="float-item w-full"
              onclick={() => take(() => chooseHand({ ...whom.hand, span_mm }))}
            >
              <span class="w-5"
                >{#if whom.studentId === null && hand === preset}<Check size={15} />{/if}</span
              >
              <span class="grow text-left">a {hand} hand</span>
              <span class="text-sm text-quiet">{span_mm} mm</span>
            </button>
          </li>
        {/each}
      </ul>
      {#if whom.studentId === null}
        <div class="mt-1 space-y-2 border-t border-contour px-3 pt-2 pb-1">
          <label class="flex items-center justify-between gap-2"
            >from index to little finger <span
              ><input
                class="field no-spin w-12 text-right"
                type="number"
                min="40"
                max="200"
                step="1"
                aria-label="Hand span in mm, index to little finger"
                value={whom.hand.span_mm}
                oninput={(event) => type(event.currentTarget.value)}
              /> mm</span
            ></label
          >
          <div class="flex items-center justify-between gap-2">
            little finger <LittleFinger
              value={whom.hand.little_finger}
              onchange={(little_finger) => chooseHand({ ...whom.hand, little_finger })}
            />
          </div>
          <Tick
            checked={whom.hand.thumb_over}
            onchange={(thumb_over) => chooseHand({ ...whom.hand, thumb_over })}
            >the thumb may fret the bass</Tick
          >
        </div>
      {/if}
      <a class="float-item mt-1 border-t border-contour pt-2 underline" href="#/students">Students …</a>
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
