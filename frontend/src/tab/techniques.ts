/** How each technique is drawn: from the rows of the core, so that a new one needs nothing here. */
import type { Event, Note } from '../api/client'
import rows from '../rows.json'

export interface TechniqueDrawing {
  technique: string
  drawing: string
  words: string
}
const DRAWINGS: Record<string, TechniqueDrawing> = Object.fromEntries(
  rows.techniques.map((row) => [row.technique, row]),
)

export function drawingOf(technique: string): string {
  return DRAWINGS[technique]?.drawing ?? 'words'
}

/** The note's technique that is drawn this way, if it has one. */
export function drawnAs(note: Note, ...drawings: string[]): string | undefined {
  return note.techniques.find((technique) => drawings.includes(drawingOf(technique)))
}

export function lettersOf(technique: string): string {
  return DRAWINGS[technique]?.words ?? technique
}

/** These stand over the note with their own drawing; all other words stand in the row of words. */
const DRAWN_ELSEWHERE = new Set(['slur', 'before', 'dip', 'short_wave'])

/** What stands over an event: words for all its notes, those for some strings, then how loud. */
export function wordsOf(event: Event): string[] {
  const forAll = event.how
    .filter((technique) => !DRAWN_ELSEWHERE.has(drawingOf(technique)))
    .map(lettersOf)
    .filter((words) => words !== '')
  const own = event.own_techniques.map((name) => name.replaceAll('_', ' '))
  const hand = event.position === null ? [] : [`position ${event.position}`]
  return [...forAll, ...event.words_by_string, ...own, ...hand, ...(event.dynamic ? [event.dynamic] : [])]
}

/** A note as a teacher writes it on the line; a tied one is not written again. */
export function fretText(note: Note): string {
  let text = drawnAs(note, 'cross') ? 'x' : String(note.fret)
  if (drawnAs(note, 'angles')) text = `<${text}>`
  const before = drawnAs(note, 'before')
  if (before) text = `${lettersOf(before)}${text}`
  if (note.uncertain) text += '?'
  return note.optional ? `(${text})` : text
}

export function isGrace(event: Event): boolean {
  return event.notes.some((note) => drawnAs(note, 'small'))
}
