import { describe, expect, it } from 'vitest'
import type { Part, VersionCard } from '../../api/client'
import type { Timeline } from '../../audio/timeline'
import { setupWords } from '../../components/setup'
import { together } from '../../audio/timeline'
import { proposed } from './group.svelte'

const version = (id: number, step: number, student = '', put_away = false): VersionCard =>
  ({ id, step, student, put_away, asked: `asked for Step ${step}`, part_index: 0 }) as VersionCard

describe('a first proposal for a group', () => {
  it('gives students their own versions and the original to the next', () => {
    const group = proposed('Porch', ['Ada', 'Bo', 'Cy'], [version(1, 3), version(2, 4, 'Bo')])
    expect(group.seats.map((seat) => [seat.who, seat.version_id])).toEqual([
      ['Ada', null],
      ['Bo', 2],
      ['Cy', 1],
    ])
  })

  it('seats nobody twice at the same thing', () => {
    const group = proposed('Porch', [], [version(1, 3), version(2, 3), version(3, 2)])
    expect(group.seats.map((seat) => seat.version_id)).toEqual([null, 2, 3])
  })

  it('names players nobody knows, and leaves what was put away', () => {
    const group = proposed('Porch', [], [version(1, 3), version(2, 5, '', true)])
    expect(group.seats.map((seat) => [seat.who, seat.version_id])).toEqual([
      ['player 1', null],
      ['player 2', 1],
    ])
  })
})

describe('the top of a printed page', () => {
  it('says every setup once, and the tempo', () => {
    const part = (tuning: string, capo: number): Part => ({ tuning, capo }) as Part
    expect(setupWords([part('standard', 2), part('standard', 2)], 96.4)).toBe(
      'standard, capo 2, 96 quarter notes a minute',
    )
    expect(setupWords([part('standard', 0), part('drop D', 0)], 80)).toBe(
      'standard; drop D, 80 quarter notes a minute',
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
