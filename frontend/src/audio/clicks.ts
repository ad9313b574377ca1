/** Where it clicks: with the music, and before it begins. */
import type { Bar, Moment, Part } from '../api/client'

export const CLICKS = ['off', 'beats', 'eighths', 'backbeat', 'turned'] as const
export type ClickKind = (typeof CLICKS)[number]
export interface Click {
  at: number // s
  accent: boolean
}
export const EARLY = 1e-6 // s: sums of lengths are not exact

/** Onsets of the clicks of a bar, in quarters; accents are the metre's: its start, and its groups in 7/8. */
export function clickPlaces(bar: Bar, kind: ClickKind): { onset: number; accent: boolean }[] {
  if (kind === 'off') return []
  const starts = [0]
  for (const group of bar.groups.slice(0, -1)) starts.push(starts[starts.length - 1] + group)
  const grouped = bar.groups.some((group) => group !== bar.beat_quarters)
  const step = kind === 'eighths' ? Math.min(bar.beat_quarters / 2, 0.5) : bar.beat_quarters
  const shift = kind === 'turned' ? bar.beat_quarters / 2 : 0
  const found = []
  for (let place = shift; place < bar.starts_at + bar.quarters - EARLY; place += step) {
    const onset = place - bar.starts_at
    const beat = Math.round((place - shift) / bar.beat_quarters)
    if (onset < -EARLY || (kind === 'backbeat' && beat % 2 === 0)) continue
    const accent = place - shift < EARLY || (grouped && starts.some((at) => Math.abs(at - place) < EARLY))
    found.push({ onset, accent: kind === 'backbeat' ? false : accent })
  }
  return found
}

/**
 * A bar of clicks on the grid of the bar that the entry belongs to, and its own beats up to the entry: a
 * pickup on 4 is counted 1 2 3 4, 1 2 3.
 */
export function countIn(part: Part, entry: Moment): { clicks: Click[]; seconds: number } {
  const bar = part.bars[entry.bar]
  const onset = bar.starts_at + (bar.events[entry.event]?.onset_quarters ?? 0)
  const whole = bar.groups.reduce((sum, group) => sum + group, 0)
  const places = clickPlaces({ ...bar, starts_at: 0, quarters: whole }, 'beats')
  const clicks = [
    ...places.map(({ onset: at, accent }) => ({ at: at * bar.quarter_seconds, accent })),
    ...places
      .filter(({ onset: at }) => at < onset - EARLY)
      .map(({ onset: at, accent }) => ({ at: (whole + at) * bar.quarter_seconds, accent })),
  ]
  return { clicks, seconds: (whole + onset) * bar.quarter_seconds }
}
