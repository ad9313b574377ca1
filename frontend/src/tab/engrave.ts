/** Draws one system of one or several parts: where everything stands, as marks; no page is needed for it. */
import type { Bar, Moment, Part } from '../api/client'
import { sectionWords } from '../components/sections'
import type { SheetLanguage } from '../sheet/lessonwords'
import { bracketLines, bracketMarks, bracketsOf } from './brackets'
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
import { MARGIN, placeIn, type SystemBars } from './systems'

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

/**
 * One system; `head` is room over every row, for a name. Where several parts stand under one another there are
 * no brackets over what comes back: each part has letters of its own.
 */
export function engraved(
  parts: Part[],
  system: SystemBars,
  chosen: Layers,
  head = 0,
  language: SheetLanguage = 'en',
): SystemPicture {
  const layers = { ...chosen, figures: chosen.figures && parts.length === 1 }
  const rows: RowPicture[] = []
  let top = head
  parts.forEach((part, at) => {
    const row = rowOf(part, system, layers, system.inline && at === 0 ? language : null)
    rows.push({ ...row, top })
    top += row.lanes.height + head
  })
  return { width: rightOf(system) + 2, height: top - head, rows }
}

/** The bars of one row where they stand, and the place of every moment in them. */
interface Laid {
  bars: Bar[]
  xs: number[]
  right: number
  place: (bar: number, tick: number) => number // bar counted within the system
}

function rightOf(system: SystemBars): number {
  return system.widths.reduce((sum, width) => sum + width, MARGIN)
}

function laidOut(part: Part, system: SystemBars): Laid {
  let x = MARGIN
  const xs = system.widths.map((width) => (x += width) - width)
  return {
    bars: part.bars.slice(system.first, system.last + 1),
    xs,
    right: rightOf(system),
    place: (bar, tick) => xs[bar] + placeIn(system.spacings[bar], tick, system.widths[bar]),
  }
}

/** `names`: the names of sections stand within the row. */
/** `names`: in which language the sections are named, if at all. */
function rowOf(
  part: Part,
  system: SystemBars,
  layers: Layers,
  names: SheetLanguage | null,
): Omit<RowPicture, 'top'> {
  const laid = laidOut(part, system)
  const { bars, xs, right, place } = laid
  const placed: Placed[] = bars.flatMap((bar, index) =>
    bar.events.map((event) => ({ bar, event, x: place(index, tickOf(event.onset_quarters)) })),
  )
  const words = wordsOfRow(placed, right)
  const shapes = layers.shapes ? within(part.shape_places, system, ({ bar }) => bar) : []
  const momentAt = ({ bar, event }: Moment) =>
    place(bar - system.first, tickOf(part.bars[bar].events[event].onset_quarters))
  const brackets = layers.figures ? bracketsOf(part, system, right, MARGIN, momentAt) : []
  const begun = names ? within(part.sections, system, ({ first_bar }) => first_bar) : []
  const lanes = lanesOf(bars, words, layers, part.neck.string_letters.length, {
    sections: begun.length > 0,
    shapes: shapes.length > 0,
    brackets: bracketLines(brackets),
  })
  const strings = { top: lanes.staffTop, right, over: lanes.over }
  const marks: Mark[] = [
    ...staffMarks(part, lanes, right),
    ...endingMarks(bars, xs, system.widths, lanes),
    ...wordMarks(words, lanes),
    ...bracketMarks(brackets, lanes.bracket),
    ...shapes.flatMap(({ bar, event, shape }) => {
      const named = { ...shape, name: layers.chords ? '' : shape.name }
      return shapeMarks(named, momentAt({ bar, event }) + 10, lanes.shape)
    }),
    ...begun.map((section) =>
      sectionMark(
        sectionWords(section, names ?? 'en'),
        xs[section.first_bar - system.first],
        right,
        lanes.section,
      ),
    ),
    ...barsMarks(part, laid, system, lanes),
    ...stringMarks(placed, strings, part.bars[system.last + 1]),
    ...eventMarks(bars, placed, layers, lanes),
  ]
  const boxes = bars.map((bar, index) => ({
    index: bar.index,
    x: xs[index],
    width: system.widths[index],
    events: placed.filter((each) => each.bar === bar).map(({ x }) => ({ x })),
  }))
  return { lanes, marks, bars: boxes }
}

/** Lines, numbers and rhythm of every bar, and the ties between them. */
function barsMarks(part: Part, { bars, xs, right, place }: Laid, system: SystemBars, lanes: Lanes): Mark[] {
  const marks: Mark[] = []
  const heads: Head[] = []
  bars.forEach((bar, index) => {
    const own = headsOf(bar, (tick) => place(index, tick))
    heads.push(...own)
    const width = system.widths[index]
    marks.push(...barMarks(part, bar, bar.index === part.bars.length - 1, xs[index], width, lanes))
    marks.push(...rhythmMarks(bar, own, lanes.rhythm, xs[index] + (system.spacings[index].left + width) / 2))
  })
  const next = part.bars[system.last + 1]?.events[0]?.notes ?? []
  const goesOn = next.length > 0 && next.every((note) => note.tied)
  return [...marks, ...tieMarks(heads, lanes.rhythm, MARGIN, right, goesOn)]
}

/** Those that begin in a bar of the system. */
function within<T>(all: T[], { first, last }: SystemBars, barOf: (each: T) => number): T[] {
  return all.filter((each) => barOf(each) >= first && barOf(each) <= last)
}

/** A section's name over its first bar, moved back where it would run over the edge. */
function sectionMark(words: string, x: number, right: number, y: number): Mark {
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
    else if (layers.chords && event.recognised)
      marks.push(text('recognised', 'remark', x, lanes.chord, event.recognised))
    if (layers.shapes && event.change)
      marks.push(text('change of shape', 'remark', x - 5, lanes.change, event.change.sign, 'start'))
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
