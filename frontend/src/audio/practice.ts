/**
 * What is practised, laid out in time: some stretches joined, again and again, with a gap, clicks, and a
 * tempo that rises. Pure; times are seconds from the first click.
 */
import type { Moment, Part } from '../api/client'
import { clickPlaces, countIn, EARLY, type Click, type ClickKind } from './clicks'
import { barsBetween, cutOut, nextBeat, order, type Stretch } from './places'
import { timelineOfBars, type Mark, type Sound, type Timeline } from './timeline'

export interface Practice {
  stretches: Stretch[] // one after the other; those that touch are joined
  bars?: number[] // instead of them: whole bars as they are played, repeats and all
  bendsFirst?: boolean // before every pass one with each bend's target, struck
  percents: number[] // of the timeline's tempo, one a pass
  gapBeats: number // to breathe between passes
  click: ClickKind
  countIn: boolean
  swing: boolean
  behind?: { parts: Part[]; loudness: number } // other players, bar by bar the same, 0 to 1
  strings?: { alone: number[]; others: number } // those heard in full, and how loud the others are, 0 to 1
}
export interface Pass {
  at: number
  percent: number
}
export interface PracticeTimeline extends Timeline {
  clicks: Click[]
  passes: Pass[]
}

interface Piece {
  sounds: Sound[]
  marks: Mark[]
  clicks: Click[]
  seconds: number
}

export function practiceTimeline(part: Part, practice: Practice): PracticeTimeline {
  const joined = joinedStretches(part, practice.stretches)
  const entry = practice.bars ? { bar: practice.bars[0], event: 0 } : joined[0].first
  const first = part.bars[entry.bar]
  const beatSeconds = first.beat_quarters * first.quarter_seconds
  const bent = practice.bars
    ? pieceOfBars(part, practice.bars, practice)
    : onePass(part, joined, practice, beatSeconds)
  const passes = practice.bendsFirst ? [onTargets(bent), bent] : [bent]
  const percents = practice.percents.flatMap((percent) => passes.map((once) => ({ percent, once })))
  const made: PracticeTimeline = {
    ...{
      sounds: [],
      marks: [],
      clicks: [],
      passes: [],
      seconds: 0,
      beatSeconds,
      lead: { clicks: [], seconds: 0 },
    },
  }
  const lead = practice.countIn ? countIn(part, entry) : { clicks: [], seconds: 0 }
  for (const [number, { percent, once }] of percents.entries()) {
    const stretch = 100 / percent
    if (number === 0) {
      made.clicks.push(...lead.clicks.map((click) => ({ ...click, at: click.at * stretch })))
      made.seconds = lead.seconds * stretch
    }
    const at = made.seconds
    made.passes.push({ at, percent })
    for (const sound of once.sounds) made.sounds.push(slower(sound, at, stretch))
    made.marks.push(...once.marks.map((mark) => ({ ...mark, at: at + mark.at * stretch })))
    made.clicks.push(...once.clicks.map((click) => ({ ...click, at: at + click.at * stretch })))
    made.seconds = at + once.seconds * stretch
    if (number + 1 < percents.length) breathe(made, practice, once.seconds, beatSeconds, stretch)
  }
  return made
}

/** The gap after a pass, counted from the end of its last beat. */
function breathe(
  made: PracticeTimeline,
  practice: Practice,
  passSeconds: number,
  beatSeconds: number,
  stretch: number,
): void {
  const beats = Math.ceil(passSeconds / beatSeconds - EARLY) - passSeconds / beatSeconds
  const gap = beats + practice.gapBeats
  if (practice.click !== 'off')
    for (let beat = 0; beat < practice.gapBeats; beat++)
      made.clicks.push({ at: made.seconds + (beats + beat) * beatSeconds * stretch, accent: false })
  made.seconds += gap * beatSeconds * stretch
}

function slower(sound: Sound, at: number, stretch: number): Sound {
  return {
    ...sound,
    at: at + sound.at * stretch,
    seconds: sound.seconds * stretch,
    glide: sound.glide.map((each) => ({
      ...each,
      from: each.from * stretch,
      seconds: each.seconds * stretch,
    })),
  }
}

/** Stretches in the order written, those with nothing struck between them as one. */
export function joinedStretches(part: Part, stretches: Stretch[]): Stretch[] {
  const sorted = [...stretches].sort((a, b) => order(a.first, b.first))
  const joined: Stretch[] = []
  for (const each of sorted) {
    const before = joined[joined.length - 1]
    if (before && !struckBetween(part, before.last, each.first)) before.last = later(before.last, each.last)
    else joined.push({ ...each })
  }
  return joined
}

const later = (a: Moment, b: Moment): Moment => (order(a, b) < 0 ? b : a)

function struckBetween(part: Part, after: Moment, before: Moment): boolean {
  for (let bar = after.bar; bar <= before.bar; bar++)
    for (const [event, { notes }] of part.bars[bar].events.entries()) {
      const at = { bar, event }
      if (order(after, at) < 0 && order(at, before) < 0 && notes.some((note) => !note.tied)) return true
    }
  return false
}

function onePass(part: Part, stretches: Stretch[], practice: Practice, beatSeconds: number): Piece {
  const whole: Piece = { sounds: [], marks: [], clicks: [], seconds: 0 }
  stretches.forEach((stretch, index) => {
    const piece = pieceOf(part, stretch, practice)
    const at = index > 0 ? nextBeat(whole.seconds, beatSeconds) : 0
    whole.sounds.push(...piece.sounds.map((sound) => ({ ...sound, at: at + sound.at })))
    whole.marks.push(...piece.marks.map((mark) => ({ ...mark, at: at + mark.at })))
    whole.clicks.push(...piece.clicks.map((click) => ({ ...click, at: at + click.at })))
    whole.seconds = at + piece.seconds
  })
  return whole
}

/** From one note to the end of another, with the clicks that fall into it. */
function pieceOf(part: Part, { first, last }: Stretch, practice: Practice): Piece {
  const { sounds, marks, start, seconds } = cutOut(part, { first, last }, practice.swing)
  const within = (at: number) => at >= start - EARLY && at < start + seconds - EARLY
  const bars = barsBetween(first.bar, last.bar)
  const others = backing(bars, practice)
    .filter((sound) => within(sound.at))
    .map((sound) => ({ ...sound, at: sound.at - start }))
  return {
    sounds: [...ownSounds(sounds, practice), ...others],
    marks,
    clicks: clicksOf(part, bars, practice.click)
      .filter((click) => within(click.at))
      .map((click) => ({ ...click, at: click.at - start })),
    seconds,
  }
}

/** Whole bars one after the other, as they are played. */
function pieceOfBars(part: Part, bars: number[], practice: Practice): Piece {
  const { sounds, marks, seconds } = timelineOfBars(part, bars, practice.swing)
  return {
    sounds: [...ownSounds(sounds, practice), ...backing(bars, practice)],
    marks,
    clicks: clicksOf(part, bars, practice.click),
    seconds,
  }
}

/** The same with every bend's target struck instead: what the ear aims at. */
function onTargets(piece: Piece): Piece {
  const sounds = piece.sounds.map((sound) =>
    sound.target === undefined ? sound : { ...sound, midi: sound.target, glide: [] },
  )
  return { ...piece, sounds }
}

function ownSounds(sounds: Sound[], { strings }: Practice): Sound[] {
  return sounds
    .map((sound) =>
      !strings || strings.alone.includes(sound.string) ? sound : softer(sound, strings.others),
    )
    .filter((sound) => sound.loudness > 0)
}

const softer = (sound: Sound, by: number): Sound => ({ ...sound, loudness: sound.loudness * by })

/** What the others play in some bars. */
function backing(bars: number[], { behind, swing }: Practice): Sound[] {
  return (behind?.parts ?? []).flatMap((part) =>
    timelineOfBars(part, bars, swing).sounds.map((sound) => softer(sound, behind!.loudness)),
  )
}

function clicksOf(part: Part, bars: number[], kind: ClickKind): Click[] {
  const found: Click[] = []
  let start = 0
  for (const bar of bars.map((index) => part.bars[index])) {
    for (const { onset, accent } of clickPlaces(bar, kind))
      found.push({ at: start + onset * bar.quarter_seconds, accent })
    start += bar.seconds
  }
  return found
}

/** The tempo of every pass: from a start, by so much after so many, until the goal; and stays there. */
export function risingPercents(
  start: number,
  goal: number,
  by: number,
  after: number,
  passes: number,
): number[] {
  return Array.from({ length: passes }, (_, pass) => Math.min(start + by * Math.floor(pass / after), goal))
}
