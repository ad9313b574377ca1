/** What the Versions screen shows: which version, what is asked for, and the search under way. */
import {
  api,
  type Approach,
  type Edit,
  type Job,
  type Moment,
  type TuningAndCapo,
  type Version,
  type Ways,
  type Wish,
} from '../../api/client'
import { inOrder } from '../../audio/places'

const POLL_MS = 150

const STAIRCASES = [
  [2, 4, 6],
  [3, 5, 7],
  [2, 3, 4, 5, 6, 7, 8],
]

/** The staircases that lead up to a Step: only stairs below it, each staircase once. */
export function staircasesTo(step: number): number[][] {
  const cut = STAIRCASES.map((stairs) => stairs.filter((stair) => stair < step)).filter(
    (stairs) => stairs.length > 0,
  )
  return cut.filter((stairs, at) => cut.findIndex((other) => other.join() === stairs.join()) === at)
}

export const APPROACH_WORDS: Record<Approach, string> = {
  sound: 'the sound',
  groove: 'the groove',
  shapes: 'the shapes',
  melody: 'the melody',
  strum: 'chords to strum along',
}
export const APPROACH_NAMES: Record<Approach, string> = {
  sound: 'keeping the sound',
  groove: 'keeping the groove',
  shapes: 'keeping the shapes',
  melody: 'melody first',
  strum: 'strumming along',
}
export const LAYER_WORDS: Record<Exclude<Wish['layer'], ''>, string> = {
  melody: 'the melody alone',
  bass: 'the bass alone',
  strum: 'chords to strum',
  'melody+bass': 'melody over bass',
  'melody+strum': 'melody with chords',
  'bass+strum': 'bass with chords between',
  'one guitar': 'the guitars as one part',
}

export const SETUP_WORDS: Record<NonNullable<Wish['setup']>, string> = {
  '': 'as written',
  'standard shapes': 'same shapes in standard tuning',
  'standard music': 'same music in standard tuning',
  'capo music': 'same music with the best capo',
  'open shapes': 'open shapes with a capo',
  'no capo shapes': 'same shapes without the capo',
  'same shapes': 'the shapes stay',
  'same music': 'the music stays, in new places',
  'same chords': 'the chords stay, as open shapes',
}

export type Grouping = 'kind' | 'bar'
export type Side = 'original' | 'version'

export interface EditGroup {
  name: string
  edits: Edit[]
  loss: number
  refused: boolean // all of them
}

export class VersionsState {
  target = $state(4)
  touched = false // whether the target was chosen, and not proposed
  approach = $state<Approach>('sound')
  setup = $state<NonNullable<Wish['setup']>>('')
  asked = $state.raw<TuningAndCapo | null>(null) // another tuning and capo, asked for by name
  fillShortBars = $state(false)
  partIndex = $state(0)
  picked = $state.raw<{ bar: number; event: number } | null>(null) // of the version, to be changed by hand
  pickedTo = $state.raw<Moment | null>(null) // where what is picked ends, for one change
  sideBySide = $state(false)
  originalStep = $state(10)
  grouping = $state<Grouping>('kind')
  side = $state<Side>('version')
  withOriginal = $state(true)
  job = $state.raw<Job | null>(null)
  message = $state('')
  ways = $state.raw<Ways | null>(null) // found, none of them taken yet
  cursor = $state.raw<{ bar: number; event: number } | null>(null)

  get searching(): boolean {
    return this.job?.state === 'running'
  }

  setTarget(step: number): void {
    this.touched = true
    this.propose(step)
  }

  /** Begin with another song. */
  begin(): void {
    this.ways = null
    this.touched = false
    this.partIndex = 0
    this.picked = null
    this.pickedTo = null
    this.setup = ''
    this.asked = null
    this.sideBySide = false
  }

  /** Pick an event of the version, or stretch what is picked to it. */
  pick(bar: number, event: number, further: boolean): void {
    const at = { bar, event }
    if (further && this.picked) {
      if (inOrder(this.picked, at)) this.pickedTo = at
      else [this.picked, this.pickedTo] = [at, this.picked]
      return
    }
    this.picked = at
    this.pickedTo = null
  }

  /** A target to begin with. */
  propose(step: number): void {
    if (Number.isFinite(step)) this.target = Math.min(10, Math.max(1, Math.round(step * 2) / 2))
  }

  /** Ask for a version and follow the search; the new version's id, or none when it was stopped. */
  async search(songId: number, wish: Partial<Wish> = {}): Promise<number | null> {
    const job = await this.followed(() => api.askForVersion(songId, this.wish(wish)))
    return job?.version_id ?? null
  }

  /** Ask for up to three ways to the target, for a student within their limits; they are shown until one is
      taken. */
  async findWays(songId: number, student_id: number | null): Promise<void> {
    const job = await this.followed(() => api.askForWays(songId, this.wish({ student_id })))
    if (job?.state === 'finished') this.ways = await api.ways(job.id)
  }

  /** Store one of the ways; the new version's id, or none. */
  async take(way: number): Promise<number | null> {
    if (!this.job) return null
    const made = await api.takeWay(this.job.id, way)
    this.ways = null
    return made.id
  }

  private wish(own: Partial<Wish>): Wish {
    return {
      target: this.target,
      further_targets: [],
      layer: '',
      student_id: null,
      keeping: null,
      with_parts: null,
      approach: this.approach,
      setup: this.setup,
      ...(this.asked ?? { tuning: '', capo: 0 }),
      fill_short_bars: this.fillShortBars,
      part_index: this.partIndex,
      ...own,
    }
  }

  private async followed(ask: () => Promise<Job>): Promise<Job | null> {
    this.message = ''
    this.ways = null
    try {
      this.job = await ask()
      while (this.job.state === 'running') {
        await new Promise((resolve) => setTimeout(resolve, POLL_MS))
        this.job = await api.search(this.job.id)
      }
      this.message = this.job.state === 'stopped' ? 'Stopped; nothing was kept of it.' : this.job.message
      return this.job
    } catch (error) {
      this.message = error instanceof Error ? error.message : String(error)
      this.job = null
      return null
    }
  }

  async stop(): Promise<void> {
    if (this.job) await api.stopSearch(this.job.id)
  }
}

/** Edits that were made in one go, or do the very same in several bars, together. */
export function alikes(edits: Edit[]): Edit[][] {
  const rows = new Map<number, Edit[]>()
  for (const edit of edits) rows.set(edit.alike, [...(rows.get(edit.alike) ?? []), edit])
  return [...rows.values()]
}

/** `bar 3`, `bars 3, 7, 11`. */
export function barsOf(edits: Edit[]): string {
  const bars = [...new Set(edits.flatMap((edit) => edit.bars))].sort((a, b) => a - b)
  return `bar${bars.length > 1 ? 's' : ''} ${bars.join(', ')}`
}

/** The edits by kind or by bar, in the order they were made. */
export function grouped(edits: Edit[], by: Grouping): EditGroup[] {
  const groups = new Map<string, Edit[]>()
  for (const edit of edits) {
    const name = by === 'kind' ? edit.does : `Bar ${edit.bars.join(', ')}`
    groups.set(name, [...(groups.get(name) ?? []), edit])
  }
  return [...groups].map(([name, own]) => ({
    name,
    edits: own,
    loss: own.reduce((sum, edit) => sum + edit.loss, 0),
    refused: own.every((edit) => edit.refused),
  }))
}

/** Ids refused once these edits are refused, or kept again: keeping one takes back what it builds on. */
export function choice(version: Version, edits: Edit[], refuse: boolean): number[] {
  const refused = new Set(version.edits.filter((edit) => edit.refused_itself).map((edit) => edit.id))
  const byId = new Map(version.edits.map((edit) => [edit.id, edit]))
  const keep = (id: number): void => {
    refused.delete(id)
    byId.get(id)?.builds_on.forEach(keep)
  }
  for (const edit of edits) {
    if (refuse) refused.add(edit.id)
    else keep(edit.id)
  }
  return [...refused]
}

/** The edits that a version's latest choice refuses themselves. */
export function refusedIn(version: Version): number[] {
  return version.edits.filter((edit) => edit.refused_itself).map((edit) => edit.id)
}

/** A choice in words, an edit a line: `kept: bars 3, 4: leaves out the upper notes`. */
export function refusalLines(version: Version, refused: number[]): string {
  return version.edits
    .map((edit) => `${refused.includes(edit.id) ? 'refused' : 'kept'}: ${barsOf([edit])}: ${edit.does}`)
    .join('\n')
}
