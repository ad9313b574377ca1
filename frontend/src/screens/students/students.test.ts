import { describe, expect, it } from 'vitest'
import type { Student } from '../../api/client'
import { draftOf, limitsInWords, NOBODY, present } from './students'

const tomke: Student = {
  id: 2,
  number: 3,
  name: 'Tomke',
  span_mm: 78,
  little_finger: 'usual',
  thumb_over: false,
  notes_per_second: 2.5,
  unknown_techniques: ['tap'],
  hardest_shape: 'no barre',
  steps: { rhythm: 3 },
  put_away: false,
  comfortable_step: null,
  instrument: null,
  scale_length_mm: null,
  tuning: null,
  language: 'en',
  names: 'letters',
}

describe('a student', () => {
  it('is summed up by what limits a version', () => {
    expect(limitsInWords(tomke)).toBe(
      '78 mm; 2.5 notes/s; no barre yet; 1 technique not known yet; rhythm to Step 3',
    )
    expect(limitsInWords({ ...NOBODY, id: 1, number: 1 })).toBe('100 mm')
  })

  it('is not to be chosen once put away', () => {
    expect(present([tomke, { ...tomke, id: 3, put_away: true }])).toEqual([tomke])
    expect(present(undefined)).toEqual([])
  })

  it('is edited as a copy', () => {
    const draft = draftOf(tomke)
    draft.unknown_techniques.push('vibrato')
    expect(tomke.unknown_techniques).toEqual(['tap'])
    expect(Object.keys(draft)).not.toContain('id')
  })
})
