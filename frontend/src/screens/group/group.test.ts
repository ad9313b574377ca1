import { describe, expect, it } from 'vitest'
import type { Part } from '../../api/client'
import type { Timeline } from '../../audio/timeline'
import { rowNames, setupWords } from '../../components/setup'
import { together } from '../../audio/timeline'

describe('the top of a printed page', () => {
  it('says every setup once, and the tempo', () => {
    const part = (tuning: string, capo: number): Part => ({ tuning, capo }) as Part
    expect(setupWords([part('standard', 2), part('standard', 2)], 96.4)).toBe(
      'Tune: standard, capo 2. Tempo: 96 quarter notes a minute.',
    )
    expect(setupWords([part('standard', 0), part('drop D', 0)], 80)).toBe(
      'Tune: standard; drop D. Tempo: 80 quarter notes a minute.',
    )
  })
})

describe('playing together', () => {
  const timeline = (seconds: number, loudness: number): Timeline =>
    ({
      seconds,
      beatSeconds: 0.5,
      countIn: 4,
      marks: [{ at: 0, bar: seconds, event: 0 }],
      sounds: [{ at: 0, loudness }],
    }) as unknown as Timeline

  it('sounds everything, more softly each, and follows the first', () => {
    const both = together([timeline(2, 0.8), timeline(3, 0.8)])
    expect(both.sounds.map((sound) => sound.loudness.toFixed(3))).toEqual(['0.566', '0.566'])
    expect([both.seconds, both.marks[0].bar]).toEqual([3, 2])
  })
})

describe('the rows of a comparison', () => {
  it('are named with their set-up only where it differs', () => {
    const part = (tuning: string, capo: number): Part => ({ tuning, capo }) as Part
    expect(rowNames(part('standard', 0), part('standard', 0))).toEqual(['original', 'version'])
    expect(rowNames(part('drop D', 0), part('standard', 2))).toEqual([
      'original: drop D',
      'version: standard, capo 2',
    ])
  })
})
