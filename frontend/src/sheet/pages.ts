/** How systems are put on pages: as few as will do, none cut, none left alone on the last. */

/** A way to lay the systems out: drawn so much smaller, they are so high (px as printed). */
export interface Laid {
  scale: number
  heights: number[]
}
export interface Paged {
  scale: number
  pages: number[][] // indices of systems
}

/** px at 96 an inch that both A4 and Letter leave between margins of 14 mm. */
export const PAGE_WIDTH = 684
export const PAGE_HEIGHT = 944

/** Fill pages one after the other; `first` is what is taken of the first one already. */
export function filled(heights: number[], first: number, height = PAGE_HEIGHT): number[][] {
  const pages: number[][] = [[]]
  let used = first
  heights.forEach((own, at) => {
    if (used + own > height && (pages[pages.length - 1].length > 0 || used > 0)) {
      pages.push([])
      used = 0
    }
    pages[pages.length - 1].push(at)
    used += own
  })
  return pages
}

/** The layout with the fewest pages, the largest of those; a last page with one system counts half a page. */
export function best(layouts: Laid[], first: number): Paged {
  const tried = layouts.map(({ scale, heights }) => {
    const pages = filled(heights, first)
    const lonely = pages.length > 1 && pages[pages.length - 1].length === 1 && heights.length > 2
    return { scale, pages, cost: pages.length + (lonely ? 0.5 : 0) }
  })
  const cheapest = Math.min(...tried.map(({ cost }) => cost))
  const { scale, pages } = tried
    .filter(({ cost }) => cost === cheapest)
    .reduce((largest, each) => (each.scale > largest.scale ? each : largest))
  return { scale, pages }
}

/**
 * How closely a sheet of text and tab is set: the scale of its tab, px of its letters, height of their lines
 * (in letters), columns of its words.
 */
export const DENSITIES = [
  { scale: 0.78, letters: 12.5, line: 1.35, columns: 2 },
  { scale: 0.72, letters: 12, line: 1.3, columns: 2 },
  { scale: 0.67, letters: 11.5, line: 1.25, columns: 3 },
  { scale: 0.63, letters: 11, line: 1.2, columns: 3 },
]

/** How many pages what is so high takes, where boxes that begin and end somewhere are not cut (px). */
export function pagesTaken(height: number, boxes: { top: number; bottom: number }[]): number {
  let moved = 0
  for (const { top, bottom } of boxes) {
    const end = Math.ceil((top + moved + 1) / PAGE_HEIGHT) * PAGE_HEIGHT
    if (bottom + moved > end) moved += end - top - moved
  }
  return (height + moved) / PAGE_HEIGHT
}

const LINES = 0.15 // of a page: with less on it a last page is a few lines
const BRIM = 0.03 // so little free may spill over: text is not cut everywhere

/** The loosest density that needs no more pages than the closest, and leaves no few lines for the last. */
export function loosest(taken: number[]): number {
  const costs = taken.map((pages) => {
    const last = pages - Math.floor(pages)
    const spare = Math.ceil(pages) - pages
    return Math.ceil(pages) + (pages > 1 && last < LINES ? 0.5 : 0) + (spare < BRIM ? 0.5 : 0)
  })
  return costs.indexOf(Math.min(...costs))
}
