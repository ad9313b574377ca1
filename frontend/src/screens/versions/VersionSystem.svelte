<script lang="ts">
  import type { Bar, Part } from '../../api/client'
  import { rowNames } from '../../components/setup'
  import { ridge, stepY } from '../../components/climb'
  import { HARDEST, stepColour, stepText } from '../../components/steps'
  import type { SystemPicture } from '../../tab/engrave'
  import { MARGIN } from '../../tab/systems'
  import type { VersionsState } from './versions.svelte'

  interface Props {
    screen: VersionsState
    original: Part
    easier: Part
    picture: SystemPicture
    target: number
    kept: number[] // of every bar, per cent
  }
  let { screen, original, easier, picture, target, kept }: Props = $props()
  const CLIMB = 66
  const sides = $derived(
    picture.rows.map((row, at) => ({
      name: at < picture.rows.length - 1 ? 'original' : 'version',
      row,
      bars: row.bars.map((box) => (at < picture.rows.length - 1 ? original : easier).bars[box.index]),
      top: row.top + row.lanes.staffTop,
      bottom: row.top + row.lanes.staffBottom,
    })),
  )
  const above = $derived(picture.rows[0].bars.map((box) => original.bars[box.index]))
  const below = $derived(picture.rows[0].bars.map((box) => easier.bars[box.index]))
  const width = $derived(picture.width)
  const climbTop = $derived(picture.height)
  const height = $derived(climbTop + CLIMB + 38)
  const places = $derived(picture.rows[0].bars)
  const ground = (bars: Bar[]) =>
    places.map((box, at) => ({ x: box.x, width: box.width, step: bars[at].step }))

  /** Whether a bar is one of several that are chosen for one change. */
  function isPicked(bar: number): boolean {
    const [first, last] = [screen.picked?.bar, screen.pickedTo?.bar]
    return first !== undefined && last !== undefined && bar >= first && bar <= last
  }

  const names = $derived(rowNames(original, easier))

  function drag(event: PointerEvent): void {
    if (event.buttons === 0) return
    const picture = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
    const y = event.clientY - picture.top - climbTop
    screen.setTarget((1 - y / CLIMB) * (HARDEST + 1.4))
  }
  const cursorX = $derived.by(() => {
    const cursor = screen.cursor
    const at = cursor ? above.findIndex((bar) => bar.index === cursor.bar) : -1
    const side = sides.find((each) => each.name === screen.side) ?? sides.at(-1)
    return at >= 0 && cursor && side ? (side.row.bars[at].events[cursor.event]?.x ?? null) : null
  })
</script>

<svg
  class="absolute inset-0 overflow-visible"
  {width}
  {height}
  role="img"
  aria-label="Bars {above[0].number} to {above.at(-1)?.number}: {below
    .map((bar, at) => `bar ${bar.number} from Step ${stepText(above[at].step)} to ${stepText(bar.step)}`)
    .join(', ')}"
>
  {#each sides as side (side.name)}
    <text
      x="24"
      y={(side.top + side.bottom) / 2 + 4}
      class="fill-quiet text-[11px]"
      transform="rotate(-90 24 {(side.top + side.bottom) / 2})"
      text-anchor="middle">{names[side.name === 'original' ? 0 : 1]}</text
    >
    {#each side.bars as bar, at (bar.index)}
      {@const box = side.row.bars[at]}
      {#if side.name === 'version' && isPicked(bar.index)}
        <rect
          x={box.x}
          y={side.top - 14}
          width={box.width}
          height={side.bottom - side.top + 28}
          fill="none"
          stroke="var(--ink)"
          stroke-dasharray="2 3"
        />
      {/if}
      {#if side.name === 'version'}
        {#each bar.events as event, index (index)}
          {#if screen.picked?.bar === bar.index && screen.picked.event === index}
            <rect
              x={box.events[index].x - 9}
              y={side.top - 8}
              width="18"
              height={side.bottom - side.top + 16}
              fill="none"
              stroke="var(--ink)"
              stroke-width="1.5"
              rx="3"
            />
          {/if}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions: the same is done by the panel "Change it by hand" -->
          <rect
            x={box.events[index].x - 9}
            y={side.top - 8}
            width="18"
            height={side.bottom - side.top + 16}
            fill="transparent"
            class="cursor-pointer"
            onmousedown={(down) => down.shiftKey && down.preventDefault()}
            onclick={(click) => screen.pick(bar.index, index, click.shiftKey)}
            data-pick="{bar.index} {index}"
            ><title
              >{event.notes.length > 0 ? 'Change this by hand' : 'Put a note here by hand'}; with shift,
              choose the bars up to here for one change</title
            ></rect
          >
        {/each}
      {/if}
    {/each}
  {/each}
  <g transform="translate(0 {climbTop})">
    {#each [2, 4, 6, 8] as level (level)}
      <line
        x1={MARGIN}
        x2={width}
        y1={stepY(level, CLIMB)}
        y2={stepY(level, CLIMB)}
        stroke="var(--contour)"
        stroke-dasharray="1 4"
      />
    {/each}
    {#each ground(below) as column, at (below[at].index)}
      {@const y = stepY(column.step, CLIMB)}
      <rect x={column.x} width={column.width} {y} height={CLIMB - y} fill={stepColour(column.step)} />
      <text
        x={column.x + column.width / 2}
        y={CLIMB + 14}
        text-anchor="middle"
        class="fill-ink text-[12px] font-bold"
      >
        {above[at].step - column.step > 0.05 ? `${stepText(above[at].step)} → ` : ''}{stepText(column.step)}
      </text>
    {/each}
    {#each below as bar, at (bar.index)}
      {#if kept[bar.index] < 99.5}<text
          x={places[at].x + places[at].width / 2}
          y={CLIMB + 28}
          text-anchor="middle"
          class="fill-quiet text-[12px]">{kept[bar.index].toFixed(0)} % kept</text
        >{/if}
    {/each}
    <path d={ridge(ground(below), CLIMB)} fill="none" stroke="var(--ink)" stroke-width="2" />
    <path
      d={ridge(ground(above), CLIMB)}
      fill="none"
      stroke="var(--ink)"
      stroke-width="1.3"
      stroke-dasharray="4 3"
    />
    {#if target < HARDEST}<line
        x1={MARGIN}
        x2={width}
        y1={stepY(target, CLIMB)}
        y2={stepY(target, CLIMB)}
        stroke="var(--changed)"
        stroke-width="1.5"
      />{/if}
    {#if screen.target !== target}
      <line
        x1={MARGIN}
        x2={width}
        y1={stepY(screen.target, CLIMB)}
        y2={stepY(screen.target, CLIMB)}
        stroke="var(--changed)"
        stroke-width="1.5"
        stroke-dasharray="6 4"
      />
    {/if}
    <circle cx={width - 4} cy={stepY(screen.target, CLIMB)} r="6" fill="var(--changed)" />
    <!-- svelte-ignore a11y_no_static_element_interactions: the same is done by the slider and the field above -->
    <rect
      x={width - 16}
      y="-4"
      width="26"
      height={CLIMB + 8}
      fill="transparent"
      class="cursor-ns-resize touch-none"
      onpointerdown={(event) => (event.currentTarget.setPointerCapture(event.pointerId), drag(event))}
      onpointermove={drag}
    />
  </g>
  {#if cursorX !== null}<line
      x1={cursorX}
      x2={cursorX}
      y1="8"
      y2={height - 12}
      stroke="var(--changed)"
      stroke-width="2"
    />{/if}
</svg>
