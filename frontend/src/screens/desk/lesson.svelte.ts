/** The lesson on the Desk: a part's chunks, which is chosen, and how it is practised. */
import {
  api,
  isStale,
  type Chunk,
  type ChunkStart,
  type Lesson,
  type LessonQuery,
  type Moment,
} from '../../api/client'
import { practiceTimeline, risingPercents, type ClickKind, type PracticeTimeline } from '../../audio/practice'
import type { Stretch } from '../../audio/places'
import { whomQuery } from '../../whom.svelte'
import type { DeskState } from './desk.svelte'

export type Hearing = 'new' | 'so far' | 'whole'
export type Language = NonNullable<LessonQuery['language']>
export type Names = NonNullable<LessonQuery['names']>
export const ORDERS = [
  { value: 'top', words: 'from the top' },
  { value: 'hardest', words: 'hardest first' },
  { value: 'used', words: 'most used first' },
  { value: 'riffs', words: 'riffs, then chords' },
  { value: 'layers', words: 'layer by layer' },
]
export const CLICK_WORDS: Record<ClickKind, string> = {
  off: 'no click',
  beats: 'click on the beat',
  eighths: 'click on eighths',
  backbeat: 'click on 2 and 4',
  turned: 'click between beats',
}
export type Voice = 'all' | 'melody' | 'bass'
const MOST_SOUNDS = 6000 // laid out at once
const MOST_PASSES = 200

export class LessonState {
  data = $state.raw<Lesson | null>(null)
  chosen = $state(-1)
  order = $state('top')
  hearing = $state<Hearing>('new')
  gap = $state(1) // beats between passes
  click = $state<ClickKind>('off')
  rises = $state(false)
  by = $state(5) // per cent
  after = $state(3) // passes
  goal = $state(100) // per cent of the marked tempo
  voice = $state<Voice>('all')
  others = $state(0.25) // how loud what is not chosen plays
  language = $state<Language>('en')
  names = $state<Names>('letters')
  problem = $state('')
  heardPercent = $state<number | null>(null) // of the pass that sounds

  constructor(
    private readonly desk: DeskState,
    private readonly songId: number,
  ) {}

  get query(): LessonQuery {
    return { ...whomQuery(), part_index: this.desk.partIndex, language: this.language, names: this.names }
  }

  readonly chunks: Chunk[] = $derived(this.data?.chunks ?? [])
  readonly chunk: Chunk | null = $derived(this.chunks[this.chosen] ?? null)
  readonly inOrder: number[] = $derived(this.data?.orders[this.order] ?? [])
  readonly twoVoices = $derived(this.chunks.some(({ layers }) => layers.includes('bass')))

  choose(index: number): void {
    const chunk = this.chunks[index]
    if (!chunk) return
    this.chosen = index
    this.desk.chooseNotes(chunk.first, chunk.last)
  }

  /** The next chunk, or the one before, in the order of learning. */
  step(by: 1 | -1): void {
    const at = this.inOrder.indexOf(this.chosen)
    const next = at < 0 ? (by > 0 ? 0 : this.inOrder.length - 1) : at + by
    if (this.inOrder[next] !== undefined) this.choose(this.inOrder[next])
  }

  /** What is heard: the chosen notes, everything learnt up to them, or the whole part. */
  get stretches(): Stretch[] | null {
    if (this.hearing === 'whole') return null
    if (this.hearing === 'so far' && this.chunk) {
      const learnt = this.inOrder.slice(0, this.inOrder.indexOf(this.chosen) + 1)
      return learnt.map((index) => this.chunks[index])
    }
    return this.desk.notes ? [this.desk.notes] : null
  }

  /** The same in time; null where the whole is heard, or bars are chosen. */
  timeline(loop: boolean, countIn: boolean, swing: boolean): PracticeTimeline | null {
    const { part, percent } = this.desk
    if (!part) return null
    const last = part.bars.length - 1
    const whole = {
      first: { bar: 0, event: 0 },
      last: { bar: last, event: part.bars[last].events.length - 1 },
    }
    const stretches =
      this.stretches ?? (this.isPlain ? null : [this.hearing === 'whole' ? whole : (this.bars ?? whole)])
    if (!stretches) return null
    const own = this.voice === 'all' ? null : this.data?.[this.voice]
    const practice = {
      stretches,
      gapBeats: this.gap,
      click: this.click,
      countIn,
      swing,
      ...(own ? { strings: { alone: own, others: this.others } } : {}),
    }
    if (!loop) return practiceTimeline(part, { ...practice, percents: [100] })
    const once = practiceTimeline(part, { ...practice, percents: [100], countIn: false }).sounds.length
    const passes = Math.min(MOST_PASSES, Math.max(Math.floor(MOST_SOUNDS / Math.max(once, 1)), 2))
    const percents = this.rises
      ? risingPercents(percent, Math.max(this.goal, percent), this.by, this.after, passes)
      : Array.from({ length: passes }, () => percent)
    // The part is timed at the practice tempo already.
    return practiceTimeline(part, { ...practice, percents: percents.map((each) => (100 * each) / percent) })
  }

  /** Whether nothing but the notes is asked for. */
  private get isPlain(): boolean {
    return this.click === 'off' && !this.rises && this.voice === 'all'
  }

  private get bars(): Stretch | null {
    const { part, bar, range } = this.desk
    if (!part || bar < 0) return null
    return {
      first: { bar: range[0], event: 0 },
      last: { bar: range[1], event: part.bars[range[1]].events.length - 1 },
    }
  }

  private get starts(): ChunkStart[] {
    return this.chunks.map(({ first, name }) => ({ ...first, name }))
  }

  /** A border before a note where there is none, none where there is one. */
  cutAt(at: Moment): Promise<void> {
    const starts = this.starts
    const there = starts.findIndex(({ bar, event }) => bar === at.bar && event === at.event)
    if (there === 0) return Promise.resolve()
    if (there > 0) return this.save(starts.filter((_, index) => index !== there))
    const after = starts.findIndex(({ bar, event }) => bar > at.bar || (bar === at.bar && event > at.event))
    const place = after < 0 ? starts.length : after
    return this.save([...starts.slice(0, place), { ...at, name: '' }, ...starts.slice(place)])
  }

  /** The border before a chunk at another note. */
  moveBorder(index: number, to: Moment): Promise<void> {
    const starts = this.starts.map((start, at) => (at === index ? { ...start, ...to } : start))
    const order = (one: ChunkStart) => one.bar * 10_000 + one.event
    if (starts.some((start, at) => at > 0 && order(start) <= order(starts[at - 1]))) return Promise.resolve()
    return this.save(starts)
  }

  /** Whether something is struck at a moment. */
  isStruck({ bar, event }: Moment): boolean {
    return this.desk.part?.bars[bar]?.events[event]?.notes.some((note) => !note.tied) ?? false
  }

  /** The border before a chunk by so many struck notes. */
  nudge(index: number, by: 1 | -1): Promise<void> {
    const bars = this.desk.part?.bars ?? []
    const struck = bars.flatMap((bar) =>
      bar.events.map((_, event) => ({ bar: bar.index, event })).filter((at) => this.isStruck(at)),
    )
    const { bar, event } = this.chunks[index].first
    const at = struck.findIndex((each) => each.bar === bar && each.event === event)
    return struck[at + by] ? this.moveBorder(index, struck[at + by]) : Promise.resolve()
  }

  rename(index: number, name: string): Promise<void> {
    return this.save(this.starts.map((start, at) => (at === index ? { ...start, name } : start)))
  }

  asProposed(): Promise<void> {
    return this.save([])
  }

  private async save(starts: ChunkStart[]): Promise<void> {
    if (!this.data) return
    const { number: based_on, revision } = this.data
    try {
      this.data = await api.cut(this.songId, { based_on, revision, starts, lesson: this.query })
      this.problem = ''
      if (this.chunk) this.choose(this.chosen)
      else this.chosen = -1
    } catch (error) {
      this.problem = isStale(error)
        ? 'These chunks were changed in another window; open the song again.'
        : (error as Error).message
    }
  }
}
