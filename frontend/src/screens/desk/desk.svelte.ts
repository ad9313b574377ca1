/** What the Desk shows and what is chosen on it. Server state stays with the query library. */
import {
  type Analysis,
  type Bar,
  type Desk,
  type Event,
  type Figure,
  type FigurePlace,
  type GradeQuery,
  type Moment,
  type Part,
  type PassageEnds,
} from '../../api/client'
import { inOrder, type Stretch } from '../../audio/places'
import { alignedParts, type AlignedPart } from '../../tab/aligned'
import { numberOf } from '../../address'
import { whomQuery } from '../../whom.svelte'

export const SLOWEST_PERCENT = 25
export const FASTEST_PERCENT = 150
const EVENTS = 10_000 // more than any bar holds: moments in one number

export interface Cursor {
  bar: number
  event: number
}

export class DeskState {
  song = $state.raw<Desk | null>(null)
  draft = $state.raw<Analysis | null>(null) // the text under the editor, where it can be read
  percent = $state(100)
  partIndex = $state(0)
  together = $state(false) // all parts are shown and heard
  bar = $state(-1) // chosen bar, -1 = none
  event = $state(0)
  string = $state(0) // of the chosen note where several sound, 0 = none
  chosenFrom = $state(-1) // a chosen stretch runs from here to `bar`
  fromEvent = $state(-1) // where notes are chosen, not bars: the event it begins at, else -1
  figure = $state(-1) // chosen of what comes back, -1 = none
  cursor = $state.raw<Cursor | null>(null)
  textOpen = $state(false)
  asRecorded = $state(false) // heard with the recording's cents

  readonly analysis = $derived(this.draft ?? this.song?.analysis ?? null)
  readonly part: Part | null = $derived(
    this.analysis?.parts[Math.min(this.partIndex, this.analysis.parts.length - 1)] ?? null,
  )
  readonly parts: AlignedPart[] = $derived(
    alignedParts(this.part === null ? [] : this.together ? (this.analysis?.parts ?? []) : [this.part]),
  )
  readonly chosenBar: Bar | null = $derived(this.part?.bars[this.bar] ?? null)
  readonly chosenEvent: Event | null = $derived(this.chosenBar?.events[this.event] ?? null)
  readonly handMm = $derived(this.analysis?.span_mm ?? 100)
  readonly practiceTempo = $derived(this.percent === 100 ? null : (this.markedTempo * this.percent) / 100)

  get markedTempo(): number {
    return this.song?.analysis?.marked_tempo ?? 100
  }

  get query(): GradeQuery {
    return { ...whomQuery(), tempo: this.practiceTempo }
  }

  /** What is chosen, as it stands in the address. */
  get address(): Record<string, string | number> {
    return {
      part: this.together ? 'all' : this.partIndex || '',
      tempo: this.percent === 100 ? '' : this.percent,
      bar: this.bar < 0 ? '' : this.bar,
      from: this.bar < 0 || this.chosenFrom === this.bar ? '' : this.chosenFrom,
    }
  }

  /** Begin with what an address says; bars by index, as far as the part has them. */
  begin({ part, tempo, bar, from }: Record<string, string>): void {
    this.together = part === 'all'
    this.partIndex = numberOf(part, 0)
    this.percent = Math.min(Math.max(numberOf(tempo, 100), SLOWEST_PERCENT), FASTEST_PERCENT)
    this.bar = numberOf(bar, -1)
    this.chosenFrom = numberOf(from, this.bar)
  }

  /** The song is there: a bar it does not have is none. */
  settle(): void {
    const bars = this.part?.bars.length ?? 0
    if (this.bar >= bars || this.chosenFrom >= bars) this.choose(-1, 0)
    else if (this.bar >= 0) this.event = this.worstMoment(this.bar)
  }

  /** Another practice tempo, by so many per cent. */
  quicken(by: number): void {
    this.percent = Math.min(Math.max(this.percent + by, SLOWEST_PERCENT), FASTEST_PERCENT)
  }

  /** Show one part, or all of them under one another. */
  showPart(index: number): void {
    this.together = index < 0
    if (index >= 0) this.partIndex = index
    this.figure = -1
  }

  choose(bar: number, event: number, string = 0): void {
    this.string = string
    this.bar = bar
    this.event = event
    this.chosenFrom = bar
    this.fromEvent = -1
  }

  /** Choose from one note to another. */
  chooseNotes(from: Moment, to: Moment): void {
    this.choose(to.bar, to.event)
    this.chosenFrom = from.bar
    this.fromEvent = from.event
  }

  /** The chosen notes, both included; null where bars are chosen. */
  readonly notes: Stretch | null = $derived.by(() => {
    if (this.bar < 0 || this.fromEvent < 0) return null
    const from = { bar: this.chosenFrom, event: this.fromEvent }
    const to = { bar: this.bar, event: this.event }
    return inOrder(from, to) ? { first: from, last: to } : { first: to, last: from }
  })

  /** Where what is chosen begins and ends, as the server is asked of it: bars, or notes. */
  get ends(): PassageEnds {
    const [first, last] = this.range
    const notes = this.notes
    return { first, last, first_event: notes?.first.event ?? null, last_event: notes?.last.event ?? null }
  }

  /** Stretch the choice to a note. */
  extendToNote(bar: number, event: number): void {
    const from = this.fromEvent < 0 ? { bar: this.bar, event: this.event } : this.anchor
    if (this.bar < 0) this.choose(bar, event)
    else this.chooseNotes(from, { bar, event })
  }

  get anchor(): Moment {
    return { bar: this.chosenFrom, event: this.fromEvent }
  }

  readonly chosenFigure: Figure | null = $derived(this.part?.figures[this.figure] ?? null)

  /** Show all places of a figure, and go to the first; -1 shows none. */
  chooseFigure(index: number): void {
    this.figure = index
    const places = this.chosenFigure?.places
    if (places && this.bar >= 0 && !places.some((place) => this.isAtPlace(place))) this.goTo(places[0])
  }

  /** The whole song again, nothing chosen. */
  showAll(): void {
    this.figure = -1
    this.choose(-1, 0)
  }

  goTo({ first }: FigurePlace): void {
    this.choose(first.bar, first.event)
  }

  isAtPlace({ first, last }: FigurePlace): boolean {
    const at = this.bar * EVENTS + this.event
    return this.bar >= 0 && at >= first.bar * EVENTS + first.event && at <= last.bar * EVENTS + last.event
  }

  /** The next place of the chosen figure, after the last the first; without one the first figure. */
  nextPlace(): void {
    if (!this.chosenFigure) this.figure = (this.part?.figures.length ?? 0) > 0 ? 0 : -1
    const places = this.chosenFigure?.places ?? []
    if (places.length > 0)
      this.goTo(places[(places.findIndex((each) => this.isAtPlace(each)) + 1) % places.length])
  }

  /** Stretch the choice from where it began to this bar. */
  extendTo(bar: number): void {
    if (this.chosenFrom < 0) this.chosenFrom = bar
    this.fromEvent = -1
    this.bar = bar
    this.event = this.firstNote(bar)
  }

  isChosen(bar: number): boolean {
    return (
      this.bar >= 0 &&
      bar >= Math.min(this.chosenFrom, this.bar) &&
      bar <= Math.max(this.chosenFrom, this.bar)
    )
  }

  /** The chosen bars as [first, last], or the whole part. */
  get range(): [number, number] {
    const last = (this.part?.bars.length ?? 1) - 1
    return this.bar < 0
      ? [0, last]
      : [Math.min(this.chosenFrom, this.bar), Math.min(Math.max(this.chosenFrom, this.bar), last)]
  }

  get allColumns(): [number, number] {
    return [0, (this.parts[this.together ? this.partIndex : 0]?.own.length ?? 1) - 1]
  }

  /** The same in the columns that parts share where several are heard together. */
  get columns(): [number, number] {
    const own = this.parts[this.together ? this.partIndex : 0]?.own ?? []
    return this.bar < 0 ? this.allColumns : [own.indexOf(this.range[0]), own.indexOf(this.range[1])]
  }

  /** Its first note. */
  firstNote(bar: number): number {
    const events = this.part?.bars[bar]?.events ?? []
    return Math.max(
      events.findIndex((event) => event.notes.length > 0),
      0,
    )
  }

  /** Choose the moment a measure found worst, or that of the bar's hardest measure. */
  chooseWorst(bar: number, measure?: string): void {
    this.choose(bar, this.worstMoment(bar, measure))
  }

  /** What the sentence and the picture of a bar show, unless a note is chosen. */
  worstMoment(bar: number, measure?: string): number {
    const judged = this.part?.bars[bar]
    const onset = judged?.findings.find(
      (finding) => finding.measure === (measure ?? judged.hardest_measure),
    )?.onset
    const at = this.part?.bars[bar]?.events.findIndex((event) => event.onset === onset) ?? -1
    return at >= 0 ? at : this.firstNote(bar)
  }

  /** One note on or back, over bar lines; or the choice of notes one longer or shorter. */
  moveNote(by: 1 | -1, extend = false): void {
    const bars = this.part?.bars ?? []
    if (this.bar < 0) return this.choose(0, this.firstNote(0))
    let bar = this.bar
    let event = this.event + by
    if (event < 0 && bar > 0) event = bars[--bar].events.length - 1
    else if (event >= bars[bar].events.length && bar < bars.length - 1) {
      bar += 1
      event = 0
    }
    if (!bars[bar]?.events[event]) return
    if (extend) this.extendToNote(bar, event)
    else this.choose(bar, event)
  }

  moveBar(by: 1 | -1, extend: boolean): void {
    const last = (this.part?.bars.length ?? 1) - 1
    const bar = Math.min(Math.max((this.bar < 0 ? -1 : this.bar) + by, 0), last)
    if (extend) this.extendTo(bar)
    else this.choose(bar, this.firstNote(bar))
  }

  /** The grip in force at the chosen event and the one before it. */
  get grips(): { now: Event['grip']; before: Event['grip'] } {
    const flat =
      this.part?.bars.flatMap((bar) =>
        bar.events.map((event, index) => ({ bar: bar.index, index, event })),
      ) ?? []
    const focus = this.cursor ?? { bar: this.bar, event: this.event }
    const at = flat.findIndex((each) => each.bar === focus.bar && each.index === focus.event)
    const held = flat.slice(0, at + 1).filter((each) => each.event.grip)
    return { now: held.at(-1)?.event.grip ?? null, before: held.at(-2)?.event.grip ?? null }
  }
}
