/** Plucked strings by the Karplus-Strong recurrence: a burst of noise in a loop that loses its edge. */

export interface Pluck {
  midi: number
  seconds: number
  /** How much of the string's edge is left after each turn, 0.5 (dull) to 1. */
  brightness: number
  /** How much of the sound is left after a second. */
  sustain: number
  /** How much of its start is noise, 0 to 1: less is rounder and deeper. */
  edge: number
}

/** How each way to play a note sets the string off; a dead note is no pluck (`deadSamples`). */
export const COLOURS = {
  plain: { brightness: 0.62, sustain: 0.32, edge: 0.5 },
  muted: { brightness: 0.55, sustain: 0.0004, edge: 0.12 },
  slap: { brightness: 0.8, sustain: 0.2, edge: 1 },
  harmonic: { brightness: 0.93, sustain: 0.6, edge: 1 },
}

export function midiToHz(midi: number): number {
  return 440 * 2 ** ((midi - 69) / 12)
}

/** A deterministic noise, so that the same note always sounds the same. */
function noise(count: number): Float32Array {
  const samples = new Float32Array(count)
  let state = 22222
  for (let index = 0; index < count; index++) {
    state = (state * 1664525 + 1013904223) >>> 0
    samples[index] = state / 2 ** 31 - 1
  }
  return samples
}

/** The string as it is let go: drawn to a corner at a fifth of its length, with the noise of the stroke. */
function setOff(count: number, edge: number): Float32Array {
  const corner = count / 5
  return noise(count).map((sample, index) => {
    const drawn = index < corner ? index / corner : (count - index) / (count - corner)
    return edge * sample + (1 - edge) * (2 * drawn - 1)
  })
}

/** Samples of one plucked note, peak at most 1. */
export function pluckSamples(pluck: Pluck, sampleRate: number): Float32Array<ArrayBuffer> {
  const period = sampleRate / midiToHz(pluck.midi)
  // The averaging below delays by part of a sample; reading a fraction ahead makes up for the rest.
  const delay = 1 - pluck.brightness
  const length = Math.max(Math.ceil(period - delay), 2)
  const fraction = length - (period - delay)
  const line = setOff(length, pluck.edge)
  const keep = pluck.sustain ** (1 / midiToHz(pluck.midi))
  const out = new Float32Array(Math.ceil(pluck.seconds * sampleRate))
  let last = 0
  for (let index = 0; index < out.length; index++) {
    const at = index % length
    const now = line[at]
    const next = line[(at + 1) % length]
    const read = now + (next - now) * fraction
    out[index] = read * 0.5
    line[at] = keep * (pluck.brightness * read + (1 - pluck.brightness) * last)
    last = read
  }
  const fade = Math.min(400, out.length)
  for (let index = 0; index < fade; index++) out[out.length - 1 - index] *= index / fade
  return out
}

/** A muted click: noise that is gone in a few hundredths of a second. */
export function deadSamples(sampleRate: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(Math.ceil(0.06 * sampleRate))
  const source = noise(out.length)
  let last = 0
  for (let index = 0; index < out.length; index++) {
    last += 0.25 * (source[index] - last)
    out[index] = last * 0.9 * Math.exp(-index / (0.012 * sampleRate))
  }
  return out
}
