import { describe, expect, it } from 'vitest'
import type { Bar, Event, FigurePlace, Note, Part } from '../api/client'
import { timelineOfPlaces } from './places'
import { COLOURS, deadSamples, midiToHz, pluckSamples } from './pluck'
import { timelineOf } from './timeline'

const RATE = 44100

/** The strongest period in samples, by autocorrelation around a guess. */
function period(samples: Float32Array, guess: number): number {
  let best = 0
  let at = 0
  for (let lag = Math.floor(guess * 0.9); lag < guess * 1.1; lag++) {
    let sum = 0
    for (let index = 4000; index < 12000; index++) sum += samples[index] * samples[index + lag]
    if (sum > best) [best, at] = [sum, lag]
  }
  return at
}
function power(samples: Float32Array, from: number, to: number): number {
  return samples.slice(from * RATE, to * RATE).reduce((sum, sample) => sum + sample * sample, 0)
}
/** How strongly a frequency sounds in the first fifth of a second. */
function strength(samples: Float32Array, hz: number): number {
  let [real, imaginary] = [0, 0]
  for (let index = 0; index < RATE / 5; index++) {
    real += samples[index] * Math.cos((2 * Math.PI * hz * index) / RATE)
    imaginary += samples[index] * Math.sin((2 * Math.PI * hz * index) / RATE)
  }
  return Math.hypot(real, imaginary)
}

describe('the plucked string', () => {
  it.each([40, 52, 64])('sounds at the pitch of MIDI %i', (midi) => {
    const samples = pluckSamples({ midi, seconds: 1, ...COLOURS.plain }, RATE)
    expect(Math.abs(period(samples, RATE / midiToHz(midi)) - RATE / midiToHz(midi))).toBeLessThanOrEqual(1)
  })
  it('rings on when plain and stops at once when muted', () => {
    const plain = pluckSamples({ midi: 45, seconds: 1, ...COLOURS.plain }, RATE)
    const muted = pluckSamples({ midi: 45, seconds: 1, ...COLOURS.muted }, RATE)
    const share = (samples: Float32Array): number => power(samples, 0.5, 0.9) / power(samples, 0, 0.1)
    expect(share(muted)).toBeLessThan(share(plain) / 50)
  })
  it.each([
    [40, 'plain'],
    [45, 'muted'],
    [50, 'plain'],
    [40, 'muted'],
  ] as const)('sounds MIDI %i, %s, at its own pitch above all its partials', (midi, colour) => {
    const samples = pluckSamples({ midi, seconds: 0.4, ...COLOURS[colour] }, RATE)
    const own = strength(samples, midiToHz(midi))
    for (const partial of [2, 3, 4, 5, 6, 8, 10])
      expect(strength(samples, midiToHz(midi) * partial)).toBeLessThan(own)
  })
  it('never clips', () => {
    expect(
      Math.max(
        ...pluckSamples({ midi: 45, seconds: 0.2, brightness: 0.9, sustain: 0.5, edge: 1 }, RATE).map(
          Math.abs,
        ),
      ),
    ).toBeLessThanOrEqual(1)
    expect(Math.max(...deadSamples(RATE).map(Math.abs))).toBeLessThanOrEqual(1)
  })
})

function note(change: Partial<Note>): Note {
  return {
    string: 3,
    fret: 5,
    pitch: 60,
    techniques: [],
    bend_half_tones: null,
    bend_released: false,
    tied: false,
    sounding_quarters: 1,
    ...change,
  } as Note
}
function event(onset: number, notes: Note[], how: string[] = []): Event {
  return { onset_quarters: onset, quarters: 1, notes, how, stroke: null } as unknown as Event
}
function part(...bars: Event[][]): Part {
  const made = bars.map(
    (events, index) =>
      ({
        index,
        quarters: 4,
        beat_quarters: 1,
        groups: [1, 1, 1, 1],
        starts_at: 0,
        quarter_seconds: 0.5,
        seconds: 2,
        events,
      }) as unknown as Bar,
  )
  return { bars: made, played: bars.length > 1 ? [0, 1, 0] : [0] } as unknown as Part
}

describe('the timeline', () => {
  const two = part(
    [event(0, [note({})]), event(0.5, [note({ pitch: 62 })])],
    [event(0, [note({ pitch: 64 })])],
  )

  it('plays the whole song with its repeats, and a chosen bar alone', () => {
    expect(timelineOf(two, [0, 1], false).sounds.map((sound) => [sound.at, sound.midi])).toEqual([
      [0, 60],
      [0.25, 62],
      [2, 64],
      [4, 60],
      [4.25, 62],
    ])
    expect(timelineOf(two, [1, 1], false)).toMatchObject({
      seconds: 2,
      lead: { seconds: 2 },
      marks: [{ at: 0, bar: 1, event: 0 }],
    })
  })
  it('plays the second eighth late when the feel is swing', () => {
    expect(timelineOf(two, [0, 0], true).sounds[1].at).toBeCloseTo((2 / 3) * 0.5)
  })
  it.each([
    ['palm_mute', 'muted'],
    ['dead', 'dead'],
    ['natural_harmonic', 'harmonic'],
    ['vibrato', 'plain'],
  ])('gives %s its own sound', (technique, colour) => {
    expect(
      timelineOf(part([event(0, [note({ techniques: [technique] })])]), [0, 0], false).sounds[0].colour,
    ).toBe(colour)
  })
  it('bends to the pitch written and lets go', () => {
    const [sound] = timelineOf(
      part([event(0, [note({ bend_half_tones: 2, bend_released: true })])]),
      [0, 0],
      false,
    ).sounds
    expect(sound.glide.map((glide) => glide.midi)).toEqual([62, 60])
  })
  it('slides from the note before', () => {
    const slid = part([event(0, [note({ pitch: 55 })]), event(1, [note({ techniques: ['slide'] })])])
    expect(timelineOf(slid, [0, 0], false).sounds[1].glide.map((glide) => glide.midi)).toEqual([55, 60])
  })
  it('repeats a tremolo in thirty-seconds', () => {
    expect(timelineOf(part([event(0, [note({})], ['tremolo'])]), [0, 0], false).sounds).toHaveLength(8)
  })
  const only = (note_: Note, change: object = {}) =>
    timelineOf(part([{ ...event(0, [note_]), ...change } as Event]), [0, 0], false).sounds
  it('lets a slide out go, up or down, at the end of its note', () => {
    const [up] = only(note({ techniques: ['slide_out_up'] }))
    expect(up.glide).toEqual([{ midi: 65, from: up.seconds - 0.14, seconds: 0.14 }])
    const [down] = only(note({ techniques: ['slide_out_down'] }))
    expect(down.glide[0].midi).toBe(55)
  })
  it('dips as deep as is written and comes back', () => {
    const [dipped] = only(note({ techniques: ['whammy_dip'] }), { dip: 2 })
    expect(dipped.glide.map(({ midi }) => midi)).toEqual([58, 60])
  })
  it('trills between two notes, and slaps with an edge', () => {
    expect(
      only(note({ techniques: ['trill'] }))
        .slice(0, 4)
        .map(({ midi }) => midi),
    ).toEqual([60, 62, 60, 62])
    expect(only(note({ techniques: ['slap'] }))[0].colour).toBe('slap')
  })
  it('is as loud as the last mark says', () => {
    const soft = part([
      { ...event(0, [note({})]), dynamic: 'p' } as Event,
      event(1, [note({})]),
      { ...event(2, [note({})]), dynamic: 'ff' } as Event,
    ])
    const [first, second, third] = timelineOf(soft, [0, 0], false).sounds.map(({ loudness }) => loudness)
    expect(first).toBe(second)
    expect(third).toBeGreaterThan(2 * first)
  })
  it('does not strike a tied note again', () => {
    expect(
      timelineOf(part([event(0, [note({})]), event(1, [note({ tied: true })])]), [0, 0], false).sounds,
    ).toHaveLength(1)
  })
})

describe('places of a figure', () => {
  const place = (bar: number, first: number, last: number) =>
    ({ first: { bar, event: first }, last: { bar, event: last } }) as FigurePlace
  const two = part(
    [event(0, [note({})]), event(1, [note({ pitch: 62 })]), event(2, [note({ pitch: 63 })])],
    [event(0, [note({ pitch: 64 })]), event(1, [note({ pitch: 65 })])],
  )

  it('sound one after the other with a beat between, and nothing else', () => {
    const { sounds, marks, seconds } = timelineOfPlaces(two, [place(0, 1, 2), place(1, 0, 0)], false)
    expect(sounds.map((sound) => [sound.at, sound.midi])).toEqual([
      [0, 62],
      [0.5, 63],
      [1.5, 64],
    ])
    expect(marks.map((mark) => [mark.bar, mark.event])).toEqual([
      [0, 1],
      [0, 2],
      [1, 0],
    ])
    expect(seconds).toBe(2)
  })
})
