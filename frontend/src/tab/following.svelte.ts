/**
 * The page follows what sounds, system by system, until the reader scrolls: then it stays where they put it,
 * until something is played anew or they ask it to follow again.
 */
export class Following {
  on = $state(true)
  #shown = '' // the system that was brought into sight last
  #tops: readonly number[] = [] // where the page and its part that scrolls stood after that
  #scroller: HTMLElement | null = null

  /** What plays from now on is followed. */
  begin(): void {
    this.on = true
    this.#shown = ''
  }

  /** Bring the system of a bar that sounds into sight, once. */
  show(scroller: HTMLElement, bar: number): void {
    this.scrolled() // a reader's scrolling is told of only after this frame
    if (!this.on) return
    const system = scroller.querySelector<HTMLElement>(`[data-system~="${bar}"]`)
    const name = system?.dataset.system ?? ''
    if (!system || name === this.#shown) return
    this.#shown = name
    this.#scroller = scroller
    system.scrollIntoView({ block: 'nearest' })
    this.#tops = this.#now()
  }

  /** Something scrolled: unless it was this, it was the reader. */
  scrolled(): void {
    if (this.#shown && this.#now().some((top, at) => Math.abs(top - this.#tops[at]) > 1)) this.on = false
  }

  #now(): readonly number[] {
    return [window.scrollY, this.#scroller?.scrollTop ?? 0]
  }
}
