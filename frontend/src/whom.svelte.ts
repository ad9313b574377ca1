/**
 * For whom everything is graded: a student by who they are, or a hand; one choice for all screens and
 * visits.
 */
import { USUAL, type GradeQuery } from './api/client'

export interface Hand {
  span_mm: number
  little_finger: NonNullable<GradeQuery['little_finger']>
  thumb_over: boolean
}
export const MEDIUM: Hand = { span_mm: 100, little_finger: 'usual', thumb_over: false }
const KEY = 'clear-steps-whom'

export const whom = $state<{ studentId: number | null; hand: Hand }>(remembered())

export function chooseStudent(id: number): void {
  whom.studentId = id
  remember()
}

export function chooseHand(hand: Hand): void {
  whom.studentId = null
  whom.hand = hand
  remember()
}

/** What the server is asked for them. */
export function whomQuery(): GradeQuery {
  return whom.studentId === null ? { ...USUAL, ...whom.hand } : { ...USUAL, student_id: whom.studentId }
}

/** Whether nobody was chosen: what is written for a student is then shown for that student. */
export function isAnybody(): boolean {
  return whom.studentId === null && JSON.stringify(whom.hand) === JSON.stringify(MEDIUM)
}

function remember(): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(whom))
  } catch {
    // A browser that keeps nothing: the choice holds until the page is left.
  }
}

function remembered(): { studentId: number | null; hand: Hand } {
  const nobody = { studentId: null, hand: { ...MEDIUM } }
  try {
    return { ...nobody, ...JSON.parse(localStorage.getItem(KEY) ?? '{}') }
  } catch {
    return nobody
  }
}
