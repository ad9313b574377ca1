/** A section as said over its first bar. */
import type { Part } from '../api/client'

export function sectionWords({ name, times }: Part['sections'][number]): string {
  if (times === 1) return name
  return times === null ? `${name}, several times, not counted yet` : `${name}, ${times} times`
}
