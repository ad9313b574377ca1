import { describe, expect, it } from 'vitest'
import { best, filled, PAGE_HEIGHT, loosest } from './pages'

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
    expect(loosest([900, 850, 800, 750])).toBe(0)
    expect(loosest([1200, 1050, 940, 900])).toBe(2)
    expect(loosest([2000, 1950, 1880, 1850])).toBe(2)
  })
})
