import { describe, expect, it } from 'vitest'
import type { Bar, Event, Neck, Part } from '../../api/client'
import { columns, ridge, stepY } from '../../components/climb'
import { fingerRow } from './fingers'
import { MARGIN, neededWidth, systemsOf } from './layout'
import { neckView } from './neck'

function event(onset: number, quarters: number, fret = 3): Event {
  const note = { string: 1, fret, techniques: [], bend_half_tones: null, optional: false, uncertain: false }
  return {
    onset_quarters: onset,
    quarters,
    notes: [note],
    words_by_string: [],
    dynamic: null,
  } as unknown as Event
}
function bar(index: number, events: number): Bar {
  return {
    index,
    metre: '4/4',
    starts_at: 0,
    repeat_start: false,
    repeat_times: 0,
    events: Array.from({ length: events }, (_, at) => event(at * (4 / events), 4 / events)),
  } as unknown as Bar
}
function part(bars: Bar[], starts: number[] = []): Part {
  return {
    bars,
    sections: starts.map((first_bar) => ({ name: 'A', first_bar, times: 1 })),
  } as unknown as Part
}

describe('the lines of a tab', () => {
  it('shows four bars of eighths at the width the Desk has at 1280', () => {
    const systems = systemsOf(part([0, 1, 2, 3].map((index) => bar(index, 8))), 832)
    expect(systems.map((system) => system.bars.length)).toEqual([4])
  })
  it('fills a line, keeps every bar once, and begins a new one at a section', () => {
    const bars = Array.from({ length: 9 }, (_, index) => bar(index, 8))
    const systems = systemsOf(part(bars, [0, 5]), 900)
    expect(systems.flatMap((system) => system.bars)).toEqual(bars)
    expect(systems.some((system) => system.bars[0].index === 5)).toBe(true)
    const full = systems[0].widths.reduce((sum, width) => sum + width, 0)
    expect(full).toBeCloseTo(900 - MARGIN - 2)
  })
  it('gives a bar of many notes more room', () => {
    expect(neededWidth(bar(0, 16))).toBeGreaterThan(neededWidth(bar(0, 8)))
  })
  it('gives a bar with words for some strings room for them', () => {
    const worded = bar(0, 4)
    worded.events[0].words_by_string = ['PM:6', 'lr:1']
    expect(neededWidth(worded)).toBeGreaterThan(4 * 9 * 6)
    expect(neededWidth(bar(0, 4))).toBeLessThan(4 * 9 * 6)
  })
})

describe('the fingers under the tab', () => {
  const grip = (...notes: [string: number, fret: number, finger: string | null][]): Event =>
    ({
      notes: notes.map(([string, fret, finger]) => ({ string, fret, finger, tied: false })),
    }) as unknown as Event
  const barre: Parameters<typeof grip> = [
    [1, 1, '1'],
    [2, 1, '1'],
    [3, 2, '2'],
    [4, 3, '4'],
    [5, 3, '3'],
    [6, 1, '1'],
  ]

  it('names a barre once and a grip only when it changes', () => {
    expect(
      fingerRow([grip(...barre), grip(...barre), grip([5, 3, '3'], [1, 0, null]), grip(...barre)]),
    ).toEqual(['1243', '', '3', '1243'])
  })
  it('names every single note, and a grip held over a rest not again', () => {
    expect(fingerRow([grip([1, 3, '1']), grip([1, 3, '1'])])).toEqual(['1', '1'])
    expect(fingerRow([grip(...barre), grip(), grip(...barre)])).toEqual(['1243', '', ''])
  })
})

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
