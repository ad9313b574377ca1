<!-- What the Group lays over a drawn system: who plays each row, and the cursor. -->
<script lang="ts">
  import type { Seat } from '../../api/client'
  import { stepText } from '../../components/steps'
  import type { SystemPicture } from '../../tab/engrave'
  import { MARGIN } from '../../tab/systems'

  interface Props {
    seats: Seat[]
    picture: SystemPicture
    cursor: { bar: number; event: number } | null
  }
  let { seats, picture, cursor }: Props = $props()

  const cursorX = $derived.by(() => {
    const box = cursor ? picture.rows[0].bars.find((bar) => bar.index === cursor.bar) : undefined
    return box && cursor ? (box.events[cursor.event]?.x ?? null) : null
  })
</script>

<svg
  class="absolute inset-0 overflow-visible"
  width={picture.width}
  height={picture.height}
  data-rows
  aria-hidden="true"
>
  {#each picture.rows as row, at (at)}
    <text x={MARGIN} y={row.top - 6} class="fill-ink text-[13px]"
      ><tspan class="font-bold">{seats[at].who}</tspan><tspan class="fill-quiet" dx="8"
        >{seats[at].plays}, Step {stepText(seats[at].step)}</tspan
      ></text
    >
  {/each}
  {#if cursorX !== null}<line
      x1={cursorX}
      x2={cursorX}
      y1="8"
      y2={picture.height}
      stroke="var(--changed)"
      stroke-width="2"
    />{/if}
</svg>
