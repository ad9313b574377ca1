/**
 * A new song under the pen; its draft has a name of its own, so that it is stored once however often
 * it is sent.
 */
import { DraftBox } from '../../drafts'
import { askBeforeLeaving } from '../../leaving'

interface NewSong {
  text: string
  name: string
}

export class NewSongDraft {
  text = $state('')
  pickedUp = $state('') // when it was typed, where it was found again
  kept = $state(true)
  #name: string = crypto.randomUUID()
  readonly #box = new DraftBox<NewSong>('new song')

  constructor() {
    const draft = this.#box.find()
    if (!draft) return
    this.text = draft.value.text
    this.#name = draft.value.name
    this.pickedUp = new Date(draft.keptAt).toLocaleString()
  }

  get name(): string {
    return this.#name
  }

  type(text: string): void {
    this.text = text
    if (text === '') return this.forget()
    this.kept = this.#box.keep({ text, name: this.#name }, 0)
    askBeforeLeaving(this, !this.kept)
  }

  /** Saved, or not wanted; what comes next is another song. */
  forget(): void {
    this.#box.forget()
    this.text = ''
    this.pickedUp = ''
    this.kept = true
    this.#name = crypto.randomUUID()
    askBeforeLeaving(this, false)
  }
}
