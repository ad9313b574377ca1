/**
 * What is typed and not saved yet, kept in the browser: a draft a field and tab, with the revision it began
 * from. It is let go on save, or when the teacher says so, and at no other time.
 */
export interface Draft<Value> {
  value: Value
  basedOn: number
  keptAt: string // ISO time
}

const PREFIX = 'clear-steps draft'
const TAB = 'clear-steps tab'

/** Where drafts are when the browser keeps none: gone with the page, so leaving has to ask. */
const inMemory = new Map<string, string>()

export class DraftBox<Value> {
  readonly #field: string
  readonly #storage: Storage | null
  readonly #tab: string
  #takenFrom: string | null = null

  constructor(field: string, storage: Storage | null = browsersStorage(), tab = tabOf(storage)) {
    this.#field = field
    this.#storage = storage
    this.#tab = tab
  }

  get #key(): string {
    return `${PREFIX}|${this.#field}|${this.#tab}`
  }

  /** The draft of this tab, else the newest that another one left. */
  find(): Draft<Value> | null {
    const own = this.#read(this.#key)
    if (own) return own
    const others = this.#keys()
      .map((key) => ({ key, draft: this.#read(key) }))
      .filter((each): each is { key: string; draft: Draft<Value> } => each.draft !== null)
      .sort((a, b) => b.draft.keptAt.localeCompare(a.draft.keptAt))
    if (others.length === 0) return null
    this.#takenFrom = others[0].key
    return others[0].draft
  }

  /** Keep what is typed; false where it will not outlive the page. */
  keep(value: Value, basedOn: number, now = new Date()): boolean {
    const content = JSON.stringify({ value, basedOn, keptAt: now.toISOString() } satisfies Draft<Value>)
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
    for (const key of [this.#key, this.#takenFrom]) {
      if (key === null) continue
      inMemory.delete(key)
      this.#storage?.removeItem(key)
    }
    this.#takenFrom = null
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

/** A name for this tab that outlives a reload. */
function tabOf(storage: Storage | null): string {
  if (!storage) return 'only'
  const known = sessionStorage.getItem(TAB)
  if (known) return known
  const made = crypto.randomUUID()
  sessionStorage.setItem(TAB, made)
  return made
}
