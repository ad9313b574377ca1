/** How to get ready to play, in words for the top of a printed page. */
import type { Part } from '../api/client'

/** `Tune: drop D, capo 2. Tempo: 96 quarter notes a minute.`; of several parts every setup that differs. */
export function setupWords(parts: Part[], tempo: number, feel: string | null = null): string {
  const setups = new Set(parts.map((part) => `${part.tuning}${part.capo ? `, capo ${part.capo}` : ''}`))
  return `Tune: ${[...setups].join('; ')}. Tempo: ${Math.round(tempo)} quarter notes a minute${feel && feel !== 'straight' ? `, ${feel}` : ''}.`
}
