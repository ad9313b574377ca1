/** A section as said over its first bar. */
import type { Part } from '../api/client'
import { SHEET_WORDS, type SheetLanguage } from '../sheet/lessonwords'

export function sectionWords(
  { name, times }: Part['sections'][number],
  language: SheetLanguage = 'en',
): string {
  const words = SHEET_WORDS[language]
  if (times === 1) return name
  return `${name}, ${times === null ? words.several : words.times(times)}`
}

const TINTS = 5

/** The tint of a section: the same for every section of one name; it only helps the eye, the name says it. */
export function sectionTint(sections: Part['sections'], name: string): string {
  const names = [...new Set(sections.map((section) => section.name))]
  return `var(--section-${(names.indexOf(name) % TINTS) + 1})`
}
