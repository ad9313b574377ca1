/** What a screen hands to the printer: the browser prints these sheets and nothing else. */
import { onDestroy } from 'svelte'
import type { Analysis, Lesson, Part, Rung, SheetBlock } from '../api/client'
import { setupWords } from '../components/setup'
import rows from '../rows.json'
import { SHEET_WORDS, type SheetLanguage } from './lessonwords'

export interface SheetRow {
  name: string // who plays it, or `original` and `version`; empty where there is one row
  part: Part
}
/** One sheet to take home; it begins on a page of its own. */
export interface SheetContent {
  title: string
  under: string // what it is: `as written`, `asked for Step 4`
  whom: string
  step: number
  why: string[] // what makes it hard, in two sentences
  setup: string
  order: string[] // sections as played
  play: string[] // what was changed, for the student
  rows: SheetRow[]
}

/** The ladder in words. */
export interface LadderContent {
  ladder: string // its name
  rungs: Rung[]
}

/** The sheet of a lesson: blocks under a title, in the order the teacher chose. */
export interface LessonContent {
  analysis: Analysis
  part: Part // what is handed out: the original or a version
  rows: SheetRow[] // the music under one another, the part among it
  under: string
  lesson: Lesson | null // of the part; none while it is fetched
  blocks: SheetBlock[]
  language: SheetLanguage
  density: number // how closely it is set, an index of `DENSITIES`
}

type Offer = () => (SheetContent | LadderContent | LessonContent)[]
let offered: Offer | null = null

/** From a screen: what is printed while it is open. */
export function offerSheet(offer: Offer): void {
  offered = offer
  onDestroy(() => {
    if (offered === offer) offered = null
  })
}

/** What the open screen offers now. */
export function sheetsNow(): ReturnType<Offer> {
  return offered?.() ?? []
}

/** Cautions of all rows, each once. */
export function cautionsOf(content: SheetContent): string[] {
  return [...new Set(content.rows.flatMap(({ part }) => part.cautions.map(({ words }) => words)))]
}

/** What is said in general, beside any caution. */
export const PAIN = rows.care.pain
export const LOUDNESS = rows.care.loudness

/** Sections as they are played: `Verse x2`, `Verse 2 (as Verse, other: bar 9)`. */
export function orderOf(part: Part, language: SheetLanguage = 'en'): string[] {
  if (part.sections.length === 0) return []
  return part.map
    .filter(({ name }) => name)
    .map(({ name, times, counted, like, changed_bars }) => {
      const count = !counted ? ' x?' : times > 1 ? ` x${times}` : ''
      return `${name}${count}${like ? ` (${SHEET_WORDS[language].as(like, changed_bars.join(', '))})` : ''}`
    })
}

/** A sheet of rows that belong to one song; the last row is the one to play. */
export function sheetOf(
  analysis: Analysis,
  own: SheetRow[],
  under: string,
  play: string[] = [],
): SheetContent {
  const { part } = own[own.length - 1]
  return {
    title: analysis.title,
    under,
    whom: analysis.whom,
    step: part.step,
    why: part.sentences.slice(0, 2),
    setup: setupWords(
      own.map((row) => row.part),
      analysis.marked_tempo,
      analysis.feel,
    ),
    order: orderOf(part),
    play,
    rows: own,
  }
}
