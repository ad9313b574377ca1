/** A student under the pen: what is typed, the revision it began from, and its draft in the browser. */
import { api, isStale, type Student } from '../../api/client'
import { doneLately } from '../../done.svelte'
import { DraftBox } from '../../drafts'
import { askBeforeLeaving } from '../../leaving'
import { draftOf, NOBODY, type Draft } from './students'

export class StudentFormState {
  draft = $state<Draft>(structuredClone(NOBODY))
  basedOn = $state(0)
  pickedUp = $state('')
  kept = $state(true)
  failure = $state('')
  busy = $state(false)
  meanwhile = $state.raw<Student | null>(null)
  readonly student: Student | undefined
  readonly #box: DraftBox<Draft>
  readonly #onsaved: (student: Student) => Promise<void>
  #before = ''
  readonly changed = $derived(JSON.stringify(this.draft) !== this.#before)

  constructor(student: Student | undefined, onsaved: (student: Student) => Promise<void>) {
    this.student = student
    this.#onsaved = onsaved
    this.#box = new DraftBox<Draft>(student ? `student ${student.id}` : 'new student')
    this.#begin()
    const found = this.#box.find()
    if (!found) return
    this.draft = { ...structuredClone(NOBODY), ...found.value }
    this.basedOn = found.basedOn
    this.pickedUp = new Date(found.keptAt).toLocaleString()
  }

  /** Keep what is typed, after each change of it. */
  keep(): void {
    if (this.changed) this.kept = this.#box.keep($state.snapshot(this.draft) as Draft, this.basedOn)
    else this.#box.forget()
    askBeforeLeaving(this, !this.kept)
  }

  forget(): void {
    this.#box.forget()
    this.#begin()
  }

  stop(): void {
    askBeforeLeaving(this, false)
  }

  async save(put_away = this.draft.put_away): Promise<void> {
    if (this.busy) return
    this.failure = ''
    this.busy = true
    const body = { ...($state.snapshot(this.draft) as Draft), put_away }
    try {
      const made = this.student
        ? await api.saveStudent(this.student.id, this.basedOn, body)
        : await api.addStudent(body)
      this.#box.forget()
      this.#tell(made)
      await this.#onsaved(made)
    } catch (error) {
      if (this.student && isStale(error)) this.meanwhile = await this.#saved(this.student.id)
      else this.failure = error instanceof Error ? error.message : String(error)
    } finally {
      this.busy = false
    }
  }

  /** Keep what is typed here as the revision after the one that was saved meanwhile. */
  async keepMine(): Promise<void> {
    this.goOn()
    await this.save()
  }

  goOn(): void {
    this.basedOn = this.meanwhile!.number
    this.meanwhile = null
    this.keep()
  }

  async takeTheirs(): Promise<void> {
    const theirs = this.meanwhile!
    this.#box.forget()
    this.meanwhile = null
    await this.#onsaved(theirs)
  }

  #begin(): void {
    this.draft = this.student ? draftOf(this.student) : structuredClone(NOBODY)
    this.basedOn = this.student?.number ?? 0
    this.#before = JSON.stringify(this.draft)
    this.pickedUp = ''
    this.kept = true
  }

  async #saved(id: number): Promise<Student> {
    const { students } = await api.students()
    return students.find((each) => each.id === id)!
  }

  #tell(made: Student): void {
    const before = this.student && draftOf(this.student)
    const away = made.put_away && !before?.put_away
    const undone = before ?? { ...draftOf(made), put_away: true }
    doneLately.tell(`${made.name} is ${away ? 'put away' : before ? 'saved' : 'added'}`, async () => {
      await this.#onsaved(await api.saveStudent(made.id, made.number, undone))
    })
  }
}
