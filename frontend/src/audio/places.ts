/** Stretches of a part one after the other, with a breath between: a figure's places, to be compared by ear. */
import type { FigurePlace, Moment, Part } from '../api/client'
import rows from '../rows.json'
import { EARLY } from './clicks'
import { timelineOfBars, type Timeline } from './timeline'

const BREATH = 1 // beats

/** Each place as written, from its first note to the end of its last. */
export function timelineOfPlaces(part: Part, places: FigurePlace[], swing: boolean): Timeline {
  const cut = places.map((place) => cutOut(part, place, swing))
  const whole: Timeline = { ...cut[0], sounds: [], marks: [], seconds: 0 }
  cut.forEach(({ sounds, marks, seconds, beatSeconds }, index) => {
    const at = index > 0 ? nextBeat(whole.seconds, beatSeconds) : 0
    whole.sounds.push(...sounds.map((sound) => ({ ...sound, at: at + sound.at })))
    whole.marks.push(...marks.map((mark) => ({ ...mark, at: at + mark.at })))
    whole.seconds = at + seconds
  })
  return whole
}

/** A breath after what was heard, and on to the next beat. */
export function nextBeat(seconds: number, beatSeconds: number): number {
  return (Math.ceil(seconds / beatSeconds - EARLY) + BREATH) * beatSeconds
}

export interface Stretch {
  first: Moment
  last: Moment
}

/** From one note to the end of another, ties counted; `start`: seconds from its first bar's beginning. */
export function cutOut(part: Part, { first, last }: Stretch, swing: boolean): Timeline & { start: number } {
  const bars = timelineOfBars(part, barsBetween(first.bar, last.bar), swing)
  const inside = bars.marks.filter((mark) => inOrder(first, mark) && inOrder(mark, last))
  const start = inside[0].at
  const end = endOf(part, first.bar, last)
  const within = (at: number) => at >= start - EARLY && at < end - EARLY
  return {
    ...bars,
    start,
    sounds: bars.sounds
      .filter((sound) => within(sound.at))
      .map((sound) => ({ ...sound, at: sound.at - start, seconds: Math.min(sound.seconds, end - sound.at) })),
    marks: inside.map((mark) => ({ ...mark, at: mark.at - start })),
    seconds: end - start,
  }
}

/** Where the last note ends, ties counted, in seconds from the first bar's start. */
function endOf(part: Part, firstBar: number, last: Moment): number {
  let seconds = 0
  for (let bar = firstBar; bar < last.bar; bar++) seconds += part.bars[bar].seconds
  const { events, quarter_seconds } = part.bars[last.bar]
  const goesOn = (event: number) =>
    events[event]?.notes.length > 0 && events[event].notes.every((note) => note.tied)
  let end = last.event
  while (goesOn(end + 1)) end++
  return seconds + (events[end].onset_quarters + events[end].quarters) * quarter_seconds
}

/** Indexes of bars, both ends included. */
export const barsBetween = (first: number, last: number): number[] =>
  Array.from({ length: last - first + 1 }, (_, index) => first + index)

export const order = (a: Moment, b: Moment): number => a.bar - b.bar || a.event - b.event
/** Whether a moment comes before another, or is it. */
export const inOrder = (a: Moment, b: Moment): boolean => order(a, b) <= 0

/** The moment of another writing of the part that sounds where one of this does: the last that has begun. */
export function sameMoment(from: Part, to: Part, at: Moment): Moment {
  const onset = from.bars[at.bar].events[at.event].onset_quarters + EARLY
  const later = to.bars[at.bar].events.findIndex((event) => event.onset_quarters > onset)
  const event = later < 0 ? to.bars[at.bar].events.length - 1 : later - 1
  return { bar: at.bar, event: Math.max(event, 0) }
}

/** The same stretch of another writing of the part. */
export function sameStretch(from: Part, to: Part, { first, last }: Stretch): Stretch {
  return { first: sameMoment(from, to, first), last: sameMoment(from, to, last) }
}

const AFTERWARDS = rows.techniques.filter(({ afterwards }) => afterwards).map(({ technique }) => technique)

/** The part without what is done to its notes. */
export function notesAlone(part: Part): Part {
  const kept = (words: string[]) => words.filter((word) => !AFTERWARDS.includes(word))
  const bars = part.bars.map((bar) => ({
    ...bar,
    events: bar.events.map((event) => ({
      ...event,
      how: kept(event.how),
      notes: event.notes
        .filter((note) => !note.techniques.includes('dead'))
        .map((note) => ({ ...note, techniques: kept(note.techniques) })),
    })),
  }))
  return { ...part, bars } as Part
}
