<script lang="ts">
  import type { Group, GroupIn, PartOffer, Student, VersionCard } from '../../api/client'
  import PastBars from '../../components/PastBars.svelte'
  import { stepText } from '../../components/steps'
  import Select from '../../ui/Select.svelte'
  import Tick from '../../ui/Tick.svelte'
  import type { GroupState } from './group.svelte'

  interface Props {
    screen: GroupState
    group: Group
    parts: PartOffer[]
    versions: VersionCard[]
    students: Student[]
    busy: boolean
    onsave: (change: (body: GroupIn) => GroupIn) => void
  }
  let { screen, group, parts, versions, students, busy, onsave }: Props = $props()
  const offered = $derived([
    ...parts.map((part) => ({
      key: `p${part.index}`,
      words: `the original${part.name ? `, ${part.name}` : ''}, Step ${stepText(part.step)}`,
      seat: { part_index: part.index, version_id: null },
    })),
    ...versions
      .filter((version) => !version.put_away || group.seats.some((seat) => seat.version_id === version.id))
      .map((version) => ({
        key: `v${version.id}`,
        words: `${version.asked}, Step ${stepText(version.step)}`,
        seat: { part_index: version.part_index, version_id: version.id },
      })),
  ])

  function change(at: number, seat: Partial<GroupIn['seats'][number]>): void {
    onsave((body) => ({
      ...body,
      seats: body.seats.map((each, index) => (index === at ? { ...each, ...seat } : each)),
    }))
  }

  /** Somebody known by that name is that student. */
  function named(at: number, who: string): void {
    change(at, { who, student_id: students.find((student) => student.name === who)?.id ?? null })
  }

  function rename(name: string): void {
    onsave((body) => ({ ...body, name }))
  }

  function plays(at: number, key: string): void {
    const chosen = offered.find((each) => each.key === key)
    if (chosen) change(at, chosen.seat)
  }

  function remove(at: number): void {
    onsave((body) => ({ ...body, seats: body.seats.filter((_, index) => index !== at) }))
  }

  function add(): void {
    onsave((body) => {
      const free = students.find((student) => !body.seats.some((seat) => seat.who === student.name))
      const who = free?.name ?? `player ${body.seats.length + 1}`
      const seat = { who, part_index: 0, version_id: versions[0]?.id ?? null, student_id: free?.id ?? null }
      return { ...body, seats: [...body.seats, seat] }
    })
  }
</script>

<label class="text-quiet"
  >the group's name <input
    class="field block w-full font-bold text-ink"
    value={group.name}
    maxlength="80"
    onchange={(event) => rename(event.currentTarget.value)}
  /></label
>
<datalist id="students"
  >{#each students as student (student.id)}<option value={student.name}></option>{/each}</datalist
>
<ol class="mt-4">
  {#each group.seats as seat, at (at)}
    <li class="border-t border-contour py-3" data-seat={at}>
      <div class="flex items-center gap-2">
        <input
          class="field min-w-0 grow font-bold"
          list="students"
          value={seat.who}
          maxlength="80"
          aria-label="Player {at + 1}"
          onchange={(event) => named(at, event.currentTarget.value)}
        />
        {#if group.seats.length > 1}<button
            class="text-sm text-quiet underline hover:text-ink"
            onclick={() => remove(at)}
            aria-label="Take out {seat.who}">Take out</button
          >{/if}
      </div>
      <span class="mt-1.5 flex items-center gap-2 text-quiet">
        plays
        <Select
          label="What {seat.who} plays"
          class="min-w-0 grow text-ink"
          value={seat.version_id === null ? `p${seat.part_index}` : `v${seat.version_id}`}
          options={offered.map(({ key, words }) => ({ value: key, words }))}
          onchange={(key) => plays(at, key)}
        />
      </span>
      <p class="mt-1.5 text-sm text-quiet">
        Step {stepText(seat.step)} for {seat.whom}{seat.part.within_reach ? ', within reach' : ''}
      </p>
      <PastBars part={seat.part} whom={seat.whom} />
      <Tick class="text-sm" checked={screen.hears(seat, at)} onchange={() => screen.toggle(seat, at)}
        >heard</Tick
      >
    </li>
  {/each}
</ol>
<button class="mt-2 underline disabled:text-quiet" disabled={busy || group.seats.length >= 12} onclick={add}
  >Add a player</button
>
