/** How to get ready to play, in words for the top of a printed page. */
import type { Part } from '../api/client'

/** `drop D, capo 2, 96 quarter notes a minute`; of several parts every setup that differs. */
export function setupWords(parts: Part[], tempo: number): string {
  const setups = new Set(parts.map((part) => `${part.tuning}${part.capo ? `, capo ${part.capo}` : ''}`))
  return `${[...setups].join('; ')}, ${Math.round(tempo)} quarter notes a minute`
}
