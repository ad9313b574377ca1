/** Draws one system of one or several parts: where everything stands, as marks; no page is needed for it. */
import type { Bar, Part } from '../api/client'
import { sectionWords } from '../components/sections'
import { fingerRow } from './fingers'
import {
  barLines,
  changeMarks,
  endingMarks,
  lanesOf,
  metreMarks,
  numberMarks,
  pickingMarks,
  wordMarks,
  wordsOfRow,
  type Lanes,
} from './lanes'
import { path, text, textWidth, type Mark } from './marks'
import { headsOf, rhythmMarks, tieMarks, type Head } from './rhythm'
import { shapeMarks } from './shapes'
import { tickOf, type Layers } from './spacing'
import { LINE_GAP, stringMarks, type Placed } from './strings'
import { barsAt, MARGIN, placeIn, type SystemBars } from './systems'

export interface BarBox {
  index: number
  x: number
  width: number
  events: { x: number }[]
}
/** A part's row in the system: its marks stand from `top` on. */
export interface RowPicture {
  top: number
  lanes: Lanes
  bars: BarBox[]
  marks: Mark[]
}
export interface SystemPicture {
  width: number
  height: number
  rows: RowPicture[]
}

/** One system; `head` is room over every row, for a name. */
export function engraved(parts: Part[], system: SystemBars, layers: Layers, head = 0): SystemPicture {
  const rows: RowPicture[] = []
  let top = head
  for (const part of parts) {
    const row = rowOf(part, parts, system, layers)
    rows.push({ ...row, top })
    top += row.lanes.height + head
  }
  return {
    width: MARGIN + system.widths.reduce((sum, width) => sum + width, 0) + 2,
    height: top - head,
    rows,
  }
}

function rowOf(part: Part, parts: Part[], system: SystemBars, layers: Layers): Omit<RowPicture, 'top'> {
  const at = parts.indexOf(part)
  const bars: Bar[] = []
  for (let index = system.first; index <= system.last; index++) bars.push(barsAt(parts, index)[at])
  const xs = system.widths.map((_, index) =>
    system.widths.slice(0, index).reduce((sum, width) => sum + width, MARGIN),
  )
  const right = xs[xs.length - 1] + system.widths[system.widths.length - 1]
  const place = (bar: number, tick: number) =>
    xs[bar] + placeIn(system.spacings[bar], tick, system.widths[bar])
  const placed: Placed[] = bars.flatMap((bar, index) =>
    bar.events.map((event) => ({ bar, event, x: place(index, tickOf(event.onset_quarters)) })),
  )
  const eventX = (bar: number, event: number) =>
    place(bar - system.first, tickOf(part.bars[bar].events[event].onset_quarters))
  const words = wordsOfRow(placed, right)
  const drawn = layers.shapes
    ? part.shape_places.filter(({ bar }) => bar >= system.first && bar <= system.last)
    : []
  const begun = system.inline && at === 0 ? sectionsIn(part, system) : []
  const lanes = lanesOf(bars, words, layers, part.neck.string_letters.length, {
    sections: begun.length > 0,
    shapes: drawn.length > 0,
  })
  const marks: Mark[] = [
    ...staffMarks(part, lanes, right),
    ...endingMarks(bars, xs, system.widths, lanes),
    ...wordMarks(words, lanes),
    ...drawn.flatMap(({ bar, event, shape }) =>
      shapeMarks({ ...shape, name: layers.chords ? '' : shape.name }, eventX(bar, event) + 10, lanes.shape),
    ),
    ...begun.map((section) =>
      sectionMark(section, xs[section.first_bar - system.first], right, lanes.section),
    ),
  ]
  const heads: Head[] = []
  bars.forEach((bar, index) => {
    const own = headsOf(bar, (tick) => place(index, tick))
    heads.push(...own)
    marks.push(
      ...barMarks(part, bar, bar.index === part.bars.length - 1, xs[index], system.widths[index], lanes),
    )
    const middle = xs[index] + (system.spacings[index].left + system.widths[index]) / 2
    marks.push(...rhythmMarks(bar, own, lanes.rhythm, middle))
  })
  const after = part.bars[system.last + 1]
  const goesOn = after?.events[0]?.notes.length > 0 && after.events[0].notes.every((note) => note.tied)
  marks.push(...tieMarks(heads, lanes.rhythm, MARGIN, right, goesOn))
  const strings = { top: lanes.staffTop, left: MARGIN, right, over: lanes.over }
  marks.push(...stringMarks(placed, strings, after), ...eventMarks(bars, placed, layers, lanes))
  return {
    lanes,
    marks,
    bars: bars.map((bar, index) => ({
      index: bar.index,
      x: xs[index],
      width: system.widths[index],
      events: placed.filter((each) => each.bar === bar).map(({ x }) => ({ x })),
    })),
  }
}

function sectionsIn(part: Part, { first, last }: SystemBars): Part['sections'] {
  return part.sections.filter(({ first_bar }) => first_bar >= first && first_bar <= last)
}

/** A section's name over its first bar, moved back where it would run over the edge. */
function sectionMark(section: Part['sections'][number], x: number, right: number, y: number): Mark {
  const words = sectionWords(section)
  const from = Math.max(MARGIN, Math.min(x, right - textWidth('section', words)))
  return text('section', 'section', from, y, words, 'start')
}

function staffMarks(part: Part, lanes: Lanes, right: number): Mark[] {
  return part.neck.string_letters.flatMap((letter, index, all) => {
    const y = lanes.staffBottom - (all.length - 1 - index) * LINE_GAP
    return [
      path('string', 'string', `M${MARGIN} ${y}H${right}`),
      text(`string name ${letter}`, 'quiet', 6, y + 4, letter, 'start'),
    ]
  })
}

function barMarks(part: Part, bar: Bar, last: boolean, x: number, width: number, lanes: Lanes): Mark[] {
  const marks = [...barLines(bar, x === MARGIN, last, x, width, lanes), ...numberMarks(bar, x, width, lanes)]
  if (bar.index === 0 && part.feel && part.feel !== 'straight')
    marks.push(text('feel', 'remark', x + 22, lanes.number - 2, part.feel, 'start'))
  if (bar.metre_changed || bar.index === 0)
    marks.push(...metreMarks(bar, x + 11 + (bar.repeat_start ? 12 : 0), lanes))
  return marks
}

/** What stands over and under each event: its chord, its fingers, strokes and count. */
function eventMarks(bars: Bar[], placed: Placed[], layers: Layers, lanes: Lanes): Mark[] {
  const marks: Mark[] = []
  const fingers = bars.flatMap((bar) => fingerRow(bar.events))
  placed.forEach(({ event, x }, at) => {
    if (layers.chords && event.chord) marks.push(text('chord', 'chord', x, lanes.chord, event.chord))
    if (layers.fingers && fingers[at]) {
      const pinned = event.notes.some((note) => note.finger_pinned)
      marks.push(text('fingers', pinned ? 'pinned' : 'row', x, lanes.finger, fingers[at]))
    }
    marks.push(...changeMarks({ bar: placed[at].bar, event, x }, lanes.changed))
    if (layers.picking) marks.push(...pickingMarks({ bar: placed[at].bar, event, x }, lanes.picking))
    if (layers.counts && event.count) marks.push(text('count', 'row', x, lanes.count, event.count))
  })
  return marks
}
