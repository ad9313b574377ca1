/** Which bars stand on which line, and how wide: pure arithmetic, so that tab and climb share one x. */
import type { Bar, Part } from '../../api/client'

export interface SystemBars {
  bars: Bar[]
  widths: number[]
}

/** Left margin of a system, where the strings' letters and the Steps' numbers stand. */
export const MARGIN = 34
const EVENT_WIDTH = 21.5
const NARROWEST = 110
const LETTER_WIDTH = 6.6

/** Room a bar needs: a place for every event, more for rows of two digits and signs. */
export function neededWidth(bar: Bar): number {
  const events = bar.events.map((event) => {
    const bends = event.notes.filter((note) => note.bend_half_tones !== null).length > 0 ? 14 : 0
    const wide = event.notes.some(
      (note) => note.optional || note.uncertain || note.techniques.includes('natural_harmonic'),
    )
      ? 8
      : 0
    return EVENT_WIDTH + bends + wide
  })
  const signs = (bar.repeat_start ? 18 : 0) + (bar.repeat_times ? 18 : 0)
  const longest = Math.max(0, ...bar.events.map(wordsWidth)) * bar.events.length
  return Math.max(NARROWEST, longest + 24, events.reduce((sum, width) => sum + width, 24) + signs)
}

/** Room that the words for some strings and the loudness take over an event. */
function wordsWidth(event: Bar['events'][number]): number {
  const said = [...event.words_by_string, ...(event.dynamic ? [event.dynamic] : [])].join(' ')
  return said ? said.length * LETTER_WIDTH + EVENT_WIDTH : 0
}

/** Break a part into systems of at most `width`; a section begins a new one. */
export function systemsOf(
  part: Part,
  width: number,
  needs: (bar: Bar) => number = neededWidth,
): SystemBars[] {
  const room = Math.max(width - MARGIN - 2, NARROWEST)
  const starts = new Set(part.sections.map((section) => section.first_bar))
  const systems: Bar[][] = []
  let used = 0
  for (const bar of part.bars) {
    const needed = needs(bar)
    if (systems.length === 0 || starts.has(bar.index) || used + needed > room) {
      systems.push([])
      used = 0
    }
    systems[systems.length - 1].push(bar)
    used += needed
  }
  return systems.map((bars) => ({ bars, widths: stretched(bars.map(needs), room) }))
}

/** Widths that fill the line, except a short last one. */
function stretched(needed: number[], room: number): number[] {
  const total = needed.reduce((sum, width) => sum + width, 0)
  const factor = total > room * 0.55 ? room / total : Math.min(1.6, room / total)
  return needed.map((width) => width * factor)
}
