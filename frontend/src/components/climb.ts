/** Geometry of the climb: one column a bar, as high as its Step. */
import { HARDEST } from './steps'

export interface ClimbBar {
  x: number
  width: number
  step: number
}

const HEADROOM = 1.4 // Steps left free above the hardest, for the signs

/** y of a Step in a picture of that height, 0 at the top. */
export function stepY(step: number, height: number): number {
  return height * (1 - step / (HARDEST + HEADROOM))
}

/** The ridge as a path: along every column's top, with a short slope where the ground rises. */
export function ridge(bars: ClimbBar[], height: number): string {
  if (bars.length === 0) return ''
  const points = bars.flatMap((bar) => [
    `${bar.x} ${stepY(bar.step, height)}`,
    `${bar.x + bar.width} ${stepY(bar.step, height)}`,
  ])
  return `M${points.join('L')}`
}

/** Columns side by side over a width, each as wide as its beats. */
export function columns(beats: number[], steps: number[], width: number): ClimbBar[] {
  const total = beats.reduce((sum, beat) => sum + beat, 0) || 1
  let x = 0
  return beats.map((beat, index) => {
    const bar = { x, width: (beat / total) * width, step: steps[index] }
    x += bar.width
    return bar
  })
}
