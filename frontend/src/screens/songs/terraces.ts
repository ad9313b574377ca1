/** Songs on the staircase: a terrace holds what lies between one whole Step and the next. */
import type { Card } from '../../api/client'

export type Graded = { grade: { step: number } | null }

/** A row of the list as it is drawn: some cards, and the terrace that begins with it. */
export interface Row<Song> {
  begins: string // the terrace's number, on its first row
  songs: Song[]
}

export function terraceOf(step: number): number {
  return Math.floor(step + 0.05) // as it is shown: 4.96 reads 5.0
}

/** The terraces there are, rising; songs without a grade are on none. */
export function terracesOf(songs: readonly Graded[]): number[] {
  const steps = songs.flatMap((song) => (song.grade ? [terraceOf(song.grade.step)] : []))
  return [...new Set(steps)].sort((a, b) => a - b)
}

/**
 * Rows of at most so many cards: terrace by terrace where the Step orders them, one after another
 * elsewise.
 */
export function rowsOf<Song extends Graded>(
  songs: readonly Song[],
  byStep: boolean,
  across: number,
): Row<Song>[] {
  if (!byStep) return cut(songs, '', across)
  const graded = terracesOf(songs).flatMap((terrace) =>
    cut(
      songs.filter((song) => song.grade && terraceOf(song.grade.step) === terrace),
      String(terrace),
      across,
    ),
  )
  return [
    ...graded,
    ...cut(
      songs.filter((song) => !song.grade),
      '·',
      across,
    ),
  ]
}

function cut<Song>(songs: readonly Song[], begins: string, across: number): Row<Song>[] {
  const rows: Row<Song>[] = []
  for (let at = 0; at < songs.length; at += across)
    rows.push({ begins: at === 0 ? begins : '', songs: songs.slice(at, at + across) })
  return rows
}

export interface Wanted {
  name: string
  step: string
  tuning: string
  technique: string
  section: string
}

export const ANYTHING: Wanted = { name: '', step: '', tuning: '', technique: '', section: '' }

/** What is wanted, as an address says it. */
export function wantedOf(said: Record<string, string>): Wanted {
  const { name = '', step = '', tuning = '', technique = '', section = '' } = said
  return { name, step, tuning, technique, section }
}

/** The songs that are as wanted, by Step or by name. */
export function found(songs: readonly Card[], wanted: Wanted, byStep: boolean): Card[] {
  const name = wanted.name.trim().toLowerCase()
  const fits = (song: Card): boolean => {
    if (!song.title.toLowerCase().includes(name)) return false
    const { step, tuning, technique, section } = wanted
    if (!step && !tuning && !technique && !section) return true
    const grade = song.grade
    if (!grade) return false
    return (
      (step === '' || terraceOf(grade.step) === Number(step)) &&
      (tuning === '' || grade.tuning === tuning) &&
      (technique === '' || grade.techniques.includes(technique)) &&
      (section === '' || grade.sections.includes(section))
    )
  }
  // They come by title already, and sorting keeps that order.
  const fitting = songs.filter(fits)
  return byStep ? fitting.sort((a, b) => (a.grade?.step ?? 11) - (b.grade?.step ?? 11)) : fitting
}
