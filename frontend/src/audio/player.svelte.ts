/** Plays a timeline with Tone.js: transport, loop, count-in and a cursor that follows. */
import * as Tone from 'tone'
import { COLOURS, deadSamples, midiToHz, pluckSamples } from './pluck'
import type { Click } from './clicks'
import type { Pass } from './practice'
import type { Sound, Timeline } from './timeline'

export interface PlayOptions {
  percent: number // of the timeline's tempo
  loop: boolean
  countIn: boolean
  cents?: number // higher than written
  onMark: (bar: number, event: number) => void
  onPass?: (percent: number) => void
  onEnd: () => void
}

const LONGEST = 4
const AHEAD = 0.2 // s: what is scheduled this long before it sounds survives a busy page
const AT_ONCE = 3 // s of music whose sounds are made before it begins; the rest while it plays
const SLICE = 8 // sounds made between two looks at the page

/** How loud everything plays, one choice for all screens. */
export const volume = $state({ percent: 60, before: 60 })

/** Loudness is heard by its square, roughly: half way up is a quarter of the gain. */
function gainOf(percent: number): number {
  return 1.4 * (percent / 100) ** 2
}

export class Player {
  playing = $state(false)
  #buffers = new Map<string, AudioBuffer>()
  #sounding = new Set<Tone.ToneBufferSource>()
  #output: Tone.Gain | undefined
  #tuned = 1 // playback rate of what is neither higher nor lower than written

  /** One string by itself, to tune by; must follow a key or a click. */
  async tone(midi: number, cents: number): Promise<void> {
    this.stop()
    await this.#begin(cents)
    const sound = { midi, seconds: LONGEST, colour: 'plain', loudness: 0.9, at: 0, string: 0 } as const
    this.#sound({ ...sound, glide: [], vibrato: false }, Tone.now(), 1)
  }

  async #begin(cents: number): Promise<void> {
    await Tone.start()
    Tone.getContext().lookAhead = AHEAD
    this.#output ??= new Tone.Gain(gainOf(volume.percent)).toDestination()
    this.#tuned = 2 ** (cents / 1200)
  }

  /** Start from the beginning of the timeline; must follow a key or a click. */
  async play(
    timeline: Timeline & { clicks?: Click[]; passes?: Pass[] },
    options: PlayOptions,
  ): Promise<void> {
    this.stop()
    await this.#begin(options.cents ?? 0)
    const transport = Tone.getTransport()
    const stretch = 100 / options.percent
    this.#prepare(timeline.sounds, stretch)
    const lead = options.countIn ? timeline.lead.seconds * stretch : 0
    for (const click of options.countIn ? timeline.lead.clicks : [])
      transport.scheduleOnce((time) => this.#click(time, click.accent), click.at * stretch)
    for (const sound of timeline.sounds)
      transport.schedule((time) => this.#sound(sound, time, stretch), lead + sound.at * stretch)
    for (const click of timeline.clicks ?? [])
      transport.schedule((time) => this.#click(time, click.accent), lead + click.at * stretch)
    for (const pass of timeline.passes ?? [])
      transport.schedule(
        (time) => Tone.getDraw().schedule(() => this.playing && options.onPass?.(pass.percent), time),
        lead + pass.at * stretch,
      )
    for (const mark of timeline.marks) {
      transport.schedule(
        (time) => Tone.getDraw().schedule(() => this.playing && options.onMark(mark.bar, mark.event), time),
        lead + mark.at * stretch,
      )
    }
    const end = lead + timeline.seconds * stretch
    if (options.loop) transport.setLoopPoints(lead, end).loop = true
    else
      transport.scheduleOnce(() => {
        // Not from within what is scheduled: there every call would have to say when.
        setTimeout(() => {
          this.stop()
          options.onEnd()
        })
      }, end + 0.3)
    this.playing = true
    transport.start('+0.02')
  }

  /** Louder or softer at once. */
  setVolume(percent: number): void {
    volume.percent = percent
    this.#output?.gain.rampTo(gainOf(percent), 0.05)
  }

  /** Nothing is heard, or again as loud as before. */
  silence(): void {
    const before = volume.before
    volume.before = volume.percent
    this.setVolume(volume.percent > 0 ? 0 : before)
  }

  stop(): void {
    if (!this.playing) return
    this.playing = false
    const transport = Tone.getTransport()
    transport.stop()
    transport.cancel(0)
    transport.loop = false
    for (const source of this.#sounding) source.stop()
    this.#sounding.clear()
  }

  #click(time: number, first: boolean): void {
    const length = 0.05
    this.#start(
      this.#buffer(`click ${first}`, (rate) =>
        pluckSamples(
          { midi: first ? 96 : 89, seconds: length, brightness: 0.9, sustain: 0.00001, edge: 1 },
          rate,
        ),
      ),
      time,
      0.6,
      length,
    )
  }

  /** Make the sounds that come first, and the others bit by bit. */
  #prepare(sounds: Sound[], stretch: number): void {
    const first = sounds.filter(({ at }) => at * stretch < AT_ONCE)
    for (const sound of first) this.#bufferOf(sound)
    const later = (from: number) => {
      for (const sound of sounds.slice(from, from + SLICE)) this.#bufferOf(sound)
      if (this.playing && from + SLICE < sounds.length) setTimeout(() => later(from + SLICE))
    }
    setTimeout(() => later(0))
  }

  #bufferOf({ colour, midi }: Sound): AudioBuffer {
    return this.#buffer(colour === 'dead' ? 'dead' : `${midi} ${colour}`, (rate) =>
      colour === 'dead'
        ? deadSamples(rate)
        : pluckSamples({ midi, seconds: LONGEST, ...COLOURS[colour] }, rate),
    )
  }

  #sound(sound: Sound, time: number, stretch: number): void {
    const seconds = Math.min(sound.seconds * stretch + 0.05, LONGEST)
    const source = this.#start(this.#bufferOf(sound), time, sound.loudness, seconds)
    const rate = source.playbackRate
    rate.setValueAtTime(this.#tuned, time)
    const base = midiToHz(sound.midi)
    for (const glide of sound.glide) {
      const ratio = (midiToHz(glide.midi) / base) * this.#tuned
      const from = time + glide.from * stretch
      if (glide.seconds === 0) rate.setValueAtTime(ratio, from)
      else {
        rate.setValueAtTime(rate.getValueAtTime(from), from)
        rate.linearRampToValueAtTime(ratio, from + glide.seconds * stretch)
      }
    }
    if (sound.vibrato) this.#shake(rate, time, seconds)
  }

  /** A quarter of a half tone up and down, five times a second, after the note has settled. */
  #shake(rate: Tone.ToneBufferSource['playbackRate'], time: number, seconds: number): void {
    for (let at = 0.18; at < seconds; at += 0.1) {
      const settled = rate.getValueAtTime(time + 0.17)
      rate.linearRampToValueAtTime(settled * (Math.round(at * 10) % 2 ? 1.015 : 0.995), time + at)
    }
  }

  #start(buffer: AudioBuffer, time: number, loudness: number, seconds: number): Tone.ToneBufferSource {
    const gain = new Tone.Gain(loudness).connect(this.#output!)
    const source = new Tone.ToneBufferSource(buffer).connect(gain)
    source.fadeOut = 0.03
    this.#sounding.add(source)
    source.onended = () => {
      this.#sounding.delete(source)
      source.dispose()
      gain.dispose()
    }
    source.start(time).stop(time + seconds)
    return source
  }

  #buffer(key: string, samples: (rate: number) => Float32Array<ArrayBuffer>): AudioBuffer {
    let buffer = this.#buffers.get(key)
    if (!buffer) {
      const context = Tone.getContext()
      const made = samples(context.sampleRate)
      buffer = context.createBuffer(1, made.length, context.sampleRate)
      buffer.copyToChannel(made, 0)
      this.#buffers.set(key, buffer)
    }
    return buffer
  }
}
