import { expect, test } from 'vitest'
import { fromAddress, numberOf, withValues } from './address'

test('what is put into an address is read from it again', () => {
  const hash = withValues('#/song/3?bar=1', { bar: 7, part: '', find: 'a & b = c?' })
  expect(hash.startsWith('#/song/3?')).toBe(true)
  expect(fromAddress(hash)).toEqual({ bar: '7', find: 'a & b = c?' })
  expect(withValues(hash, {})).toBe('#/song/3')
  expect(withValues('', {})).toBe('#/')
})

test('only a whole number is one', () => {
  expect(numberOf('12', 3)).toBe(12)
  for (const text of [undefined, '', '-1', '1.5', 'x', '12345678']) expect(numberOf(text, 3)).toBe(3)
})
