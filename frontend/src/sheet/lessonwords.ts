/** The words of a lesson sheet that are the same on every one, by its language. */
import type { Chunk, SheetBlock } from '../api/client'

export const BLOCK_NAMES: Record<SheetBlock, { en: string; es: string }> = {
  hard: { en: 'What makes it hard', es: 'Lo difícil' },
  setup: { en: 'Setting up', es: 'Antes de empezar' },
  map: { en: 'The way through', es: 'El recorrido' },
  shapes: { en: 'Shapes', es: 'Posiciones' },
  tab: { en: 'The music', es: 'La música' },
  words: { en: 'In words', es: 'Con palabras' },
  steps: { en: 'Practice', es: 'Para practicar' },
  care: { en: 'Take care', es: 'Con cuidado' },
}
export type SheetLanguage = 'en' | 'es'
interface SheetWords {
  for: string
  so_far: string
  each: string
  original: string
  version: string
  tune: string
  capo: string
  tempo: (tempo: number) => string
  as: (name: string, bars: string) => string // a section that is another again, but for some bars
  several: string
  times: (count: number) => string
}
export const SHEET_WORDS: Record<SheetLanguage, SheetWords> = {
  en: {
    for: 'for',
    so_far: 'all so far',
    each: 'Tick a tempo when it was clean three times.',
    original: 'as written',
    version: 'version',
    tune: 'Tune',
    capo: 'capo',
    tempo: (tempo) => `Tempo: ${tempo} quarter notes a minute`,
    as: (name, bars) => `as ${name}, other: bar ${bars}`,
    several: 'several times, not counted yet',
    times: (count) => `${count} times`,
  },
  es: {
    for: 'para',
    so_far: 'todo hasta aquí',
    each: 'Marca un tempo cuando salga limpio tres veces.',
    original: 'como está escrito',
    version: 'versión',
    tune: 'Afinación',
    capo: 'cejilla',
    tempo: (tempo) => `Tempo: ${tempo} negras por minuto`,
    as: (name, bars) => `como ${name}, distinto: compás ${bars}`,
    several: 'varias veces, sin contar',
    times: (count) => `${count} veces`,
  },
}

/** Tempi to tick, from the one to begin with up to the marked one, in quarter notes a minute. */
export function tempiOf(chunk: Chunk, marked: number): number[] {
  const start = chunk.tempo ?? 50
  const count = start >= 100 ? 1 : start >= 85 ? 2 : start >= 70 ? 3 : 4
  const percents = Array.from({ length: count }, (_, at) =>
    count === 1 ? 100 : start + ((100 - start) * at) / (count - 1),
  )
  return percents.map((percent) => Math.round((marked * percent) / 100))
}
