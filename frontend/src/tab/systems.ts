/** Which bars stand on which line, and how wide each is. */
import type { Bar, Part } from '../api/client'
import { spacingOf, type BarSpacing, type Layers } from './spacing'

/** Left margin of a system, where the strings' names and the Steps' numbers stand. */
export const MARGIN = 34

export interface SystemBars {
  first: number // indices of bars
  last: number
  spacings: BarSpacing[]
  widths: number[]
  inline: boolean // sections begin within it, so that their names are drawn
}

/** A bar where a part has none any more: silent, as long as the one it stands beside. */
export function silentBar(beside: Bar): Bar {
  return { ...beside, events: [], findings: [], uncertain: false, tempo: null }
}

/**
 * Break parts that stand under one another into systems of a width. A section of the first begins a new one,
 * but where paper is saved (`inline`).
 */
export function systemsOf(parts: Part[], width: number, layers: Layers, inline = false): SystemBars[] {
  const room = Math.max(width - MARGIN - 2, 120)
  const count = parts[0].bars.length // all have as many
  const spacings = Array.from({ length: count }, (_, index) =>
    spacingOf(
      parts.map((part) => part.bars[index]),
      layers,
    ),
  )
  const starts = new Set([0, ...(inline ? [] : parts[0].sections.map((section) => section.first_bar))])
  const systems: SystemBars[] = []
  for (const first of [...starts].sort((a, b) => a - b)) {
    const next = Math.min(...[...starts, count].filter((start) => start > first))
    const own = spacings.slice(first, next)
    let at = first
    for (const bars of lines(
      own.map((spacing) => spacing.width),
      room,
    )) {
      const those = spacings.slice(at, at + bars)
      systems.push({
        first: at,
        last: at + bars - 1,
        spacings: those,
        widths: stretched(those, room),
        inline,
      })
      at += bars
    }
  }
  return systems
}

/**
 * How many bars stand on each line: as few lines as will do, filled alike, so that no bar is left
 * alone on the
 * last. The sum of the squares of what is left free is least.
 */
export function lines(widths: number[], room: number): number[] {
  const best: { lines: number; free: number; from: number }[] = [{ lines: 0, free: 0, from: 0 }]
  widths.forEach((_, at) => {
    let used = 0
    let choice = { lines: Infinity, free: Infinity, from: at }
    for (let from = at; from >= 0; from--) {
      used += widths[from]
      if (used > room && from < at) break
      const before = best[from]
      const free = before.free + (room - used) ** 2
      const better =
        before.lines + 1 < choice.lines || (before.lines + 1 === choice.lines && free < choice.free)
      if (better) choice = { lines: before.lines + 1, free, from }
    }
    best.push(choice)
  })
  const counts: number[] = []
  for (let end = widths.length; end > 0; end = best[end].from) counts.unshift(end - best[end].from)
  return counts
}

/** Widths that fill the line, except a short last one. */
function stretched(spacings: BarSpacing[], room: number): number[] {
  const total = spacings.reduce((sum, { width }) => sum + width, 0)
  const factor = total > room * 0.6 ? room / total : Math.min(1.5, room / total)
  return spacings.map(({ width }) => width * factor)
}

/** Where a column stands in a bar that was stretched to a width. */
export function placeIn(spacing: BarSpacing, tick: number, width: number): number {
  const x = spacing.columns.get(tick) ?? spacing.left
  const inside = spacing.width - spacing.left
  return spacing.left + ((x - spacing.left) * (width - spacing.left)) / inside
}
