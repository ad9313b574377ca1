/** The lesson on the Desk: a part's chunks, their order, which is chosen, and what is said of it. */
import {
  api,
  isStale,
  type Chunk,
  type ChunkStart,
  type Lesson,
  type LessonQuery,
  type Moment,
} from '../../api/client'
import { numberOf } from '../../address'
import { doneLately } from '../../done.svelte'
import { whomQuery } from '../../whom.svelte'
import type { DeskState } from './desk.svelte'

export type Language = NonNullable<LessonQuery['language']>
export type Names = NonNullable<LessonQuery['names']>
export const ORDERS = [
  { value: 'top', words: 'from the top' },
  { value: 'hardest', words: 'hardest first' },
  { value: 'used', words: 'most used first' },
  { value: 'riffs', words: 'riffs, then chords' },
  { value: 'layers', words: 'layer by layer' },
]
export type Layer = Chunk['layers'][number]
const LAYERS: Layer[] = ['bass', 'melody', 'notes', 'all']
/** A chunk to learn, or one layer of it. */
export interface LessonStep {
  index: number
  layer: Layer
}
const isBefore = (one: Moment, other: Moment) =>
  one.bar < other.bar || (one.bar === other.bar && one.event < other.event)

export class LessonState {
  data = $state.raw<Lesson | null>(null)
  chosen = $state(-1)
  layer = $state<Layer>('all') // of the chosen chunk
  order = $state('top')
  language = $state<Language>('en')
  names = $state<Names>('letters')
  following = $state(false) // the words of what sounds are shown as it sounds
  problem = $state('')
  #toChoose = -1

  constructor(
    private readonly desk: DeskState,
    private readonly songId: number,
  ) {}

  /** What is chosen, as it stands in the address. */
  get address(): Record<string, string | number> {
    return {
      chunk: this.#toChoose >= 0 ? this.#toChoose : this.chosen < 0 ? '' : this.chosen,
      layer: this.layer === 'all' ? '' : this.layer,
      order: this.order === 'top' ? '' : this.order,
    }
  }

  /** Begin with what an address says. */
  begin({ chunk, layer, order }: Record<string, string>): void {
    this.#toChoose = numberOf(chunk, -1)
    this.layer = LAYERS.find((each) => each === layer) ?? 'all'
    this.order = ORDERS.find(({ value }) => value === order)?.value ?? 'top'
  }

  /** The chunks are there: the one that the address names is chosen. */
  settle(): void {
    if (this.#toChoose >= 0) this.choose(this.#toChoose, this.layer)
    this.#toChoose = -1
  }

  get query(): LessonQuery {
    return { ...whomQuery(), part_index: this.desk.partIndex, language: this.language, names: this.names }
  }

  readonly chunks: Chunk[] = $derived(this.data?.chunks ?? [])
  readonly chunk: Chunk | null = $derived(this.chunks[this.chosen] ?? null)
  readonly steps: LessonStep[] = $derived.by(() => {
    const inOrder = this.data?.orders[this.order] ?? []
    if (this.order !== 'layers') return inOrder.map((index) => ({ index, layer: 'all' }))
    return LAYERS.flatMap((layer) =>
      inOrder.filter((index) => this.chunks[index].layers.includes(layer)).map((index) => ({ index, layer })),
    )
  })
  readonly at: number = $derived(
    this.steps.findIndex(({ index, layer }) => index === this.chosen && layer === this.layer),
  )
  readonly twoVoices = $derived(this.chunks.some(({ layers }) => layers.includes('bass')))

  /** What is said of the notes that sound, of the chosen stretch or any chunk. */
  wordsNow(chosen: Chunk | undefined): string {
    const { cursor } = this.desk
    if (!cursor) return ''
    const said = [...(chosen ? [chosen] : []), ...this.chunks].flatMap(({ spoken }) => spoken)
    return said.find(({ bar, event }) => bar === cursor.bar && event === cursor.event)?.words ?? ''
  }

  choose(index: number, layer: Layer = 'all'): void {
    const chunk = this.chunks[index]
    if (!chunk) return
    this.chosen = index
    this.layer = layer
    this.desk.chooseNotes(chunk.first, chunk.last)
  }

  /** The next chunk, or the one before, in the order of learning. */
  step(by: 1 | -1): void {
    const next = this.at < 0 ? (by > 0 ? 0 : this.steps.length - 1) : this.at + by
    const step = this.steps[next]
    if (step) this.choose(step.index, step.layer)
  }

  private get starts(): ChunkStart[] {
    return this.chunks.map(({ first, name }) => ({ ...first, name }))
  }

  /** A border before a note where there is none, none where there is one. */
  cutAt(at: Moment): Promise<void> {
    const starts = this.starts
    const there = starts.findIndex(({ bar, event }) => bar === at.bar && event === at.event)
    if (there === 0) return Promise.resolve()
    if (there > 0)
      return this.save(
        starts.filter((_, index) => index !== there),
        'Two chunks are one',
      )
    const after = starts.findIndex(({ bar, event }) => bar > at.bar || (bar === at.bar && event > at.event))
    const place = after < 0 ? starts.length : after
    return this.save(
      [...starts.slice(0, place), { ...at, name: '' }, ...starts.slice(place)],
      'A chunk is cut in two',
    )
  }

  /** The border before a chunk at another note. */
  moveBorder(index: number, to: Moment): Promise<void> {
    const starts = this.starts.map((start, at) => (at === index ? { ...start, ...to } : start))
    const order = (one: ChunkStart) => one.bar * 10_000 + one.event
    if (starts.some((start, at) => at > 0 && order(start) <= order(starts[at - 1]))) return Promise.resolve()
    return this.save(starts, 'A border between chunks is moved')
  }

  /** Whether something is struck at a moment. */
  isStruck({ bar, event }: Moment): boolean {
    return this.desk.part?.bars[bar]?.events[event]?.notes.some((note) => !note.tied) ?? false
  }

  /** What is struck so many notes after a moment. */
  private after({ bar, event }: Moment, by: number): Moment | undefined {
    const bars = this.desk.part?.bars ?? []
    const struck = bars.flatMap((each) =>
      each.events.map((_, at) => ({ bar: each.index, event: at })).filter((at) => this.isStruck(at)),
    )
    return struck[struck.findIndex((each) => each.bar === bar && each.event === event) + by]
  }

  /** The border before a chunk by so many struck notes. */
  nudge(index: number, by: 1 | -1): Promise<void> {
    const at = this.after(this.chunks[index].first, by)
    return at ? this.moveBorder(index, at) : Promise.resolve()
  }

  /** Chunks one after the other: the grip that one leads into and the next begins with sounds once. */
  joined(chunks: Chunk[]): { first: Moment; last: Moment }[] {
    return chunks.map(({ first, last }, at) => {
      const next = chunks[at + 1]
      const shared = next && isBefore(first, next.first) && !isBefore(last, next.first)
      return { first, last: (shared && this.after(next.first, -1)) || last }
    })
  }

  rename(index: number, name: string): Promise<void> {
    return this.save(
      this.starts.map((start, at) => (at === index ? { ...start, name } : start)),
      name ? `A chunk is called ${name}` : 'A chunk has its usual name again',
    )
  }

  asProposed(): Promise<void> {
    return this.save([], 'The chunks are as proposed again')
  }

  private async save(starts: ChunkStart[], words: string): Promise<void> {
    if (!this.data) return
    const { number: based_on, revision, proposed } = this.data
    const [before, lesson, songId] = [proposed ? [] : this.starts, this.query, this.songId]
    try {
      const saved = await api.cut(songId, { based_on, revision, starts, lesson })
      this.data = saved
      this.problem = ''
      doneLately.tell(words, async () => {
        const back = await api.cut(songId, { based_on: saved.number, revision, starts: before, lesson })
        this.data = back
        if (this.chosen >= back.chunks.length) this.chosen = -1
      })
      if (this.chunk) this.choose(this.chosen, this.layer)
      else this.chosen = -1
    } catch (error) {
      this.problem = isStale(error)
        ? 'These chunks were changed in another window; open the song again.'
        : (error as Error).message
    }
  }
}
