import { describe, expect, it } from 'vitest'
import type { Part, VersionCard } from '../../api/client'
import type { Timeline } from '../../audio/timeline'
import { rowNames, setupWords } from '../../components/setup'
import { together } from '../../audio/timeline'
import { proposed } from './group.svelte'

const version = (id: number, step: number, student = '', put_away = false): VersionCard =>
  ({ id, step, student, put_away, asked: `asked for Step ${step}`, part_index: 0 }) as VersionCard

const student = (id: number, name: string, comfortable_step: number | null = null) => ({
  id,
  name,
  comfortable_step,
})
const ORIGINAL = [{ index: 0, step: 6 }]

describe('a first proposal for a group', () => {
  const seats = (...args: Parameters<typeof proposed>) =>
    proposed(...args).seats.map((seat) => [seat.who, seat.version_id, seat.student_id])

  it('gives students their own versions and the original to the next', () => {
    const students = [student(1, 'Ada'), student(2, 'Bo'), student(3, 'Cy')]
    expect(seats('Porch', students, [version(1, 3), version(2, 4, 'Bo')], ORIGINAL)).toEqual([
      ['Bo', 2, 2],
      ['Ada', null, 1],
      ['Cy', 1, 3],
    ])
  })
  it('stays within what a student is comfortable with, and lets the teacher play what nobody can', () => {
    const students = [student(1, 'Ada', 4), student(2, 'Bo', 2)]
    expect(seats('Porch', students, [version(1, 3.5), version(2, 1.5), version(3, 5)], ORIGINAL)).toEqual([
      ['teacher', null, null],
      ['Ada', 1, 1],
      ['Bo', 2, 2],
    ])
  })
  it('names players nobody knows, and leaves what was put away', () => {
    expect(seats('Porch', [], [version(1, 3), version(2, 5, '', true)], ORIGINAL)).toEqual([
      ['teacher', null, null],
      ['player 2', 1, null],
    ])
  })
})

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
