/** What was done lately and can be undone: told for a few seconds, and listed while the page is open. */
export interface Done {
  words: string
  undo: () => Promise<unknown>
}

const TOLD_MS = 8000
const MOST_LISTED = 20

class DoneLately {
  list = $state.raw<Done[]>([])
  told = $state.raw<Done | null>(null)
  failure = $state('')
  busy = $state(false)
  #timer: ReturnType<typeof setTimeout> | undefined

  /** Something was done; `undo` takes it back. */
  tell(words: string, undo: () => Promise<unknown>): void {
    const done = { words, undo }
    this.list = [done, ...this.list].slice(0, MOST_LISTED)
    this.told = done
    this.failure = ''
    this.#hideLater()
  }

  async undo(done: Done): Promise<void> {
    this.busy = true
    this.failure = ''
    try {
      await done.undo()
      this.list = this.list.filter((each) => each !== done)
      this.told = null
    } catch (error) {
      this.failure = error instanceof Error ? error.message : String(error)
      this.told = done
    }
    this.busy = false
    this.#hideLater()
  }

  hide(): void {
    this.told = null
    this.failure = ''
  }

  #hideLater(): void {
    clearTimeout(this.#timer)
    this.#timer = setTimeout(() => this.hide(), TOLD_MS)
  }
}

export const doneLately = new DoneLately()
