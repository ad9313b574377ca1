/** Parts under one another, bar beside bar: by the names of their sections where their lengths differ. */
import type { Bar, FigurePlace, Moment, Part } from '../api/client'
import { silentBar } from './systems'

/** The bars (own indices) of every part in the columns they share, -1 where a part has nothing. */
export function columnsOf(parts: Part[]): number[][] {
  const lead = parts.reduce(
    (longest, part) => (part.bars.length > longest.bars.length ? part : longest),
    parts[0],
  )
  const uneven = parts.some((part) => part.bars.length !== lead.bars.length)
  const plain = (part: Part) => lead.bars.map((_, index) => (index < part.bars.length ? index : -1))
  if (!uneven || parts.some((part) => part.sections.length === 0)) return parts.map(plain)
  return parts.map((part) => {
    if (part === lead) return plain(part)
    const columns = lead.bars.map(() => -1)
    lead.sections.forEach((section, at) => {
      const length = lengthOf(lead, at)
      const own = part.sections.findIndex(({ name }) => name.toLowerCase() === section.name.toLowerCase())
      if (own < 0) return
      for (let bar = 0; bar < Math.min(length, lengthOf(part, own)); bar++)
        columns[section.first_bar + bar] = part.sections[own].first_bar + bar
    })
    return columns
  })
}

function lengthOf(part: Part, section: number): number {
  return (part.sections[section + 1]?.first_bar ?? part.bars.length) - part.sections[section].first_bar
}

/**
 * A part laid out in shared columns: `bars` by column, `own` the index each has in its part (-1 =
 * silent).
 */
export type AlignedPart = Part & { own: number[] }

/** The same parts with as many bars each, silent where one has nothing; played as the longest is. */
export function alignedParts(parts: Part[]): AlignedPart[] {
  const columns = columnsOf(parts)
  const lead = Math.max(
    0,
    columns.findIndex((own) => own.every((index, at) => index === at)),
  )
  return parts.map((part, at) => ({
    ...part,
    own: columns[at],
    sections: parts[lead].sections,
    played: parts[lead].played,
    shape_places: part.shape_places.flatMap((place) => {
      const column = columns[at].indexOf(place.bar)
      return column < 0 ? [] : [{ ...place, bar: column }]
    }),
    figures: part.figures.map((figure) => ({ ...figure, places: placesIn(columns[at], figure.places) })),
    bars: columns[at].map((own, column): Bar => {
      const beside = parts[lead].bars[column]
      const bar = own < 0 ? { ...silentBar(beside), step: 0, past_hand: false } : part.bars[own]
      return { ...bar, index: column }
    }),
  }))
}

/** Places by column; those that another part takes apart are left out. */
function placesIn(own: number[], places: FigurePlace[]): FigurePlace[] {
  const column = ({ bar, event }: Moment): Moment => ({ bar: own.indexOf(bar), event })
  return places
    .map((place) => ({
      ...place,
      first: column(place.first),
      last: column(place.last),
      but: place.but.map(column),
    }))
    .filter(
      ({ first, last }, at) =>
        first.bar >= 0 && last.bar - first.bar === places[at].last.bar - places[at].first.bar,
    )
}
