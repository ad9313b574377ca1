/** A song's text under the pen: what is typed, the revision it began from, and its draft in the browser. */
import { DraftBox } from '../../drafts'
import { askBeforeLeaving } from '../../leaving'

/** What is stored of a song. */
export interface StoredText {
  revision: number
  text: string
}

export function draftBoxOf(songId: number): DraftBox<string> {
  return new DraftBox<string>(`song ${songId} text`)
}

export class TextDraft {
  text = $state('')
  basedOn = $state(0)
  changed = $state(false)
  pickedUp = $state('') // when it was typed, where it was found again
  kept = $state(true) // whether it outlives the page
  meanwhile = $state.raw<StoredText | null>(null) // what somebody else saved, while this is decided on
  readonly #box: DraftBox<string>

  constructor(songId: number, stored: StoredText) {
    this.#box = draftBoxOf(songId)
    this.#begin(stored)
    const draft = this.#box.find()
    if (!draft) return
    if (draft.value === stored.text) {
      this.#box.forget() // saved, though the answer never came
      return
    }
    this.text = draft.value
    this.basedOn = draft.basedOn
    this.changed = true
    this.pickedUp = new Date(draft.keptAt).toLocaleString()
    this.#keep()
  }

  /** Something was typed; `stored` is what the song says now. */
  type(text: string, stored: StoredText): void {
    if (text === stored.text) return this.forget(stored)
    if (!this.changed) this.basedOn = stored.revision
    this.text = text
    this.changed = true
    this.#keep()
  }

  /** Go on from what is stored. */
  forget(stored: StoredText): void {
    this.#box.forget()
    this.#begin(stored)
  }

  /** The song has moved on; what is not touched here moves with it. */
  follow(stored: StoredText): void {
    if (!this.changed) this.#begin(stored)
  }

  /** Somebody else saved first; this goes on from theirs, with what is typed here. */
  goOnFrom(stored: StoredText): void {
    this.basedOn = stored.revision
    this.meanwhile = null
    this.#keep()
  }

  stop(): void {
    askBeforeLeaving(this, false)
  }

  #begin(stored: StoredText): void {
    this.text = stored.text
    this.basedOn = stored.revision
    this.changed = false
    this.pickedUp = ''
    this.kept = true
    this.meanwhile = null
    askBeforeLeaving(this, false)
  }

  #keep(): void {
    this.kept = this.#box.keep(this.text, this.basedOn)
    askBeforeLeaving(this, !this.kept)
  }
}
