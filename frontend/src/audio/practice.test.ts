import { describe, expect, it } from 'vitest'
import type { Bar, Event, Part } from '../api/client'
import { joinedStretches, practiceTimeline, risingPercents, type Practice } from './practice'
import { clickPlaces, countIn } from './clicks'
import { notesAlone, sameMoment, sameStretch } from './places'

const note = { string: 3, fret: 5, pitch: 60, techniques: [], tied: false, sounding_quarters: 1 }
const event = (onset: number, change: object = {}): Event =>
  ({ onset_quarters: onset, quarters: 1, notes: [{ ...note, ...change }], how: [] }) as unknown as Event
const bar = (index: number, change: object = {}): Bar =>
  ({
    index,
    quarters: 4,
    beat_quarters: 1,
    groups: [1, 1, 1, 1],
    starts_at: 0,
    quarter_seconds: 0.5,
    seconds: 2,
    events: [event(0), event(1), event(2), event(3)],
    ...change,
  }) as unknown as Bar
const part = { bars: [bar(0), bar(1)], played: [0, 1, 0, 1] } as unknown as Part
const at = (index: number, number: number) => ({ bar: index, event: number })
const plain: Practice = {
  stretches: [{ first: at(0, 2), last: at(1, 0) }],
  percents: [100],
  gapBeats: 0,
  click: 'off',
  countIn: false,
  swing: false,
}

describe('what is practised', () => {
  it('goes from one note to the end of another, over the bar line', () => {
    const { sounds, marks, seconds } = practiceTimeline(part, plain)
    expect(sounds.map((sound) => sound.at)).toEqual([0, 0.5, 1])
    expect(marks.map((mark) => [mark.bar, mark.event])).toEqual([
      [0, 2],
      [0, 3],
      [1, 0],
    ])
    expect(seconds).toBe(1.5)
  })
  it('comes again after a gap, each pass at its own tempo, the clicks with it', () => {
    const timeline = practiceTimeline(part, { ...plain, percents: [50, 100], gapBeats: 1, click: 'beats' })
    expect(timeline.passes).toEqual([
      { at: 0, percent: 50 },
      { at: 4, percent: 100 },
    ])
    expect(timeline.sounds.map((sound) => sound.at)).toEqual([0, 1, 2, 4, 4.5, 5])
    expect(timeline.clicks.map((click) => [click.at, click.accent])).toEqual([
      [0, false],
      [1, false],
      [2, true],
      [3, false],
      [4, false],
      [4.5, false],
      [5, true],
    ])
  })
  it('joins stretches that touch, and breathes between others', () => {
    const touching = [
      { first: at(0, 2), last: at(0, 3) },
      { first: at(0, 0), last: at(0, 1) },
    ]
    expect(joinedStretches(part, touching)).toEqual([{ first: at(0, 0), last: at(0, 3) }])
    const apart = practiceTimeline(part, {
      ...plain,
      stretches: [
        { first: at(0, 0), last: at(0, 0) },
        { first: at(1, 0), last: at(1, 0) },
      ],
    })
    expect(apart.sounds.map((sound) => sound.at)).toEqual([0, 1])
  })
  it('plays whole bars as they are played, repeats and clicks with them', () => {
    const whole = practiceTimeline(part, { ...plain, stretches: [], bars: part.played, click: 'beats' })
    expect(whole.seconds).toBe(8)
    expect(whole.sounds).toHaveLength(16)
    expect(whole.clicks.filter((click) => click.accent).map((click) => click.at)).toEqual([0, 2, 4, 6])
  })
  it("lets each bend's target be heard first, then the bend", () => {
    const bent = { ...part, bars: [bar(0, { events: [event(0, { bend_half_tones: 2 })] }), bar(1)] }
    const stretches = [{ first: at(0, 0), last: at(0, 0) }]
    const { sounds } = practiceTimeline(bent as Part, { ...plain, stretches, bendsFirst: true })
    expect(sounds.map(({ midi, glide }) => [midi, glide.length])).toEqual([
      [62, 0],
      [60, 1],
    ])
    expect(sounds[1].at).toBe(0.5)
  })
  it('has the other players behind, at the same time', () => {
    const other = { ...part, bars: [bar(0, { events: [event(0), event(2.5)] }), bar(1)] } as Part
    const { sounds } = practiceTimeline(part, { ...plain, behind: { parts: [other], loudness: 0.5 } })
    expect(sounds.map(({ at, loudness }) => [at, loudness])).toEqual([
      [0, 0.75],
      [0.5, 0.75],
      [1, 0.75],
      [0.25, 0.375],
      [1, 0.375],
    ])
  })
  it('finds the same place in another writing of the bar', () => {
    const halved = { ...part, bars: [bar(0, { events: [event(0), event(2)] }), bar(1)] } as Part
    expect(sameStretch(part, halved, { first: at(0, 1), last: at(0, 3) })).toEqual({
      first: at(0, 0),
      last: at(0, 1),
    })
    expect(sameMoment(halved, part, at(0, 1))).toEqual(at(0, 2))
  })
  it('takes what is done to the notes away for their first layer', () => {
    const muted = bar(0, { events: [event(0, { techniques: ['palm_mute', 'accent'] })] })
    const dead = bar(1, { events: [event(0, { techniques: ['dead'] })] })
    const { bars } = notesAlone({ ...part, bars: [muted, dead] } as Part)
    expect(bars[0].events[0].notes[0].techniques).toEqual(['accent'])
    expect(bars[1].events[0].notes).toEqual([])
  })
  it('lets one voice be heard alone, or the others softer', () => {
    const alone = practiceTimeline(part, { ...plain, strings: { alone: [1], others: 0 } })
    expect(alone.sounds).toEqual([])
    const softer = practiceTimeline(part, { ...plain, strings: { alone: [1], others: 0.3 } })
    expect(softer.sounds[0].loudness).toBeCloseTo(0.75 * 0.3)
  })
})

describe('counting', () => {
  it('counts a bar, and for an entry inside a bar its beats up to there', () => {
    expect(countIn(part, at(0, 0))).toMatchObject({ seconds: 2 })
    const third = countIn(part, at(0, 2))
    expect(third.clicks.map((click) => click.at)).toEqual([0, 0.5, 1, 1.5, 2, 2.5])
    expect(third.seconds).toBe(3)
  })
  it('counts a pickup on the grid of the bar it belongs to', () => {
    const pickup = bar(0, { quarters: 1, starts_at: 3, seconds: 0.5, events: [event(0)] })
    const { clicks, seconds } = countIn({ ...part, bars: [pickup, bar(1)] }, at(0, 0))
    expect(clicks.filter((click) => click.accent).map((click) => click.at)).toEqual([0, 2])
    expect([clicks.length, seconds]).toEqual([7, 3.5])
  })
  it('clicks on eighths, on 2 and 4, or between the beats', () => {
    const places = (kind: 'eighths' | 'backbeat' | 'turned') =>
      clickPlaces(bar(0), kind).map(({ onset }) => onset)
    expect(places('eighths')).toHaveLength(8)
    expect(places('backbeat')).toEqual([1, 3])
    expect(places('turned')).toEqual([0.5, 1.5, 2.5, 3.5])
  })
  it('accents the groups of seven eighths', () => {
    const seven = bar(0, { quarters: 3.5, beat_quarters: 0.5, groups: [1, 1, 1.5] })
    const accents = clickPlaces(seven, 'beats').filter(({ accent }) => accent)
    expect(accents.map(({ onset }) => onset)).toEqual([0, 1, 2])
  })
  it('rises after so many passes until the goal', () => {
    expect(risingPercents(60, 75, 5, 2, 8)).toEqual([60, 60, 65, 65, 70, 70, 75, 75])
  })
})
