import { expect, test } from 'vitest'
import { sideBySide } from './conflict'

test('shared lines stand on one row, changed ones opposite one another, others alone', () => {
  expect(sideBySide('a\nb\nc\n', 'a\nB\nc\nd\n')).toEqual([
    { theirs: 'a', mine: 'a', differs: false },
    { theirs: 'b', mine: 'B', differs: true },
    { theirs: 'c', mine: 'c', differs: false },
    { theirs: null, mine: 'd', differs: true },
  ])
})

test('every line of both is there', () => {
  const theirs = 'one\ntwo\nthree\nfour'
  const mine = 'zero\none\nthree\nfive\nsix'
  const pairs = sideBySide(theirs, mine)
  const side = (key: 'theirs' | 'mine') =>
    pairs
      .map((pair) => pair[key])
      .filter((line) => line !== null)
      .join('\n')
  expect([side('theirs'), side('mine')]).toEqual([theirs, mine])
})
