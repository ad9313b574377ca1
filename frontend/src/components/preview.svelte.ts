/** Reads and grades a text while it is typed; the old picture stays until the new one is there. */
import { connection } from '../api/connection.svelte'
import { api, ApiError, type Analysis, type GradeQuery, type Headings, type Problem } from '../api/client'

const DEBOUNCE_MS = 80

export class Preview {
  analysis = $state.raw<Analysis | null>(null)
  problems = $state.raw<Problem[]>([])
  message = $state('')
  waiting = $state(false)
  headings = $state.raw<Headings | null>(null)
  songs = $state.raw<string[]>([]) // titles, where the text holds several
  stale = $state(false) // what is shown is of an earlier text
  #timer: ReturnType<typeof setTimeout> | undefined
  #call: AbortController | undefined
  #unlisten: (() => void) | undefined

  /** Ask for a text's grade a moment after the last keystroke. */
  ask(text: string, query: GradeQuery): void {
    this.stop()
    if (text.trim() === '') {
      this.analysis = null
      this.headings = null
      this.songs = []
      this.stale = false
      this.problems = []
      this.message = ''
      this.waiting = false
      return
    }
    this.waiting = true
    this.#timer = setTimeout(() => void this.#read(text, query), DEBOUNCE_MS)
  }

  /** Drop what is under way. */
  stop(): void {
    clearTimeout(this.#timer)
    this.#call?.abort()
    this.#unlisten?.()
  }

  async #read(text: string, query: GradeQuery): Promise<void> {
    const call = new AbortController()
    this.#call = call
    try {
      const { analysis, headings, problems, songs } = await api.preview(text, query, call.signal)
      if (call.signal.aborted) return
      if (analysis) this.analysis = analysis
      this.headings = headings ?? this.headings
      this.songs = songs
      this.stale = !analysis
      this.problems = problems
      this.message = problems[0]?.message ?? ''
    } catch (error) {
      if (call.signal.aborted) return
      this.problems = []
      if (error instanceof ApiError && error.code === 'unreachable')
        this.#unlisten = connection.onReturn(() => this.ask(text, query))
      this.message = error instanceof Error ? error.message : String(error)
    }
    this.waiting = false
  }
}
