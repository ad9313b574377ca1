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

test("a draft is its own tab's while that is open, and the newest of those that are gone is taken over", () => {
  const storage = new Kept()
  const open = new Set(['a', 'b'])
  const box = (tab: string) =>
    new DraftBox<string>('song 1', storage, tab, (each) => each !== tab && open.has(each))
  box('a').keep('of a', 1, new Date(1000))
  box('b').keep('of b', 2, new Date(2000))
  expect(box('c').find()).toBeNull()
  open.delete('b')
  expect(box('c').find()).toMatchObject({ value: 'of b', basedOn: 2 })
  open.add('c')
  expect(box('d').find()).toBeNull() // taken over once
  box('c').forget()
  expect(box('a').find()?.value).toBe('of a')
  expect(storage.length).toBe(1)
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
