/** Stretches of a part one after the other, with a breath between: a figure's places, to be compared by ear. */
import type { FigurePlace, Part } from '../api/client'
import { timelineOf, type Timeline } from './timeline'

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
function nextBeat(seconds: number, beatSeconds: number): number {
  return (Math.ceil(seconds / beatSeconds - EARLY) + BREATH) * beatSeconds
}

function cutOut(part: Part, { first, last }: FigurePlace, swing: boolean): Timeline {
  const bars = timelineOf({ ...part, played: [] }, [first.bar, last.bar], swing)
  const inside = bars.marks.filter(
    ({ bar, event }) => isBefore(first, { bar, event }) && isBefore({ bar, event }, last),
  )
  const start = inside[0].at
  const { quarters } = part.bars[last.bar].events[last.event]
  const end = inside[inside.length - 1].at + quarters * part.bars[last.bar].quarter_seconds
  const within = (at: number) => at >= start - EARLY && at < end - EARLY
  return {
    ...bars,
    sounds: bars.sounds
      .filter((sound) => within(sound.at))
      .map((sound) => ({ ...sound, at: sound.at - start, seconds: Math.min(sound.seconds, end - sound.at) })),
    marks: inside.map((mark) => ({ ...mark, at: mark.at - start })),
    seconds: end - start,
  }
}

const EARLY = 1e-6 // s: sums of lengths are not exact

const isBefore = (one: { bar: number; event: number }, other: { bar: number; event: number }): boolean =>
  one.bar < other.bar || (one.bar === other.bar && one.event <= other.event)
