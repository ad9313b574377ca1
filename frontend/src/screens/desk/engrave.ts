/** Draws one system of tab with VexFlow and tells where everything stands. */
import {
  BarlineType,
  Beam,
  Bend,
  Formatter,
  Fraction,
  MetricsDefaults,
  Renderer,
  RenderContext,
  StaveNote,
  Stem,
  type StemmableNote,
  TabNote,
  TabSlide,
  TabStave,
  TabTie,
  Tuplet,
  Vibrato,
  Voice,
} from 'vexflow/bravura'
import type { Bar, Event, Note } from '../../api/client'
import { MARGIN } from './layout'

export interface EventBox {
  x: number
}
export interface BarBox {
  index: number
  x: number
  width: number
  events: EventBox[]
}
export interface SystemBox {
  bars: BarBox[]
  top: number
  bottom: number
  gap: number
}

export const LINE_GAP = 14
const STEM_ROOM = 42
const DURATIONS: Record<string, string> = { w: 'w', h: 'h', q: 'q', e: '8', s: '16', t: '32', z: '64' }

interface Drawn {
  event: Event
  notes: StemmableNote[]
}

/** Height of the drawing above the first string, for rows of words. */
export function topOf(rows: number): number {
  return rows + STEM_ROOM
}

/** Bars to draw under one another, and where their first string lies. */
export interface Row {
  bars: Bar[]
  top: number
}

/** One box a row: the same beats stand at the same x in all of them. */
export function drawRows(
  host: HTMLDivElement,
  rows: Row[],
  widths: number[],
  strings: number,
  height: number,
): SystemBox[] {
  host.replaceChildren()
  MetricsDefaults.TabNote.text.fontSize = 11
  MetricsDefaults.TabNote.text.fontFamily = 'Atkinson Hyperlegible Mono Variable, monospace'
  const renderer = new Renderer(host, Renderer.Backends.SVG)
  renderer.resize(MARGIN + widths.reduce((sum, each) => sum + each, 0) + 2, height)
  const context = renderer.getContext()
  context.setFillStyle('var(--ink)')
  context.setStrokeStyle('var(--ink)')
  context.setBackgroundFillStyle('var(--paper)')
  const boxes: SystemBox[] = rows.map(({ top }) => ({
    bars: [],
    top,
    bottom: top + (strings - 1) * LINE_GAP,
    gap: LINE_GAP,
  }))
  const drawn: Drawn[][] = rows.map(() => [])
  let x = MARGIN
  for (const [at, width] of widths.entries()) {
    const staves = rows.map((row) => staveFor(row.bars[at], x, row.top, width, strings))
    const start = Math.max(...staves.map((stave) => stave.getNoteStartX()))
    staves.forEach((stave) => stave.setNoteStartX(start).setContext(context).drawWithStyle())
    const own = drawBars(
      context,
      staves,
      rows.map((row) => row.bars[at]),
      width,
    )
    own.forEach((events, row) => {
      drawn[row].push(...events)
      boxes[row].bars.push({
        index: rows[row].bars[at].index,
        x,
        width,
        events: events.map(({ notes }) => ({ x: notes[0].getAbsoluteX() })),
      })
    })
    x += width
  }
  drawn.forEach((events) => drawSlurs(context, events))
  return boxes
}

function staveFor(bar: Bar, x: number, top: number, width: number, strings: number): TabStave {
  const stave = new TabStave(x, top, width, {
    numLines: strings,
    spacingBetweenLinesPx: LINE_GAP,
    spaceAboveStaffLn: 0,
  })
  if (bar.repeat_start) stave.setBegBarType(BarlineType.REPEAT_BEGIN)
  if (bar.repeat_times) stave.setEndBarType(BarlineType.REPEAT_END)
  else if (bar.double_bar) stave.setEndBarType(BarlineType.DOUBLE)
  stave.setStyle({ strokeStyle: 'var(--staff)', fillStyle: 'var(--staff)' })
  return stave
}

/** The same bar of every row, formatted together. */
function drawBars(context: RenderContext, staves: TabStave[], bars: Bar[], width: number): Drawn[][] {
  const rows = bars.map((bar) =>
    bar.events.map((event) => ({
      event,
      notes: event.values.map((value, at) => noteFor(event, value, at > 0)),
    })),
  )
  const all = rows.map((row) => row.flatMap((each) => each.notes))
  const voices = all.map((notes) => new Voice().setMode(Voice.Mode.SOFT).addTickables(notes))
  all.forEach((notes, row) => notes.forEach((note) => note.setStave(staves[row])))
  const tuplets = rows.flatMap(tupletsOf)
  const beams = all.flatMap((notes, row) => {
    const group = new Fraction(Math.round(bars[row].beat_quarters * 2), 8)
    return Beam.generateBeams(
      notes.filter((note) => note instanceof TabNote),
      { groups: [group], stemDirection: Stem.UP, beamRests: false },
    )
  })
  const room = width - (staves[0].getNoteStartX() - staves[0].getX()) - 18
  const formatter = new Formatter()
  voices.forEach((voice) => formatter.joinVoices([voice]))
  formatter.format(voices, Math.max(room, 20))
  voices.forEach((voice, row) => voice.draw(context, staves[row]))
  beams.forEach((beam) => beam.setContext(context).draw())
  tuplets.forEach((tuplet) => tuplet.setContext(context).draw())
  return rows
}

function noteFor(event: Event, value: string, tied: boolean): StemmableNote {
  const match = /^([whqestz])(\.*)([35679]?)$/.exec(value)
  const duration = match ? DURATIONS[match[1]] : 'q'
  const dots = match ? match[2].length : 0
  if (event.notes.length === 0) {
    return new StaveNote({ keys: ['b/4'], duration: `${duration}r`, dots })
  }
  const positions = event.notes.map((note) => ({
    str: note.string,
    fret: tied || note.tied ? '–' : fretText(note),
  }))
  const drawn = new TabNote({ positions, duration, dots, stemDirection: Stem.UP }, true)
  drawn.getStem()?.setStyle({ strokeStyle: 'var(--ink)' })
  // Half notes have no head to tell them by on a tab: their stem is short.
  if (duration === 'h') drawn.getStem()?.setExtension(-14)
  if (!tied) addModifiers(drawn, event)
  return drawn
}

/** A note as a teacher writes it on the line. */
export function fretText(note: Note): string {
  let text = note.techniques.includes('dead') ? 'x' : String(note.fret)
  if (note.techniques.includes('natural_harmonic')) text = `<${text}>`
  if (note.techniques.includes('tap')) text = `t${text}`
  if (note.uncertain) text += '?'
  return note.optional ? `(${text})` : text
}

const BEND_WORDS: Record<string, string> = { 0.5: '¼', 1: '½', 1.5: '¾', 2: '1', 3: '1½', 4: '2' }

function addModifiers(drawn: TabNote, event: Event): void {
  for (const [index, note] of event.notes.entries()) {
    if (note.bend_half_tones) {
      const up = { type: Bend.UP, text: BEND_WORDS[note.bend_half_tones] ?? `${note.bend_half_tones / 2}` }
      drawn.addModifier(new Bend(note.bend_released ? [up, { type: Bend.DOWN, text: '' }] : [up]), index)
    }
    if (note.techniques.includes('vibrato')) drawn.addModifier(new Vibrato().setVibratoWidth(24), index)
  }
}

/** Runs of notes with one tuplet digit, as many as fill it. */
function tupletsOf(drawn: Drawn[]): Tuplet[] {
  const tuplets: Tuplet[] = []
  let run: StemmableNote[] = []
  let digit = 0
  for (const { event, notes } of drawn) {
    const own = Number(/([35679])$/.exec(event.values[0])?.[1] ?? 0)
    if (own !== digit) run = []
    digit = own
    if (!own) continue
    run.push(notes[0])
    if (run.length === own) {
      tuplets.push(
        new Tuplet(run, {
          numNotes: own,
          notesOccupied: 2 ** Math.floor(Math.log2(own - 1)),
          bracketed: false,
          location: 1,
        }),
      )
      run = []
    }
  }
  return tuplets
}

interface Sounded {
  drawn: StemmableNote
  index: number // among the notes struck with it
  note: Note
}

function drawSlurs(context: RenderContext, drawn: Drawn[]): void {
  const before = new Map<number, Sounded>()
  for (const { event, notes } of drawn) {
    const now = event.notes.map((note, index) => ({ drawn: notes[0], index, note }))
    for (const each of now) {
      const from = before.get(each.note.string)
      if (from) slurBetween(from, each)?.setContext(context).draw()
    }
    now.forEach((each) => before.set(each.note.string, each))
  }
}

function slurBetween(from: Sounded, to: Sounded): TabTie | undefined {
  const ends = {
    firstNote: from.drawn,
    lastNote: to.drawn,
    firstIndexes: [from.index],
    lastIndexes: [to.index],
  }
  const { techniques, tied } = to.note
  if (tied) return new TabTie(ends)
  // The bend's own figure stands there.
  const letter = (text: string) => (from.note.bend_half_tones ? undefined : text)
  if (techniques.includes('hammer_on')) return new TabTie(ends, letter('h'))
  if (techniques.includes('pull_off')) return new TabTie(ends, letter('p'))
  if (techniques.includes('slide') || techniques.includes('shift_slide')) {
    return new TabSlide(ends, to.note.fret >= from.note.fret ? TabSlide.SLIDE_UP : TabSlide.SLIDE_DOWN)
  }
  return undefined
}
