import { expect, test } from 'vitest'
import { terraceOf, terraces } from './terraces'

test('a song stands on the terrace of the Step it shows', () => {
  expect([4, 4.94, 4.96, 10].map(terraceOf)).toEqual([4, 4, 5, 10])
})

test('terraces rise, and hold their songs in the order given', () => {
  const songs = [
    { step: 5.4, title: 'b' },
    { step: 4.1, title: 'c' },
    { step: 5.1, title: 'a' },
  ]
  expect(
    terraces(songs).map((terrace) => [terrace.step, terrace.songs.map((song) => song.title).join('')]),
  ).toEqual([
    [4, 'c'],
    [5, 'ba'],
  ])
})
