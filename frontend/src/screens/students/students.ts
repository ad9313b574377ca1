/** What the Students screen edits, and how it says it. */
import type { Student, StudentIn, Technique } from '../../api/client'

type Unsaid = 'notes_per_second' | 'comfortable_step' | 'instrument' | 'scale_length_mm' | 'tuning'
export type Draft = Required<Omit<StudentIn, Unsaid>> & {
  notes_per_second: number | null
  comfortable_step: number | null
  instrument: NonNullable<StudentIn['instrument']> | null
  scale_length_mm: number | null
  tuning: string | null
}

/** A new student: a usual hand, nothing said about limits. */
export const NOBODY: Draft = {
  name: '',
  span_mm: 100,
  little_finger: 'usual',
  thumb_over: false,
  notes_per_second: null,
  unknown_techniques: [],
  hardest_shape: 'full barre',
  steps: {},
  put_away: false,
  comfortable_step: null,
  instrument: null,
  scale_length_mm: null,
  tuning: null,
  language: 'en',
  names: 'letters',
}

export function draftOf(student: Student): Draft {
  const { id: _id, number: _number, ...rest } = student
  return structuredClone({ ...NOBODY, ...rest })
}

/** Those to choose from: everybody who was not put away. */
export function present(students: Student[] | undefined): Student[] {
  return (students ?? []).filter((student) => !student.put_away)
}

const SHAPE_WORDS: Record<Draft['hardest_shape'], string> = {
  'no barre': 'no barre yet',
  'small barre': 'no full barre yet',
  'full barre': '',
}

/** `78 mm; 2.5 notes/s; no barre yet; 12 techniques not known yet`. */
export function limitsInWords(student: Student): string {
  const unknown = student.unknown_techniques?.length ?? 0
  return [
    `${student.span_mm} mm`,
    student.comfortable_step ? `songs to Step ${student.comfortable_step}` : '',
    student.notes_per_second ? `${student.notes_per_second} notes/s` : '',
    SHAPE_WORDS[student.hardest_shape ?? 'full barre'],
    unknown ? `${unknown} technique${unknown > 1 ? 's' : ''} not known yet` : '',
    ...Object.entries(student.steps ?? {}).map(([measure, step]) => `${measure} to Step ${step}`),
  ]
    .filter(Boolean)
    .join('; ')
}

/** A student in words, a field a line. */
export function studentLines(draft: Draft, techniques: Technique[]): string {
  const unknown = techniques.filter((row) => draft.unknown_techniques.some((each) => each === row.technique))
  return [
    `name: ${draft.name}`,
    `span: ${draft.span_mm} mm`,
    `little finger: ${draft.little_finger}`,
    `thumb over the neck: ${draft.thumb_over ? 'yes' : 'no'}`,
    `notes a second: ${draft.notes_per_second ?? 'no limit'}`,
    `shapes: ${draft.hardest_shape}`,
    `songs up to Step: ${draft.comfortable_step ?? 'no limit'}`,
    `guitar: ${[draft.instrument, draft.scale_length_mm && `${draft.scale_length_mm} mm`, draft.tuning].filter(Boolean).join(', ') || 'the usual one'}`,
    `sheets: ${draft.language === 'es' ? 'Spanish' : 'English'}, ${draft.names === 'solfege' ? 'do re mi' : 'C D E'}`,
    ...Object.entries(draft.steps)
      .sort()
      .map(([measure, step]) => `${measure} up to Step ${step}`),
    ...unknown.map((row) => `not known yet: ${row.name}`),
    ...(draft.put_away ? ['put away'] : []),
  ].join('\n')
}
