/** The rhythm line over the strings: heads, stems, beams, rests, dots, tuplets and ties. */
import type { Bar, Event } from '../api/client'
import { arc, disc, path, text, type Mark } from './marks'
import { tickOf, TICKS } from './spacing'
import { drawnAs, isGrace } from './techniques'

type Length = Event['lengths'][number]

/** One head or rest on the line. */
export interface Head {
  event: Event
  length: Length
  first: boolean // of its event
  x: number
  tick: number // in its metre
  tied: boolean // to the one before
}

export const STEM = 21
const HEAD = 4.3
const BEAM = 3.4
const BEAM_GAP = 5.4
const LIFTS = [0, 0, 0, 3, 8] // px, by the number of beams

/** How far the beams of the shortest values lift the stems. */
export function stemLift(bars: Bar[]): number {
  const values = bars.flatMap((bar) => bar.events.flatMap((event) => event.lengths.map(({ value }) => value)))
  return LIFTS[values.includes('z') ? 4 : values.includes('t') ? 3 : 0]
}
const FLAGS: Record<string, number> = { e: 1, s: 2, t: 3, z: 4 }
const NAMES: Record<string, string> = { w: 'whole', h: 'half', q: 'quarter', e: 'eighth', s: 'sixteenth' }

/** The heads of a bar, at the places of its columns. */
export function headsOf(bar: Bar, placeAt: (tick: number) => number): Head[] {
  const starts = tickOf(bar.starts_at)
  return bar.events.flatMap((event) => {
    let tick = tickOf(event.onset_quarters)
    const tied = event.notes.length > 0 && event.notes.every((note) => note.tied)
    return event.lengths.map((length, at) => {
      const head = {
        event,
        length,
        first: at === 0,
        x: placeAt(tick),
        tick: starts + tick,
        tied: at > 0 || tied,
      }
      tick += tickOf(length.quarters)
      return head
    })
  })
}

const isRest = (head: Head): boolean => head.event.notes.length === 0
const isStemmed = (head: Head): boolean =>
  !isRest(head) && !head.event.free && head.length.value !== 'w' && head.length.value !== ''

/** Everything of one bar but its ties; y is the middle of the heads, `middle` that of the bar. */
export function rhythmMarks(bar: Bar, heads: Head[], y: number, middle: number): Mark[] {
  if (heads.every(isRest)) return rest('w', middle, y, 'rest whole bar')
  const marks: Mark[] = []
  for (const head of heads) {
    if (isRest(head)) marks.push(...rest(head.length.value, head.x, y, `rest ${nameOf(head.length)}`))
    else marks.push(...headMarks(head, y))
    for (let dot = 0; dot < head.length.dots; dot++)
      marks.push(path('dot', 'fill', disc(head.x + 9 + 4 * dot, y - 2, 1.4)))
  }
  const beams = beamsOf(bar, heads)
  for (const beam of beams) marks.push(...beamMarks(beam, y))
  const beamed = new Set(beams.flat())
  for (const head of heads) if (isStemmed(head) && !beamed.has(head)) marks.push(...flags(head, y))
  return [...marks, ...tupletMarks(bar, heads, beams, y)]
}

function nameOf(length: Length): string {
  return (
    NAMES[length.value] ?? (length.value === 't' ? 'thirty-second' : length.value ? 'sixty-fourth' : 'free')
  )
}

function headMarks(head: Head, y: number): Mark[] {
  const { x, length, event } = head
  const name = `head ${nameOf(length)}`
  const small = isGrace(event) ? 0.7 : 1
  const open = length.value === 'w' || length.value === 'h'
  const diamond = event.notes.some((note) => drawnAs(note, 'angles', 'diamond'))
  const marks: Mark[] = [
    path(
      diamond ? `${name} diamond` : name,
      open ? 'open' : 'fill',
      diamond ? `M${x - 5} ${y}l5 -4.4 5 4.4 -5 4.4z` : ellipse(x, y, small, length.value === 'w'),
    ),
  ]
  if (isGrace(event)) marks.push(path('grace stroke', 'line', `M${x - 3} ${y - 6}l11 -8`))
  return [...marks, ...articulation(head, y)]
}

const stemX = (head: Head): number => head.x + (isGrace(head.event) ? HEAD * 0.7 : HEAD)

function articulation(head: Head, y: number): Mark[] {
  const { event, x, first } = head
  const marks: Mark[] = []
  const has = (drawing: string) => first && event.notes.some((note) => drawnAs(note, drawing))
  if (has('dot')) marks.push(path('staccato', 'fill', disc(x, y + 8, 1.6)))
  if (has('wedge')) marks.push(path('accent', 'line', `M${x - 5} ${y + (has('dot') ? 11 : 6)}l10 3 -10 3`))
  if (event.notes.some((note) => drawnAs(note, 'strokes'))) {
    const [at, top] = head.length.value === 'w' ? [x, y - 16] : [stemX(head), y - 14]
    const d = [0, 4, 8].map((down) => `M${at - 5} ${top + down + 2}l10 -4`).join('')
    marks.push(path('tremolo', 'bold', d))
  }
  return marks
}

/** A head, leaning a little as a pen would write it; a whole note lies flat. */
function ellipse(x: number, y: number, size: number, flat: boolean): string {
  const [rx, ry] = flat ? [5.6, 3.6] : [4.6 * size, 3.4 * size]
  const lean = flat ? 0 : -18
  const dx = rx * Math.cos((lean * Math.PI) / 180)
  const dy = rx * Math.sin((lean * Math.PI) / 180)
  const half = `a${rx} ${ry} ${lean} 0 1`
  return `M${x - dx} ${y - dy}${half} ${2 * dx} ${2 * dy}${half} ${-2 * dx} ${-2 * dy}z`
}

/** A rest, centred on the line. */
function rest(value: string, x: number, y: number, name: string): Mark[] {
  if (value === 'w') return [path(name, 'fill', `M${x - 8} ${y - 5}h16v1.2h-3.5v3.6h-9v-3.6h-3.5z`)]
  if (value === 'h') return [path(name, 'fill', `M${x - 8} ${y + 4}h16v-1.2h-3.5v-3.6h-9v3.6h-3.5z`)]
  if (value === 'q' || value === '')
    return [path(name, 'bold', `M${x - 2.5} ${y - 9}l4.5 5.5q-4 3 .5 7q-5 -2 -1.5 4.5`)]
  const count = FLAGS[value]
  const hooks = Array.from(
    { length: count },
    (_, at) => `M${x - 3 - at * 1.4} ${y - 4 + at * 5}q4 2.4 6.6 -1.6`,
  )
  const dots = Array.from({ length: count }, (_, at) => disc(x - 3 - at * 1.4, y - 5 + at * 5, 1.7))
  return [
    path(name, 'line', `${hooks.join('')}M${x + 3.6} ${y - 5.6}L${x - 0.6 - count} ${y + 5 + 2.6 * count}`),
    path(`${name} dots`, 'fill', dots.join('')),
  ]
}

/** Runs of heads joined by beams: short ones that follow one another within a group of the metre. */
export function beamsOf(bar: Bar, heads: Head[]): Head[][] {
  const ends: number[] = []
  for (const group of bar.groups) ends.push((ends.at(-1) ?? 0) + tickOf(group))
  const groupOf = (head: Head) => ends.findIndex((end) => head.tick < end)
  const beams: Head[][] = []
  let run: Head[] = []
  for (const head of heads) {
    const short = isStemmed(head) && FLAGS[head.length.value] !== undefined
    if (run.length > 0 && (!short || groupOf(head) !== groupOf(run[0]))) {
      beams.push(run)
      run = []
    }
    if (short) run.push(head)
  }
  return [...beams, run].filter((each) => each.length > 1)
}

function beamMarks(beam: Head[], y: number): Mark[] {
  const levels = beam.map((head) => FLAGS[head.length.value])
  const stems = y - STEM - LIFTS[Math.max(...levels)]
  const marks: Mark[] = beam.map((head) => path('stem', 'line', `M${stemX(head)} ${y - 1}V${stems}`))
  for (let level = 1; level <= Math.max(...levels); level++) {
    const top = stems + (level - 1) * BEAM_GAP
    const bar = (from: number, to: number) =>
      marks.push(path(`beam ${level}`, 'fill', `M${from} ${top}H${to}v${BEAM}H${from}z`))
    let from = -1
    levels.forEach((each, at) => {
      if (each < level) return
      if (from < 0) from = at
      if (levels[at + 1] >= level) return
      // A note alone at this level has a stub, towards the one it belongs to.
      if (from === at) bar(...stub(beam, at))
      else bar(stemX(beam[from]) - 0.7, stemX(beam[at]) + 0.7)
      from = -1
    })
  }
  return marks
}

function stub(beam: Head[], at: number): [number, number] {
  const x = stemX(beam[at])
  return at > 0 ? [x - 7, x + 0.7] : [x - 0.7, x + 7]
}

function flags(head: Head, y: number): Mark[] {
  const count = FLAGS[head.length.value] ?? 0
  const x = stemX(head)
  const top = y - STEM - LIFTS[count]
  const stem = path('stem', 'line', `M${x} ${y - 1}V${top}`)
  const own = Array.from({ length: count }, (_, at) =>
    path(`flag ${at + 1}`, 'fill', `M${x} ${top + at * BEAM_GAP}q1 4.5 4.6 7.2q3 3 1 7.4q.2 -4.6 -5.6 -8.4z`),
  )
  return [stem, ...own]
}

/** Notes of one tuplet: until their lengths come out even at the end of a beat, or another length follows. */
function tupletsOf(bar: Bar, heads: Head[]): Head[][] {
  const beat = tickOf(bar.beat_quarters)
  const tuplets: Head[][] = []
  let run: Head[] = []
  let sum = 0
  heads.forEach((head, at) => {
    if (head.length.tuplet === 0) return
    run.push(head)
    sum += tickOf(head.length.quarters)
    const even = sum % (TICKS / 16) === 0
    const next = heads[at + 1]
    if (!next?.length.tuplet || (even && next.tick % beat === 0)) {
      tuplets.push(run)
      run = []
      sum = 0
    }
  })
  return tuplets
}

function tupletMarks(bar: Bar, heads: Head[], beams: Head[][], y: number): Mark[] {
  return tupletsOf(bar, heads).flatMap((run) => {
    const alike = run.every((head) => head.length.value === run[0].length.value && head.length.dots === 0)
    const digit = String(alike && run.length > 1 ? run.length : run[0].length.tuplet)
    const [from, to] = [run[0].x - 4, stemX(run[run.length - 1]) + 2]
    const middle = (from + to) / 2
    const top = y - STEM - 4 - stemLift([bar])
    const marks: Mark[] = [text(`tuplet ${digit}`, 'figure', middle, top, digit)]
    const beamed = beams.some((beam) => beam.length === run.length && beam[0] === run[0])
    if (!beamed && run.length > 1) {
      const line = top - 4
      const d = `M${from} ${line + 4}v-4H${middle - 7}M${middle + 7} ${line}H${to}v4`
      marks.push(path('tuplet bracket', 'line', d))
    }
    return marks
  })
}

export function hasTuplets(bars: Bar[]): boolean {
  return bars.some((bar) => bar.events.some((event) => event.lengths.some(({ tuplet }) => tuplet > 0)))
}

/** Ties between the heads of a row, from its left edge and to its right one where they go on. */
export function tieMarks(heads: Head[], y: number, left: number, right: number, goesOn: boolean): Mark[] {
  const marks: Mark[] = []
  const tie = (from: number, to: number) => marks.push(path('tie', 'line', arc(from, to, y + 5.5, -5)))
  heads.forEach((head, at) => {
    if (!head.tied || isRest(head)) return
    const before = heads[at - 1]
    tie(before ? before.x + 3 : Math.max(left, head.x - 20), head.x - 3)
  })
  const last = heads.at(-1)
  if (goesOn && last) tie(last.x + 3, Math.min(right, last.x + 22))
  return marks
}
