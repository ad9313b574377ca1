/** Rows of words over and under the strings of one system: which there are, and how high each lies. */
import type { Bar } from '../api/client'
import { BRACKET_ROW } from './brackets'
import { disc, path, text, textWidth, type Mark } from './marks'
import { hasTuplets, STEM, stemLift } from './rhythm'
import { SHAPE_HEIGHT } from './shapes'
import type { Layers } from './spacing'
import { LINE_GAP, roomOver, type Placed } from './strings'
import { wordsOf } from './techniques'

const ROW = 16

/** Heights within a row of a system, px from its top. */
export interface Lanes {
  section: number
  endings: number
  shape: number // top of the pictures
  chord: number
  change: number // how the hand comes to a shape
  remark: number // of the lowest line of remarks
  words: number
  bracket: number // bottom of the lowest
  number: number
  rhythm: number // middle of the heads
  over: number // top of the room over the strings
  staffTop: number
  staffBottom: number
  changed: number // middle of the marks of what differs from the other side
  finger: number
  picking: number
  count: number
  height: number
}

/** One line of words, from where it stands to where it ends. */
interface Run {
  x: number
  end: number
  content: string
  line: number // 0 = the lowest
}

export interface RowWords {
  remarks: Run[]
  words: Run[]
}

/** Words and remarks of a row, those that would run into one another on lines of their own. */
export function wordsOfRow(placed: Placed[], right: number): RowWords {
  const remarks = placed
    .filter(({ event }) => event.remark)
    .map(({ event, x }) => {
      const width = textWidth('remark', event.remark)
      return runAt(Math.max(2, Math.min(x - 4, right - width)), width, event.remark)
    })
  return { remarks: stacked(remarks), words: stacked(wordRuns(placed)) }
}

const runAt = (x: number, width: number, content: string): Run => ({ x, end: x + width, content, line: 0 })

/** The same words over neighbouring events are written once, with a line to the last. */
function wordRuns(placed: Placed[]): Run[] {
  const runs: Run[] = []
  let before = ''
  for (const { event, x } of placed) {
    const free = event.free ? ['free'] : []
    const content = [...wordsOf(event), ...free, ...(event.uncertain ? ['?'] : [])].join(' ')
    if (content && content === before) runs[runs.length - 1].end = x + 6
    else if (content) runs.push(runAt(x - 6, textWidth('words', content), content))
    before = content
  }
  return runs
}

function stacked(runs: Run[]): Run[] {
  const ends: number[] = []
  for (const run of runs) {
    const free = ends.findIndex((end) => end + 8 < run.x)
    run.line = free < 0 ? ends.length : free
    ends[run.line] = run.end
  }
  return runs
}

const lines = (runs: Run[]): number => Math.max(0, ...runs.map((run) => run.line + 1))

/** Give every row of words that there is its height. */
export function lanesOf(
  bars: Bar[],
  words: RowWords,
  layers: Layers,
  strings: number,
  { sections, shapes, brackets }: { sections: boolean; shapes: boolean; brackets: number },
): Lanes {
  const events = bars.flatMap((bar) => bar.events)
  let y = 2
  const row = (has: boolean, height = ROW) => (y += has ? height : 0)
  const section = row(sections, 18)
  const endings = row(bars.some((bar) => bar.endings.length > 0))
  const shape = y
  row(shapes, SHAPE_HEIGHT)
  const chord = row(layers.chords && events.some((event) => event.chord || event.recognised))
  const change = row(layers.shapes && events.some((event) => event.change))
  const remark = row(true, ROW * lines(words.remarks))
  const said = row(true, ROW * lines(words.words))
  const bracket = row(brackets > 0, BRACKET_ROW * brackets + 4)
  const number = row(true, 14)
  const rhythm = y + STEM + 5 + stemLift(bars) + (hasTuplets(bars) ? 13 : 0)
  const over = rhythm + 15
  const staffTop = over + roomOver(bars)
  const staffBottom = staffTop + (strings - 1) * LINE_GAP
  y = staffBottom + 4
  const changed = y + 6
  row(
    events.some((event) => event.mark),
    13,
  )
  const finger = row(layers.fingers, 15)
  const picked = events.some((event) => event.stroke || event.notes.some((note) => note.picking))
  const picking = row(layers.picking && picked, 15)
  const count = row(layers.counts, 15)
  return {
    section,
    endings,
    shape,
    chord,
    change,
    remark,
    words: said,
    bracket,
    number,
    rhythm,
    over,
    staffTop,
    staffBottom,
    changed,
    finger,
    picking,
    count,
    height: y + 5,
  }
}

export function wordMarks({ remarks, words }: RowWords, lanes: Lanes): Mark[] {
  const marks: Mark[] = []
  for (const run of remarks)
    marks.push(text('remark', 'remark', run.x, lanes.remark - ROW * run.line, run.content, 'start'))
  for (const run of words) {
    const y = lanes.words - ROW * run.line
    marks.push(text('words', 'words', run.x, y, run.content, 'start'))
    const written = run.x + textWidth('words', run.content) + 3
    if (run.end > written) marks.push(path('words go on', 'line', `M${written} ${y - 4}H${run.end}v4`))
  }
  return marks
}

/** First and last endings as brackets with their numbers; bars of the same ending share one. */
export function endingMarks(bars: Bar[], xs: number[], widths: number[], lanes: Lanes): Mark[] {
  const marks: Mark[] = []
  bars.forEach((bar, at) => {
    if (bar.endings.length === 0) return
    const same = (other: Bar | undefined) => other?.endings.join() === bar.endings.join()
    const y = lanes.endings - 11
    const begins = !same(bars[at - 1])
    const closes = !same(bars[at + 1])
    const [from, to] = [xs[at] + (begins ? 3 : 0), xs[at] + widths[at] - (closes ? 4 : 0)]
    const d = `M${from} ${begins ? `${y + 12}V` : ''}${y}H${to}${closes && bar.repeat_times ? 'v12' : ''}`
    marks.push(path(`ending ${bar.endings.join(' ')}`, 'line', d))
    if (begins)
      marks.push(
        text(
          'ending number',
          'figure',
          from + 5,
          y + 12,
          bar.endings.map((number) => (number ? `${number}.` : 'last time')).join(' '),
          'start',
        ),
      )
  })
  return marks
}

/** Number, tempo and count of repeats over a bar. */
export function numberMarks(bar: Bar, x: number, width: number, lanes: Lanes): Mark[] {
  const y = lanes.number - 2
  const marks: Mark[] = [
    text('bar number', 'quiet', x + 3, y, `${bar.number}${bar.uncertain ? ' ?' : ''}`, 'start'),
  ]
  if (bar.tempo !== null) {
    const at = x + 34
    marks.push(
      path('tempo head', 'fill', disc(at, y - 2.5, 2.8)),
      path('tempo stem', 'line', `M${at + 2.6} ${y - 3}v-9`),
    )
    marks.push(text('tempo', 'figure', at + 8, y, `= ${bar.tempo}`, 'start'))
  }
  if (bar.repeat_times !== 0 && bar.repeat_times !== 2)
    marks.push(
      text(
        'repeat count',
        'figure',
        x + width - 3,
        y,
        bar.repeat_times < 0 ? 'several times' : `${bar.repeat_times} times`,
        'end',
      ),
    )
  return marks
}

/** What differs from the other side, where two are compared: other, or gone. */
export function changeMarks({ event, x }: Placed, y: number): Mark[] {
  if (!event.mark || event.notes.length === 0) return []
  return event.mark === 'gone'
    ? [path('gone', 'gone', `M${x - 4.5} ${y - 4.5}l9 9m0 -9l-9 9`)]
    : [path('changed', 'changed', `M${x} ${y - 5.5}l5.5 5.5 -5.5 5.5 -5.5 -5.5z`)]
}

/** Strokes and plucking fingers. */
export function pickingMarks({ event, x }: Placed, y: number): Mark[] {
  if (event.stroke === 'D')
    return [path('stroke down', 'line', `M${x} ${y - 10}v9M${x - 3.5} ${y - 4.5}l3.5 4 3.5 -4`)]
  if (event.stroke === 'U')
    return [path('stroke up', 'line', `M${x} ${y - 1}v-9M${x - 3.5} ${y - 6.5}l3.5 -4 3.5 4`)]
  const letters = event.notes
    .map((note) => note.picking ?? '')
    .reverse()
    .join('')
  return letters ? [text('picking fingers', 'remark', x, y, letters)] : []
}

/** Lines at a bar's end, and at its start in a system's first bar; with the dots of its repeats. */
export function barLines(
  bar: Bar,
  first: boolean,
  last: boolean,
  x: number,
  width: number,
  lanes: Lanes,
): Mark[] {
  const { staffTop: top, staffBottom: bottom } = lanes
  const line = (at: number) => `M${at} ${top}V${bottom}`
  const end = x + width
  const marks: Mark[] = []
  const dots = (at: number) => {
    const middle = (top + bottom) / 2
    return disc(at, middle - LINE_GAP / 2, 1.8) + disc(at, middle + LINE_GAP / 2, 1.8)
  }
  if (bar.repeat_start) {
    marks.push(path('repeat begins', 'bold', line(x + 1)), path('bar line', 'line', line(x + 5)))
    marks.push(path('repeat dots', 'fill', dots(x + 10)))
  } else if (first) marks.push(path('bar line', 'line', line(x)))
  if (bar.repeat_times !== 0) {
    marks.push(path('repeat ends', 'bold', line(end - 1)), path('bar line', 'line', line(end - 5)))
    marks.push(path('repeat dots', 'fill', dots(end - 10)))
  } else if (last) {
    marks.push(path('end', 'bold', line(end - 1)), path('bar line', 'line', line(end - 5)))
  } else if (bar.double_bar) marks.push(path('double bar', 'line', line(end - 3) + line(end)))
  else marks.push(path('bar line', 'line', line(end)))
  return marks
}

/** The metre where it begins, its figures over one another on the strings. */
export function metreMarks(bar: Bar, x: number, lanes: Lanes): Mark[] {
  const [beats, unit] = bar.metre.split('/')
  const middle = (lanes.staffTop + lanes.staffBottom) / 2
  return [
    text(`metre ${bar.metre}`, 'metre', x, middle - 1, beats),
    text('metre unit', 'metre', x, middle + 15, unit),
  ]
}
