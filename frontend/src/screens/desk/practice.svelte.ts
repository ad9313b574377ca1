/** How what is chosen is practised: what of it is heard, and how it is laid out in time. */
import type { Chunk, Part } from '../../api/client'
import type { ClickKind } from '../../audio/clicks'
import { notesAlone, sameMoment, sameStretch, type Stretch } from '../../audio/places'
import { practiceTimeline, risingPercents, type Practice, type PracticeTimeline } from '../../audio/practice'
import { SLOWEST_PERCENT, type DeskState } from './desk.svelte'
import type { LessonState } from './lesson.svelte'

export type Hearing = 'new' | 'so far' | 'whole'
export type Voice = 'all' | 'melody' | 'bass'
export const CLICK_WORDS: Record<ClickKind, string> = {
  off: 'no click',
  beats: 'click on the beat',
  eighths: 'click on eighths',
  backbeat: 'click on 2 and 4',
  turned: 'click between beats',
}
const MOST_SOUNDS = 6000 // laid out at once
const MOST_PASSES = 200

export class PracticeState {
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
  heardPercent = $state<number | null>(null) // of the pass that sounds

  constructor(
    private readonly desk: DeskState,
    private readonly lesson: LessonState,
  ) {}

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

  get severalSections(): boolean {
    return (this.desk.part?.sections.length ?? 0) > 1
  }

  /** Whether a note of the part is bent. */
  get bent(): boolean {
    const bars = this.desk.part?.bars ?? []
    return bars.some(({ events }) => events.some(({ notes }) => notes.some((note) => note.bend_half_tones)))
  }

  /** What is heard: the chosen notes, everything learnt up to them, or the whole part. */
  get stretches(): Stretch[] | null {
    if (this.hearing === 'whole') return null
    if (this.hearing === 'so far' && this.lesson.chunk) {
      const learnt = this.lesson.steps
        .slice(0, this.lesson.at + 1)
        .filter(({ layer }) => layer === this.lesson.layer)
      const section = this.sectionOf(this.lesson.chunk)
      const chunks = learnt.map(({ index }) => this.lesson.chunks[index])
      return this.lesson.joined(
        chunks.filter((chunk) => !this.sectionAlone || this.sectionOf(chunk) === section),
      )
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
    return part && this.lesson.layer === 'notes' && this.hearing !== 'whole' ? notesAlone(part) : part
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
    const layered =
      this.hearing !== 'whole' && (this.lesson.layer === 'bass' || this.lesson.layer === 'melody')
    const voice = layered ? (this.lesson.layer as 'bass' | 'melody') : this.voice
    const alone = voice === 'all' ? undefined : this.lesson.data?.[voice]
    return alone && { alone, others: layered ? 0 : this.others }
  }

  /** Whether nothing but the notes is asked for. */
  private get isPlain(): boolean {
    const own = this.rises || this.bendsFirst || this.onVersion
    return this.click === 'off' && this.voice === 'all' && this.behind === 0 && !own
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
}
