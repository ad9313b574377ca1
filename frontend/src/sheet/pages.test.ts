import { describe, expect, it } from 'vitest'
import { best, filled, PAGE_HEIGHT, loosest, pagesTaken } from './pages'

describe('pages of a sheet', () => {
  it('are filled one after the other and cut nothing', () => {
    expect(filled([400, 400, 400], 300, 1000)).toEqual([[0], [1, 2]])
    expect(filled([], 300, 1000)).toEqual([[]])
    expect(filled([1500, 100], 0, 1000)).toEqual([[0], [1]])
  })
  it('are as few as can be, drawn as large as that allows', () => {
    const layouts = [0.9, 0.8, 0.7].map((scale) => ({ scale, heights: Array<number>(4).fill(300 * scale) }))
    expect(best(layouts, 0)).toEqual({ scale: 0.7, pages: [[0, 1, 2, 3]] })
    expect(best(layouts, PAGE_HEIGHT).scale).toBe(0.7)
    expect(best(layouts.slice(0, 1), 0).pages).toEqual([[0, 1, 2], [3]])
  })
  it('leave no line alone on the last where a smaller one would do as well', () => {
    const large = { scale: 0.9, heights: [500, 400, 300] }
    const small = { scale: 0.8, heights: [400, 300, 250, 250] }
    expect(best([large], 0).pages).toEqual([[0, 1], [2]])
    expect(best([large, small], 0)).toEqual({
      scale: 0.8,
      pages: [
        [0, 1],
        [2, 3],
      ],
    })
  })
})

describe('a sheet of text and tab', () => {
  it('is set as loosely as saves as much paper', () => {
    expect(loosest([0.95, 0.9, 0.85, 0.8])).toBe(0)
    expect(loosest([1.3, 1.2, 0.96, 0.9])).toBe(2)
  })
  it('leaves no few lines for a last page, and none that may spill over', () => {
    expect(loosest([2.1, 2.05, 1.9, 1.8])).toBe(2)
    expect(loosest([1.5, 1.2, 0.99, 0.9])).toBe(3)
  })
  it('takes more room where what is not cut moves to the next page', () => {
    expect(pagesTaken(PAGE_HEIGHT, [])).toBe(1)
    const across = { top: PAGE_HEIGHT - 10, bottom: PAGE_HEIGHT + 90 }
    expect(pagesTaken(PAGE_HEIGHT + 100, [across]) * PAGE_HEIGHT).toBeCloseTo(PAGE_HEIGHT + 110)
  })
})
