/** A section as said over its first bar. */
import type { Part } from '../api/client'

export function sectionWords({ name, times }: Part['sections'][number]): string {
  if (times === 1) return name
  return times === null ? `${name}, several times, not counted yet` : `${name}, ${times} times`
}

const TINTS = 5

/** The tint of a section: the same for every section of one name; it only helps the eye, the name says it. */
export function sectionTint(sections: Part['sections'], name: string): string {
  const names = [...new Set(sections.map((section) => section.name))]
  return `var(--section-${(names.indexOf(name) % TINTS) + 1})`
}
