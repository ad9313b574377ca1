import { expect, test } from 'vitest'
import type { Card } from '../../api/client'
import { ANYTHING, found, rowsOf, terraceOf } from './terraces'

function song(title: string, step: number | null, tuning = 'standard'): Card {
  const grade =
    step === null ? null : ({ step, tuning, techniques: [], sections: [] } as unknown as Card['grade'])
  return { id: 1, title, revision: 1, own_step: null, put_away: false, is_demo: false, grade, problem: '' }
}

test('a song stands on the terrace of the Step it shows', () => {
  expect([4, 4.94, 4.96, 10].map(terraceOf)).toEqual([4, 4, 5, 10])
})

test('terraces rise, each begins a row of its own, and what is not graded comes last', () => {
  const songs = [song('a', null), song('b', 5.4), song('c', 4.1), song('d', 5.1), song('e', 5.2)]
  const rows = rowsOf(found(songs, ANYTHING, true), true, 2)
  expect(rows.map((row) => [row.begins, row.songs.map((each) => each.title).join('')])).toEqual([
    ['4', 'c'],
    ['5', 'de'],
    ['', 'b'],
    ['·', 'a'],
  ])
})

test('by name they come one after another', () => {
  const songs = [song('a', 5), song('b', 4), song('c', null)]
  const rows = rowsOf(found(songs, ANYTHING, false), false, 3)
  expect(rows.map((row) => row.songs.map((each) => each.title).join(''))).toEqual(['abc'])
})

test('a name finds songs that are not graded yet, a filter does not', () => {
  const songs = [song('Porch', 4), song('Porch light', null), song('Yard', 4, 'drop D')]
  expect(found(songs, { ...ANYTHING, name: 'porch' }, true)).toHaveLength(2)
  expect(found(songs, { ...ANYTHING, name: 'porch', tuning: 'standard' }, true)).toHaveLength(1)
  expect(found(songs, { ...ANYTHING, step: '4', tuning: 'drop D' }, true)[0].title).toBe('Yard')
})
