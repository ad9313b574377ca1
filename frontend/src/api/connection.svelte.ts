/** Whether the server answers. Once it does not, it is asked until it does again, without a keystroke. */
const ASKED_AGAIN_MS = 1000

class Connection {
  lost = $state(false)
  #listeners = new Set<() => void>()
  #timer: ReturnType<typeof setTimeout> | undefined

  /** A request did not reach the server. */
  lose(): void {
    if (this.lost) return
    this.lost = true
    this.#askLater()
  }

  /** Do something each time the server is back; gives what takes it off again. */
  onReturn(listener: () => void): () => void {
    this.#listeners.add(listener)
    return () => void this.#listeners.delete(listener)
  }

  #askLater(): void {
    clearTimeout(this.#timer)
    this.#timer = setTimeout(() => void this.#ask(), ASKED_AGAIN_MS)
  }

  async #ask(): Promise<void> {
    try {
      const answer = await fetch('/api/alive', { cache: 'no-store' })
      if (!answer.ok) throw new Error(answer.statusText)
    } catch {
      return this.#askLater()
    }
    this.lost = false
    for (const listener of this.#listeners) listener()
  }
}

export const connection = new Connection()
