import { describe, expect, it } from 'vitest'
import type { Neck } from '../../api/client'
import { columns, ridge, stepY } from '../../components/climb'
import { neckView } from './neck'

describe('the climb', () => {
  it('is as high as its Steps and as wide as its beats', () => {
    const ground = columns([4, 2], [3, 6], 60)
    expect(ground).toEqual([
      { x: 0, width: 40, step: 3 },
      { x: 40, width: 20, step: 6 },
    ])
    expect(stepY(6, 100)).toBeLessThan(stepY(3, 100))
    expect(ridge(ground, 100).split('L')).toHaveLength(4)
    expect(ridge([], 100)).toBe('')
  })
})

describe('the neck picture', () => {
  const frets_mm = Array.from({ length: 25 }, (_, fret) => 648 * (1 - 2 ** (-fret / 12)))
  const neck = { frets_mm, string_letters: [], string_pitches: [], scale_length_mm: 648 } as Neck
  const grip = (...frets: number[]) => ({
    position: frets[0],
    reach_mm: frets_mm[frets.at(-1)!] - frets_mm[frets[0]],
    helpers: [],
    presses: frets.map((fret, at) => ({ finger: String(at + 1), string: 3, fret })),
  })

  it('is true to scale: frets grow narrower up the neck', () => {
    const { frets } = neckView(neck, grip(5, 9), null, 300)
    const widths = frets.slice(1).map(({ x }, at) => x - frets[at].x)
    expect(widths).toEqual([...widths].sort((a, b) => b - a))
    expect(frets.at(-1)!.x).toBeCloseTo(300)
  })
  it('puts each finger behind its fret and measures the span', () => {
    const view = neckView(neck, grip(5, 9), grip(12), 300)
    const fret9 = view.frets.find(({ fret }) => fret === 9)!
    expect(view.dots[1].x).toBeLessThan(fret9.x)
    expect(view.span!.mm).toBeCloseTo(100.15, 1)
    expect(view.ghosts).toHaveLength(1)
  })
  it('shows the first frets when nothing is pressed', () => {
    expect(neckView(neck, null, null, 300).frets[0]).toMatchObject({ fret: 0, x: 0 })
  })
})
