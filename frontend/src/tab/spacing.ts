/** Where the heads of a bar stand: by their lengths, and as far apart as what is written at them needs. */
import type { Bar, Event } from '../api/client'
import { textWidth, type TextKind } from './marks'
import { drawnAs, fretText, isGrace, wordsOf } from './techniques'

/** Which rows the reader wants to see. */
export interface Layers {
  fingers: boolean
  chords: boolean
  picking: boolean
  counts: boolean
  shapes: boolean
  figures: boolean
}
export const EVERY_LAYER: Layers = {
  fingers: true,
  chords: true,
  picking: true,
  counts: true,
  shapes: true,
  figures: true,
}

/** Places of a bar from its left edge, as narrow as can be read. */
export interface BarSpacing {
  width: number
  left: number // room before the first head
  columns: Map<number, number> // onset, as tick -> x
}

export const TICKS = 6720 // a quarter: every length and tuplet begins on a whole one
export const tickOf = (quarters: number): number => Math.round(quarters * TICKS)

const SIXTEENTH_WIDTH = 17.2
const GROWS = 0.34 // a note twice as long is this much (as a power) wider
const NARROWEST = 64
const LEFT = 14
const RIGHT = 6
const BETWEEN = 5

interface Column {
  tick: number
  before: number // room for what is written left of its middle
  after: number
  lanes: [kind: string, width: number][] // texts that stand in one row with those of other columns
}

/** The same bar of every row, spaced together. */
export function spacingOf(bars: Bar[], layers: Layers): BarSpacing {
  const columns = columnsOf(bars, layers)
  const end = Math.max(0, ...bars.map((bar) => tickOf(bar.quarters)))
  const [first] = columns
  const left = LEFT + Math.max(0, (first?.before ?? 0) - 6) + Math.max(0, ...bars.map(signsBefore))
  const places = new Map<number, number>()
  const laneEnds = new Map<string, number>()
  let x = left
  let right = 0
  columns.forEach((column, at) => {
    for (const [lane, width] of column.lanes) x = Math.max(x, (laneEnds.get(lane) ?? -99) + width / 2)
    places.set(column.tick, x)
    for (const [lane, width] of column.lanes) laneEnds.set(lane, x + width / 2 + BETWEEN)
    const next = columns[at + 1]
    const natural = naturalWidth((next?.tick ?? end) - column.tick)
    const needed = column.after + BETWEEN + (next?.before ?? 4)
    right = column.after
    x += Math.max(next ? natural : natural * 0.7, needed)
  })
  const ends = Math.max(x, right, ...laneEnds.values()) + RIGHT + Math.max(0, ...bars.map(signsAfter))
  return { width: Math.max(ends, NARROWEST), left, columns: places }
}

function naturalWidth(ticks: number): number {
  return SIXTEENTH_WIDTH * (Math.max(ticks, TICKS / 12) / (TICKS / 4)) ** GROWS
}

function signsBefore(bar: Bar): number {
  return (bar.repeat_start ? 12 : 0) + (bar.metre_changed || bar.index === 0 ? 16 : 0)
}

function signsAfter(bar: Bar): number {
  return bar.repeat_times ? 12 : 0
}

function columnsOf(bars: Bar[], layers: Layers): Column[] {
  const columns = new Map<number, Column>()
  bars.forEach((bar, row) => {
    for (const event of bar.events) {
      let tick = tickOf(event.onset_quarters)
      event.lengths.forEach((length, at) => {
        const column = columns.get(tick) ?? { tick, before: 4, after: 4, lanes: [] }
        columns.set(tick, column)
        const [before, after] = at === 0 ? reach(event) : [5, 5]
        column.before = Math.max(column.before, before)
        column.after = Math.max(column.after, after, length.dots > 0 ? 9 + 4 * length.dots : 0)
        if (at === 0) column.lanes.push(...lanesOf(event, layers, row))
        tick += tickOf(length.quarters)
      })
    }
  })
  return [...columns.values()].sort((a, b) => a.tick - b.tick)
}

/** Room left and right of an event's middle for its digits and what hangs on them. */
function reach(event: Event): [number, number] {
  let before = 5
  let after = 5
  for (const note of event.notes) {
    if (note.tied && note.bend_half_tones === null) continue
    const half = textWidth(isGrace(event) ? 'small' : 'fret', fretText(note)) / 2
    before = Math.max(before, half + (drawnAs(note, 'in_up', 'in_down') ? 11 : 0))
    before = Math.max(before, half + (drawnAs(note, 'slur') ? 9 : drawnAs(note, 'slide', 'shift') ? 7 : 0))
    const bend = note.bend_half_tones !== null ? (note.bend_released ? 24 : 15) : 0
    after = Math.max(after, half + bend + (drawnAs(note, 'out_up', 'out_down') ? 11 : 0))
  }
  return [before, after]
}

function lanesOf(event: Event, layers: Layers, row: number): [string, number][] {
  const lanes: [string, number][] = []
  const add = (kind: TextKind, lane: string, content: string) =>
    content && lanes.push([`${lane} ${row}`, textWidth(kind, content)])
  if (layers.chords) add('chord', 'chord', event.chord)
  if (layers.chords) add('remark', 'chord', event.recognised)
  if (layers.shapes) add('remark', 'change', event.change?.sign ?? '')
  if (layers.fingers) add('row', 'fingers', [...new Set(event.notes.map((note) => note.finger))].join(''))
  if (layers.counts) add('row', 'counts', event.count)
  // Words for all notes run on with a line; those for some strings and the loudness stand for themselves.
  if (event.words_by_string.length > 0 || event.dynamic) add('words', 'words', wordsOf(event).join(' '))
  return lanes
}
