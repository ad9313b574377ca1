/** What was guessed or cannot be read, as notes in the margin of its bar. */
import type { Analysis, Problem } from '../../api/client'

export interface MarginNote {
  part: number
  bar: number // index
  number: number // as the teacher counts
  words: string
  wrong: boolean // it cannot be read; else it was guessed
  place: Problem['place']
}

export function notesOf(analysis: Analysis, problems: Problem[]): MarginNote[] {
  return [
    ...problems.map((each) => ({ each, wrong: true })),
    ...analysis.guesses.map((each) => ({ each, wrong: false })),
  ].flatMap(({ each, wrong }) => {
    const { part, bar, place, message } = each
    const own = typeof part === 'number' && typeof bar === 'number' ? analysis.parts[part]?.bars[bar] : null
    return own
      ? [{ part: part as number, bar: bar as number, number: own.number, words: message, wrong, place }]
      : []
  })
}

/** What belongs to no bar. */
export function withoutBar(problems: Problem[]): Problem[] {
  return problems.filter(({ bar }) => typeof bar !== 'number')
}
