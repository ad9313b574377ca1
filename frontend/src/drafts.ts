/**
 * What is typed and not saved yet, kept in the browser: a draft a field and tab, with the revision it began
 * from. It is let go on save, or when the teacher says so, and at no other time. It belongs to its tab until
 * that tab is gone; then the next one that looks for it takes it over.
 */
import { isOpen, thisTab } from './tabs'

export interface Draft<Value> {
  value: Value
  basedOn: number
  keptAt: string // ISO time
}

const PREFIX = 'clear-steps draft'

/** Where drafts are when the browser keeps none: gone with the page, so leaving has to ask. */
const inMemory = new Map<string, string>()

export class DraftBox<Value> {
  readonly #field: string
  readonly #storage: Storage | null
  readonly #tab: string
  readonly #isOpen: (tab: string) => boolean

  constructor(field: string, storage: Storage | null = browsersStorage(), tab = thisTab(), open = isOpen) {
    this.#field = field
    this.#storage = storage
    this.#tab = tab
    this.#isOpen = open
  }

  get #key(): string {
    return `${PREFIX}|${this.#field}|${this.#tab}`
  }

  /** The draft of this tab, else the newest that a tab which is gone has left: it is this one's from now on. */
  find(): Draft<Value> | null {
    const own = this.#read(this.#key)
    if (own) return own
    const others = this.#keys()
      .filter((key) => !this.#isOpen(key.slice(key.lastIndexOf('|') + 1)))
      .map((key) => ({ key, draft: this.#read(key) }))
      .filter((each): each is { key: string; draft: Draft<Value> } => each.draft !== null)
      .sort((a, b) => b.draft.keptAt.localeCompare(a.draft.keptAt))
    if (others.length === 0) return null
    const { key, draft } = others[0]
    if (this.#write(JSON.stringify(draft))) this.#remove(key)
    return draft
  }

  /** Keep what is typed; false where it will not outlive the page. */
  keep(value: Value, basedOn: number, now = new Date()): boolean {
    return this.#write(JSON.stringify({ value, basedOn, keptAt: now.toISOString() } satisfies Draft<Value>))
  }

  #write(content: string): boolean {
    inMemory.set(this.#key, content)
    try {
      if (!this.#storage) return false
      this.#storage.setItem(this.#key, content)
      inMemory.delete(this.#key)
      return true
    } catch {
      return false // full, or not allowed
    }
  }

  /** Let go: it is saved, or not wanted. */
  forget(): void {
    this.#remove(this.#key)
  }

  #remove(key: string): void {
    inMemory.delete(key)
    this.#storage?.removeItem(key)
  }

  #keys(): string[] {
    const start = `${PREFIX}|${this.#field}|`
    const stored = this.#storage
      ? Array.from({ length: this.#storage.length }, (_, at) => this.#storage!.key(at) ?? '')
      : []
    return [...stored, ...inMemory.keys()].filter((key) => key.startsWith(start))
  }

  #read(key: string): Draft<Value> | null {
    const content = inMemory.get(key) ?? this.#storage?.getItem(key)
    if (!content) return null
    try {
      const draft = JSON.parse(content) as Draft<Value>
      return typeof draft.keptAt === 'string' ? draft : null
    } catch {
      return null
    }
  }
}

function browsersStorage(): Storage | null {
  try {
    return window.localStorage
  } catch {
    return null // the browser was told to keep nothing
  }
}
