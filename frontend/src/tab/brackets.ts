/** Brackets over what comes back: the same figure carries the same letter, what differs a notch. */
import type { Figure, FigurePlace, Moment, Part } from '../api/client'
import { path, text, type Mark } from './marks'

export const BRACKET_ROW = 15
const BEFORE = 8 // px from the first note's middle back to where its bracket begins
const AFTER = 9

/** `a` to `z`, then `aa`: a figure's name, by its place among all. */
export function figureName(index: number): string {
  const letter = String.fromCharCode(97 + (index % 26))
  return index < 26 ? letter : letter.repeat(Math.floor(index / 26) + 1)
}

/** The letter, with a dash where the place is not the same. */
export const placeName = (figure: number, place: FigurePlace): string =>
  figureName(figure) + (isSame(place) ? '' : '′')

const isSame = ({ like, but }: FigurePlace): boolean =>
  (like === 'first' || like === 'equal') && but.length === 0

/** A place as far as it lies in a system. */
interface Bracket {
  from: number // px
  to: number
  begins: boolean
  ends: boolean
  name: string
  notches: number[]
  line: number // 0 = the lowest
}

type PlaceOf = (moment: Moment) => number // px

/** The brackets of a system's bars, those that would lie over one another on lines of their own. */
export function bracketsOf(
  part: Part,
  { first, last }: { first: number; last: number },
  right: number,
  left: number,
  at: PlaceOf,
): Bracket[] {
  const found = part.figures.flatMap((figure, index) =>
    figure.within
      ? []
      : figure.places
          .filter((place) => place.first.bar <= last && place.last.bar >= first)
          .map((place) => bracketOf(index, place, { first, last }, left, right, at)),
  )
  const ends: number[] = []
  for (const bracket of found) {
    const free = ends.findIndex((end) => end < bracket.from)
    bracket.line = free < 0 ? ends.length : free
    ends[bracket.line] = bracket.to
  }
  return found
}

function bracketOf(
  index: number,
  place: FigurePlace,
  { first, last }: { first: number; last: number },
  left: number,
  right: number,
  at: PlaceOf,
): Bracket {
  const begins = place.first.bar >= first
  const ends = place.last.bar <= last
  return {
    from: begins ? at(place.first) - BEFORE : left,
    to: ends ? at(place.last) + AFTER : right,
    begins,
    ends,
    name: placeName(index, place),
    notches: place.but.filter(({ bar }) => bar >= first && bar <= last).map(at),
    line: 0,
  }
}

export const bracketLines = (brackets: Bracket[]): number =>
  Math.max(0, ...brackets.map(({ line }) => line + 1))

/** Its name, then a line with ends that point down to the notes, a notch where it differs. */
export function bracketMarks(brackets: Bracket[], bottom: number): Mark[] {
  return brackets.flatMap(({ from, to, begins, ends, name, notches, line }) => {
    const y = bottom - BRACKET_ROW * line - 7
    const d = `M${from} ${begins ? `${y + 6}V` : ''}${y}H${to}${ends ? 'v6' : ''}`
    return [
      path(`figure ${name}`, 'thin', d),
      text(`figure name ${name}`, 'figure', from - 3, y + 4, name, 'end'),
      ...notches.map((x) => path('differs here', 'fill', `M${x - 4} ${y}h8l-4 6z`)),
    ]
  })
}

/** Whether a figure has a place in a bar. */
export const isInBar = (figure: Figure, bar: number): boolean =>
  figure.places.some((place) => place.first.bar <= bar && place.last.bar >= bar)
