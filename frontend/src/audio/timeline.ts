/** From the part as written to sounds in time: pure, at 100 % of the graded tempo. */
import type { Bar, Event, Note, Part } from '../api/client'
import { countIn, type Click } from './clicks'

export type Colour = 'plain' | 'muted' | 'dead' | 'harmonic' | 'slap'

export interface Sound {
  at: number // seconds from the start of the range
  seconds: number
  midi: number
  string: number
  colour: Colour
  loudness: number // 0 to 1
  glide: { midi: number; from: number; seconds: number }[] // pitch bends: to which pitch, when, how long
  vibrato: boolean
  target?: number // MIDI number that a bend goes to
}
export interface Mark {
  at: number
  bar: number
  event: number
}
export interface Timeline {
  sounds: Sound[]
  marks: Mark[]
  seconds: number
  beatSeconds: number
  lead: { clicks: Click[]; seconds: number } // a count-in, where one is wanted
}

const SLIDE_SECONDS = 0.07
const SLID_OUT = { half_tones: 5, seconds: 0.14 } // as far as a slide that lets go is heard
const TRILLED = 2 // half tones up, where nobody says to which note
// How loud a note is by the mark in force, against one without.
const DYNAMICS: Record<string, number> = { pp: 0.4, p: 0.55, mp: 0.75, mf: 1, f: 1.2, ff: 1.33 }
const HARMONICS = ['natural_harmonic', 'touched_harmonic', 'artificial_harmonic', 'pinch_harmonic']

/** Bars in the order played; a chosen range is played as written. */
export function barsToPlay(part: Part, range: [number, number]): number[] {
  const whole = range[0] === 0 && range[1] === part.bars.length - 1
  return whole ? part.played : part.bars.slice(range[0], range[1] + 1).map((bar) => bar.index)
}

export function timelineOf(part: Part, range: [number, number], swing: boolean): Timeline {
  return timelineOfBars(part, barsToPlay(part, range), swing)
}

/** Some bars (indexes) as written, one after the other. */
export function timelineOfBars(part: Part, order: number[], swing: boolean): Timeline {
  const sounds: Sound[] = []
  const marks: Mark[] = []
  const before = new Map<number, number>() // pitch last heard on each string
  let start = 0
  let level = 1
  for (const index of order) {
    const bar = part.bars[index]
    for (const [number, event] of bar.events.entries()) {
      const at = start + swung(event.onset_quarters, bar, swing) * bar.quarter_seconds
      marks.push({ at, bar: index, event: number })
      level = DYNAMICS[event.dynamic ?? ''] ?? level
      const louder = (sound: Sound) => ({ ...sound, loudness: Math.min(sound.loudness * level, 1) })
      sounds.push(...soundsOf(event, bar, at, before).map(louder))
    }
    start += bar.seconds
  }
  const first = part.bars[order[0]]
  const beatSeconds = first ? first.beat_quarters * first.quarter_seconds : 0.5
  return {
    sounds,
    marks,
    seconds: start,
    beatSeconds,
    lead: first ? countIn(part, { bar: order[0], event: 0 }) : { clicks: [], seconds: 0 },
  }
}

/** Several players at once, each as loud as leaves room for the others; the cursor follows the first. */
export function together(timelines: Timeline[]): Timeline {
  const [first, ...others] = timelines
  const share = 1 / Math.sqrt(timelines.length)
  const sounds = timelines.flatMap((each) =>
    each.sounds.map((sound) => ({ ...sound, loudness: sound.loudness * share })),
  )
  return { ...first, sounds, seconds: Math.max(first.seconds, ...others.map((each) => each.seconds)) }
}

/** The second eighth of a beat comes late when the feel is swing. */
function swung(onset: number, bar: Bar, swing: boolean): number {
  if (!swing || bar.beat_quarters !== 1) return onset
  const beat = Math.floor(onset)
  const part = onset - beat
  return beat + (part < 0.5 ? part * (4 / 3) : 2 / 3 + (part - 0.5) * (2 / 3))
}

function soundsOf(event: Event, bar: Bar, at: number, before: Map<number, number>): Sound[] {
  const struck = event.notes.filter((note) => !note.tied || note.bend_half_tones !== null)
  const sounds = struck.flatMap((note, order) => {
    const delay = event.stroke ? (event.stroke === 'D' ? struck.length - 1 - order : order) * 0.012 : 0
    return tremolo(soundOf(note, event, bar, at + delay, before.get(note.string)), note, event, bar)
  })
  for (const note of event.notes) before.set(note.string, note.pitch)
  return sounds
}

function soundOf(note: Note, event: Event, bar: Bar, at: number, from: number | undefined): Sound {
  const has = (technique: string): boolean => note.techniques.includes(technique)
  const muted = has('palm_mute') || has('staccato')
  const slapped = has('slap') ? 'slap' : 'plain'
  const colour: Colour = has('dead') ? 'dead' : HARMONICS.some(has) ? 'harmonic' : muted ? 'muted' : slapped
  const soft = has('hammer_on') || has('pull_off') || has('slide') || note.tied
  const up = has('artificial_harmonic') || has('pinch_harmonic') ? 12 : 0
  const length = note.sounding_quarters * bar.quarter_seconds
  const seconds = colour === 'dead' ? 0.06 : muted ? Math.min(length, 0.25) : length
  return {
    at,
    seconds,
    midi: note.pitch + up,
    string: note.string,
    colour,
    loudness: soft ? 0.5 : has('accent') || has('slap') ? 0.95 : 0.75,
    glide: [...glides(note, event, bar, from), ...dips(note, event), ...slidOut(note, seconds)],
    vibrato: has('vibrato'),
    ...(note.bend_half_tones ? { target: note.pitch + note.bend_half_tones } : {}),
  }
}

function glides(note: Note, event: Event, bar: Bar, from: number | undefined): Sound['glide'] {
  if (note.bend_half_tones) {
    const length = event.quarters * bar.quarter_seconds
    const target = note.pitch + note.bend_half_tones
    const early = note.techniques.includes('pre_bend')
    const up = { midi: target, from: 0, seconds: early ? 0 : Math.min(length * 0.4, 0.25) }
    return note.bend_released ? [up, { midi: note.pitch, from: length * 0.55, seconds: length * 0.25 }] : [up]
  }
  const slid = ['slide', 'shift_slide'].some((technique) => note.techniques.includes(technique))
    ? from
    : undefined
  const entry =
    slid ??
    (note.techniques.includes('slide_in_below')
      ? note.pitch - 3
      : note.techniques.includes('slide_in_above')
        ? note.pitch + 3
        : undefined)
  if (entry === undefined || entry === note.pitch) return []
  return [
    { midi: entry, from: 0, seconds: 0 },
    { midi: note.pitch, from: 0.01, seconds: SLIDE_SECONDS },
  ]
}

/** Down by as much as is written, a half tone where nothing is, and back. */
function dips(note: Note, event: Event): Sound['glide'] {
  if (!note.techniques.includes('whammy_dip')) return []
  return [
    { midi: note.pitch - (event.dip ?? 1), from: 0.06, seconds: 0.08 },
    { midi: note.pitch, from: 0.16, seconds: 0.08 },
  ]
}

/** A slide that lets go: away at the note's end. */
function slidOut(note: Note, seconds: number): Sound['glide'] {
  const way = note.techniques.includes('slide_out_up')
    ? 1
    : note.techniques.includes('slide_out_down')
      ? -1
      : 0
  const from = Math.max(seconds - SLID_OUT.seconds, 0)
  return way === 0 ? [] : [{ midi: note.pitch + way * SLID_OUT.half_tones, from, seconds: seconds - from }]
}

/** Tremolo repeats a note in thirty-seconds; a trill goes to and fro between two. */
function tremolo(sound: Sound, note: Note, event: Event, bar: Bar): Sound[] {
  const trilled = note.techniques.includes('trill') || event.how.includes('trill')
  if (!trilled && !event.how.some((word) => word === 'tremolo' || word === 'free_tremolo')) return [sound]
  const step = bar.quarter_seconds / 8
  const count = Math.max(Math.round((event.quarters * bar.quarter_seconds) / step), 1)
  return Array.from({ length: count }, (_, index) => ({
    ...sound,
    at: sound.at + index * step,
    midi: sound.midi + (trilled && index % 2 === 1 ? TRILLED : 0),
    seconds: step * 1.1,
    loudness: sound.loudness * 0.75,
  }))
}
