/** How to get ready to play, in words for the top of a printed page. */
import type { Part } from '../api/client'
import { SHEET_WORDS, type SheetLanguage } from '../sheet/lessonwords'

/** `drop D, capo 2`. */
export function setupOf(part: Pick<Part, 'tuning' | 'capo'>, language: SheetLanguage = 'en'): string {
  return `${part.tuning}${part.capo ? `, ${SHEET_WORDS[language].capo} ${part.capo}` : ''}`
}

/** The names of two rows, with their set-up where it is not the same. */
export function rowNames(original: Part, version: Part): [string, string] {
  const [first, second] = [setupOf(original), setupOf(version)]
  return first === second ? ['original', 'version'] : [`original: ${first}`, `version: ${second}`]
}

/** `Tune: drop D, capo 2. Tempo: 96 quarter notes a minute.`; of several parts every setup that differs. */
export function setupWords(
  parts: Part[],
  tempo: number,
  feel: string | null = null,
  language: SheetLanguage = 'en',
): string {
  const words = SHEET_WORDS[language]
  const setups = new Set(parts.map((part) => setupOf(part, language)))
  const felt = feel && feel !== 'straight' ? `, ${feel}` : ''
  return `${words.tune}: ${[...setups].join('; ')}. ${words.tempo(Math.round(tempo))}${felt}.`
}
