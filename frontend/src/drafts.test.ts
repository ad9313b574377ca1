import { expect, test } from 'vitest'
import { DraftBox } from './drafts'

class Kept implements Storage {
  readonly #rows = new Map<string, string>()
  full = false
  get length(): number {
    return this.#rows.size
  }
  key = (at: number): string | null => [...this.#rows.keys()][at] ?? null
  getItem = (key: string): string | null => this.#rows.get(key) ?? null
  removeItem = (key: string): void => void this.#rows.delete(key)
  clear = (): void => this.#rows.clear()
  setItem = (key: string, value: string): void => {
    if (this.full) throw new DOMException('full', 'QuotaExceededError')
    this.#rows.set(key, value)
  }
}

test('a draft comes back with the revision it began from, until it is let go', () => {
  const storage = new Kept()
  expect(new DraftBox<string>('song 1', storage, 'a').find()).toBeNull()
  expect(new DraftBox<string>('song 1', storage, 'a').keep('typed', 3)).toBe(true)
  const again = new DraftBox<string>('song 1', storage, 'a')
  expect(again.find()).toMatchObject({ value: 'typed', basedOn: 3 })
  again.forget()
  expect(again.find()).toBeNull()
  expect(storage.length).toBe(0)
})

test('drafts of other fields are others', () => {
  const storage = new Kept()
  new DraftBox<string>('song 1', storage, 'a').keep('typed', 1)
  expect(new DraftBox<string>('song 11', storage, 'a').find()).toBeNull()
})

test('two tabs keep a draft each, and a new tab takes up the newest', () => {
  const storage = new Kept()
  const first = new DraftBox<string>('song 1', storage, 'a')
  const second = new DraftBox<string>('song 1', storage, 'b')
  first.keep('of a', 1, new Date(1000))
  second.keep('of b', 2, new Date(2000))
  expect(first.find()?.value).toBe('of a')
  expect(second.find()?.value).toBe('of b')
  const third = new DraftBox<string>('song 1', storage, 'c')
  expect(third.find()).toMatchObject({ value: 'of b', basedOn: 2 })
  third.keep('of b, further', 2, new Date(3000))
  third.forget()
  expect(second.find()?.value).not.toBe('of b, further')
  expect(first.find()?.value).toBe('of a')
})

test('what the browser cannot keep is told, and still there while the page is', () => {
  const storage = new Kept()
  storage.full = true
  const box = new DraftBox<string>('song 2', storage, 'a')
  expect(box.keep('typed', 1)).toBe(false)
  expect(new DraftBox<string>('song 2', storage, 'a').find()?.value).toBe('typed')
  box.forget()
  expect(box.find()).toBeNull()
})
