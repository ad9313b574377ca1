/** Two writings of one thing, line beside line. */
import { diffLines } from 'diff'

export interface LinePair {
  theirs: string | null // null: nothing stands opposite
  mine: string | null
  differs: boolean
}

/** What was saved meanwhile beside what is typed here, the lines they share on the same rows. */
export function sideBySide(theirs: string, mine: string): LinePair[] {
  const pairs: LinePair[] = []
  let gone: string[] = []
  let come: string[] = []
  const flush = () => {
    for (let at = 0; at < Math.max(gone.length, come.length); at += 1)
      pairs.push({ theirs: gone[at] ?? null, mine: come[at] ?? null, differs: true })
    gone = []
    come = []
  }
  for (const part of diffLines(theirs, mine)) {
    const lines = part.value.replace(/\n$/, '').split('\n')
    if (part.removed) gone.push(...lines)
    else if (part.added) come.push(...lines)
    else {
      flush()
      pairs.push(...lines.map((line) => ({ theirs: line, mine: line, differs: false })))
    }
  }
  flush()
  return pairs
}
