/** What stands on and over the strings: numbers, slurs, slides, bends, waves. */
import type { Bar, Event, Note } from '../api/client'
import { arc, arrowHead, path, text, textWidth, tones, wave, type Mark } from './marks'
import { drawnAs, fretText, isGrace, lettersOf } from './techniques'

export const LINE_GAP = 14

/** Events of a row in their places, over all bars of the system. */
export interface Placed {
  bar: Bar
  event: Event
  x: number
}

/** Where the strings lie, and the edges of the row. */
export interface Strings {
  top: number
  right: number
  over: number // the line that bends point up to
}

const yOf = (strings: Strings, string: number): number => strings.top + (string - 1) * LINE_GAP

/** How much room is needed over the strings, px. */
export function roomOver(bars: Bar[]): number {
  const notes = bars.flatMap((bar) => bar.events.flatMap((event) => event.notes))
  const has = (...drawings: string[]) => notes.some((note) => drawnAs(note, ...drawings))
  if (has('bend', 'release', 'dip')) return 30
  return has('wave', 'short_wave') ? 14 : has('slur', 'slide', 'wedge') ? 8 : 2
}

interface Sounded {
  note: Note
  x: number
  until: number // quarters from the song's first written bar
}

/** Everything on the strings of a row; `after` is the bar that follows on the next line. */
export function stringMarks(placed: Placed[], strings: Strings, after: Bar | undefined): Mark[] {
  const marks: Mark[] = []
  const before = new Map<number, Sounded>()
  let begins = 0
  placed.forEach(({ bar, event, x }, at) => {
    if (at > 0 && placed[at - 1].bar !== bar) begins += placed[at - 1].bar.quarters
    const onset = begins + event.onset_quarters
    const next = placed[at + 1]?.x ?? strings.right - 4
    for (const note of event.notes) {
      const last = before.get(note.string)
      const from = last && last.until > onset - 0.01 ? last : undefined
      marks.push(...noteMarks(note, event, { x, next, y: yOf(strings, note.string), from, strings }))
    }
    for (const note of event.notes)
      before.set(note.string, { note, x, until: onset + note.sounding_quarters })
  })
  for (const note of after?.events[0]?.notes ?? []) {
    const from = before.get(note.string)
    if (from && (note.tied || drawnAs(note, 'slur', 'slide')))
      marks.push(path('tie out', 'line', arc(from.x + 6, strings.right, yOf(strings, note.string) - 5, 5)))
  }
  return marks
}

interface Place {
  x: number
  next: number
  y: number
  from: Sounded | undefined
  strings: Strings
}

function noteMarks(note: Note, event: Event, place: Place): Mark[] {
  const { x, y } = place
  const content = fretText(note)
  const kind = isGrace(event) ? 'small' : 'fret'
  const marks: Mark[] = []
  if (!note.tied) marks.push(text(`fret ${note.string} ${note.fret}`, kind, x, y + 4.5, content))
  const half = note.tied ? 3 : textWidth(kind, content) / 2 + 1
  marks.push(...joined(note, half, place), ...slides(note, half, place))
  if (note.bend_half_tones !== null) marks.push(...bend(note, half, place))
  const waved = drawnAs(note, 'wave', 'short_wave')
  if (waved) marks.push(...waves(waved, note, half, place))
  if (event.notes[0] === note && drawnAs(note, 'dip')) marks.push(...dip(event, place))
  return marks
}

/** Arcs and lines from the note before on the string; a short one from nowhere where none sounds. */
function joined(note: Note, half: number, { x, y, from }: Place): Mark[] {
  const start = from ? from.x + 6 : x - half - 13
  const end = x - half
  if (note.tied) return [path('tie on the string', 'line', arc(start, x - 3, y - 5, 5))]
  const marks: Mark[] = []
  const slur = drawnAs(note, 'slur')
  if (slur) {
    const up = Math.min(9, 5 + (end - start) / 12)
    marks.push(path(slur, 'line', arc(start, end + 2, y - 6, up)))
    // A bend's own figure stands where the letter would.
    if (!from?.note.bend_half_tones)
      marks.push(text(`${slur} letter`, 'letter', (start + end) / 2 + 1, y - 6 - up / 2, lettersOf(slur)))
  }
  const slide = drawnAs(note, 'slide', 'shift')
  if (slide) {
    const rises = !from || note.fret >= from.note.fret ? 1 : -1
    marks.push(path(slide, 'line', `M${start} ${y + 4 * rises}L${end - 1} ${y - 4 * rises}`))
    if (drawnAs(note, 'slide') && from) marks.push(path(`${slide} arc`, 'line', arc(start, end, y - 6, 5)))
  }
  return marks
}

function slides(note: Note, half: number, { x, y }: Place): Mark[] {
  const marks: Mark[] = []
  const line = (drawing: string, from: number, rise: number) => {
    const technique = drawnAs(note, drawing)
    if (technique) marks.push(path(technique, 'line', `M${from} ${y + rise}l10 ${-2 * rise}`))
  }
  line('in_up', x - half - 11, 4)
  line('in_down', x - half - 11, -4)
  line('out_up', x + half + 1, 4)
  line('out_down', x + half + 1, -4)
  return marks
}

/** An arrow from the note to its figure over the strings, back down where it is released. */
function bend(note: Note, half: number, { x, y, from, strings }: Place): Mark[] {
  const over = strings.over + 12
  const marks: Mark[] = []
  const halfTones = note.bend_half_tones ?? 0
  let turn = x + half + 9
  if (halfTones > 0) {
    const name = `bend ${tones(halfTones)}`
    if (drawnAs(note, 'pre_bend')) {
      turn = x + half + 4
      marks.push(path('pre_bend', 'line', `M${turn} ${y - 2}V${over + 4}`))
    } else
      marks.push(path(name, 'line', `M${x + half} ${y}C${turn} ${y} ${turn} ${y - 4} ${turn} ${over + 4}`))
    marks.push(path(`${name} tip`, 'fill', arrowHead(turn, over, 1)))
    marks.push(text(`${name} figure`, 'figure', turn, over - 3, tones(halfTones)))
  } else if (from) {
    // Bent before, let down here.
    turn = x - 9
    marks.push(path('held bend', 'line', `M${from.x + 16} ${over}H${turn}`))
  }
  if (note.bend_released) {
    const end = halfTones > 0 ? turn + 10 : x
    marks.push(
      path('release', 'line', `M${turn} ${over + 1}C${end} ${over + 2} ${end} ${over + 6} ${end} ${y - 11}`),
    )
    marks.push(path('release tip', 'fill', arrowHead(end, y - 5, -1)))
  }
  return marks
}

function waves(technique: string, note: Note, half: number, { x, next, strings }: Place): Mark[] {
  const y = strings.top - 7
  const letters = lettersOf(technique)
  const start = x - half + (note.bend_half_tones ? 16 : 0) + textWidth('letter', letters)
  const end = Math.max(start + 12, Math.min(next - 8, start + 48))
  const marks: Mark[] = [path(technique, 'line', wave(start, end, y))]
  if (letters) marks.push(text(`${technique} letters`, 'letter', start - 3, y + 3, letters, 'end'))
  return marks
}

/** A notch: the pitch dips and comes back. */
function dip(event: Event, { x, strings }: Place): Mark[] {
  const y = strings.over + 8
  const marks: Mark[] = [path('whammy_dip', 'line', `M${x - 7} ${y}h2l5 9 5 -9h2`)]
  if (event.dip !== null) marks.push(text('dip depth', 'figure', x + 9, y + 9, tones(event.dip), 'start'))
  return marks
}
