/** Geometry of the neck picture: true to scale along the neck, in mm from the nut. */
import type { Grip, Neck } from '../../api/client'

export interface Dot {
  x: number
  string: number
  fret: number
  finger: string
}
export interface NeckView {
  frets: { fret: number; x: number; label: number | null }[]
  dots: Dot[]
  ghosts: Dot[]
  helpers: Dot[]
  span: { from: number; to: number; mm: number } | null
}

const FEWEST_FRETS = 5
const BEHIND_MM = 7 // a finger presses just behind its fret

/** Lay out the frets that show both grips over a width of so many pixels. */
export function neckView(neck: Neck, now: Grip | null, before: Grip | null, width: number): NeckView {
  const frets = [...(now?.presses ?? []), ...(now?.helpers ?? []), ...(before?.presses ?? [])].map(
    (press) => press.fret,
  )
  let low = Math.max((frets.length ? Math.min(...frets) : 1) - 1, 0)
  let high = Math.min((frets.length ? Math.max(...frets) : FEWEST_FRETS) + 1, neck.frets_mm.length - 1)
  if (high - low < FEWEST_FRETS) high = Math.min(low + FEWEST_FRETS, neck.frets_mm.length - 1)
  if (high - low < FEWEST_FRETS) low = Math.max(high - FEWEST_FRETS, 0)
  const start = neck.frets_mm[low]
  const scale = width / (neck.frets_mm[high] - start)
  const x = (fret: number): number => (neck.frets_mm[fret] - start) * scale
  const dot = (press: Grip['presses'][number]): Dot => ({
    ...press,
    x: Math.max(x(press.fret) - Math.min(BEHIND_MM * scale, (x(press.fret) - x(press.fret - 1)) / 2), 0),
  })
  return {
    frets: Array.from({ length: high - low + 1 }, (_, at) => ({
      fret: low + at,
      x: x(low + at),
      label: at === 0 ? null : low + at,
    })),
    dots: now?.presses.map(dot) ?? [],
    ghosts: before?.presses.map(dot) ?? [],
    helpers: now?.helpers.map(dot) ?? [],
    span: spanOf(now, x),
  }
}

function spanOf(grip: Grip | null, x: (fret: number) => number): NeckView['span'] {
  const frets = grip?.presses.filter((press) => press.finger !== 'T').map((press) => press.fret) ?? []
  if (!grip || frets.length === 0 || grip.reach_mm <= 0) return null
  return { from: x(Math.min(...frets)), to: x(Math.max(...frets)), mm: grip.reach_mm }
}
