/** The lesson on the Desk: a part's chunks, which is chosen, and how it is practised. */
import {
  api,
  isStale,
  type Chunk,
  type ChunkStart,
  type Lesson,
  type LessonQuery,
  type Moment,
  type Part,
} from '../../api/client'
import { practiceTimeline, risingPercents, type Practice, type PracticeTimeline } from '../../audio/practice'
import type { ClickKind } from '../../audio/clicks'
import { notesAlone, sameMoment, sameStretch, type Stretch } from '../../audio/places'
import { whomQuery } from '../../whom.svelte'
import { SLOWEST_PERCENT, type DeskState } from './desk.svelte'

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
export type Layer = Chunk['layers'][number]
const LAYERS: Layer[] = ['bass', 'melody', 'notes', 'all']
/** A chunk to learn, or one layer of it. */
export interface LessonStep {
  index: number
  layer: Layer
}
const MOST_SOUNDS = 6000 // laid out at once
const MOST_PASSES = 200

export class LessonState {
  data = $state.raw<Lesson | null>(null)
  chosen = $state(-1)
  layer = $state<Layer>('all') // of the chosen chunk
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
  bendsFirst = $state(false)
  sectionAlone = $state(false) // so far: of the section, not from the top
  behind = $state(0) // how loud the other guitars play, 0 to 1
  versionId = $state<number | null>(null) // that is compared with, none: the latest
  onVersion = $state(false) // it is heard instead of the original
  version = $state.raw<Part | null>(null)
  from = $state<number | null>(null) // per cent: where a rising tempo fell back to
  language = $state<Language>('en')
  names = $state<Names>('letters')
  following = $state(false) // the words of what sounds are shown as it sounds
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

  /** The other guitars, where they go bar by bar with this one. */
  get otherParts(): Part[] {
    const { part, analysis } = this.desk
    return (analysis?.parts ?? []).filter(
      (each) =>
        each !== part &&
        each.bars.length === part?.bars.length &&
        each.bars.every((bar, index) => bar.seconds === part.bars[index].seconds),
    )
  }

  /** What is said of the notes that sound, of the chosen stretch or any chunk. */
  wordsNow(chosen: Chunk | undefined): string {
    const { cursor } = this.desk
    if (!cursor) return ''
    const said = [...(chosen ? [chosen] : []), ...this.chunks].flatMap(({ spoken }) => spoken)
    return said.find(({ bar, event }) => bar === cursor.bar && event === cursor.event)?.words ?? ''
  }

  get severalSections(): boolean {
    return (this.desk.part?.sections.length ?? 0) > 1
  }

  /** Whether a note of the part is bent. */
  get bent(): boolean {
    const bars = this.desk.part?.bars ?? []
    return bars.some(({ events }) => events.some(({ notes }) => notes.some((note) => note.bend_half_tones)))
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

  /** What is heard: the chosen notes, everything learnt up to them, or the whole part. */
  get stretches(): Stretch[] | null {
    if (this.hearing === 'whole') return null
    if (this.hearing === 'so far' && this.chunk) {
      const learnt = this.steps.slice(0, this.at + 1).filter(({ layer }) => layer === this.layer)
      const section = this.sectionOf(this.chunk)
      return learnt
        .map(({ index }) => this.chunks[index])
        .filter((chunk) => !this.sectionAlone || this.sectionOf(chunk) === section)
    }
    return this.desk.notes ? [this.desk.notes] : null
  }

  /** The bar its section begins at. */
  private sectionOf({ first }: Chunk): number {
    const starts = this.desk.part?.sections.map(({ first_bar }) => first_bar) ?? []
    return Math.max(0, ...starts.filter((start) => start <= first.bar))
  }

  /** What sounds: the part, or the version at the same place; null where neither is there yet. */
  private get sounding(): Part | null {
    const part = this.onVersion ? this.version : this.desk.part
    return part && this.layer === 'notes' && this.hearing !== 'whole' ? notesAlone(part) : part
  }

  /** The same in time; null where the part is heard as it is written, or bars of it. */
  timeline(loop: boolean, countIn: boolean, swing: boolean): PracticeTimeline | null {
    const { percent, part: written } = this.desk
    const part = this.sounding
    if (!part || !written) return null
    const chosen = this.stretches ?? (this.isPlain ? null : this.hearing === 'whole' ? [] : this.bars)
    if (!chosen) return null
    const practice = {
      stretches: chosen.map((each) => (this.onVersion ? sameStretch(written, part, each) : each)),
      ...(chosen.length === 0 ? { bars: part.played } : {}),
      bendsFirst: this.bendsFirst,
      gapBeats: this.gap,
      click: this.click,
      countIn,
      swing,
      strings: this.strings,
      ...(this.behind > 0 ? { behind: { parts: this.otherParts, loudness: this.behind } } : {}),
    }
    const laid = (percents: number[]) => this.placed(practiceTimeline(part, { ...practice, percents }), part)
    if (!loop) return laid([100])
    const once = practiceTimeline(part, { ...practice, percents: [100], countIn: false }).sounds.length
    const passes = Math.min(MOST_PASSES, Math.max(Math.floor(MOST_SOUNDS / Math.max(once, 1)), 2))
    const start = this.from ?? percent
    const percents = this.rises
      ? risingPercents(start, Math.max(this.goal, start), this.by, this.after, passes)
      : Array.from({ length: passes }, () => percent)
    // The part is timed at the practice tempo already.
    return laid(percents.map((each) => (100 * each) / percent))
  }

  /** With the places where the part has what sounds. */
  private placed(timeline: PracticeTimeline, sounding: Part): PracticeTimeline {
    const { part } = this.desk
    if (!this.onVersion || !part) return timeline
    const marks = timeline.marks.map((mark) => ({ ...mark, ...sameMoment(sounding, part, mark) }))
    return { ...timeline, marks }
  }

  /** A tempo that rises falls back by one rise; whether it was rising. */
  fallBack(): boolean {
    if (!this.rises || this.heardPercent === null) return false
    this.from = Math.max(this.heardPercent - this.by, SLOWEST_PERCENT)
    return true
  }

  private get strings(): Practice['strings'] {
    const layered = this.hearing !== 'whole' && (this.layer === 'bass' || this.layer === 'melody')
    const voice = layered ? (this.layer as 'bass' | 'melody') : this.voice
    const alone = voice === 'all' ? undefined : this.data?.[voice]
    return alone && { alone, others: layered ? 0 : this.others }
  }

  /** Whether nothing but the notes is asked for. */
  private get isPlain(): boolean {
    return this.click === 'off' && !this.rises && this.voice === 'all' && !this.bendsFirst && !this.onVersion
  }

  /** The chosen bars; where none are, the whole. */
  private get bars(): Stretch[] {
    const { part, bar, range } = this.desk
    if (!part || bar < 0) return []
    return [
      {
        first: { bar: range[0], event: 0 },
        last: { bar: range[1], event: part.bars[range[1]].events.length - 1 },
      },
    ]
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
      if (this.chunk) this.choose(this.chosen, this.layer)
      else this.chosen = -1
    } catch (error) {
      this.problem = isStale(error)
        ? 'These chunks were changed in another window; open the song again.'
        : (error as Error).message
    }
  }
}
