import createClient from 'openapi-fetch'
import { connection } from './connection.svelte'
import type { components, paths } from './schema'

export type Analysis = components['schemas']['AnalysisModel']
export type Part = components['schemas']['PartModel']
export type Bar = components['schemas']['BarModel']
export type Event = components['schemas']['EventModel']
export type Note = components['schemas']['NoteModel']
export type Grip = components['schemas']['GripModel']
export type Finding = components['schemas']['FindingModel']
export type Figure = components['schemas']['FigureModel']
export type FigurePlace = components['schemas']['FigurePlaceModel']
export type Moment = components['schemas']['MomentModel']
export type Lesson = components['schemas']['LessonModel']
export type LessonQuery = components['schemas']['LessonQuery']
export type SettingUpQuery = LessonQuery & { tuned_to: string; to: string }
/** Where a passage begins and ends: bars, or some notes of them. */
export interface PassageEnds {
  first: number
  last: number
  first_event: number | null
  last_event: number | null
}
export type Setting = components['schemas']['SettingModel']
export type SheetChoice = components['schemas']['SheetModel']
export type SheetIn = components['schemas']['SheetIn']
export type SheetBlock = components['schemas']['SheetBlock']
export type Chunk = components['schemas']['ChunkModel']
export type ChunksIn = components['schemas']['ChunksIn']
export type ChunkStart = components['schemas']['ChunkStartIn']
export type StretchIn = components['schemas']['StretchIn']
export type Neck = components['schemas']['NeckModel']
export type Card = components['schemas']['CardModel']
export type Desk = components['schemas']['DeskModel']
export type Student = components['schemas']['StudentModel']
export type StudentSong = components['schemas']['StudentSong']
export type StudentIn = components['schemas']['StudentIn']
export type Measure = components['schemas']['MeasureModel']
export type Problem = components['schemas']['ProblemModel']
export type Revision = components['schemas']['RevisionModel']
export type Version = components['schemas']['VersionModel']
export type VersionCard = components['schemas']['VersionCard']
export type PartOffer = components['schemas']['PartOffer']
export type AskIn = components['schemas']['AskIn']
export type AskOfPartIn = components['schemas']['AskOfPartIn']
export type AskedChange = components['schemas']['AskedModel']
export type AskedList = components['schemas']['AskedList']
export type NoteIn = components['schemas']['NoteIn']
export type Group = components['schemas']['GroupModel']
export type GroupIn = components['schemas']['GroupIn']
export type Seat = components['schemas']['SeatModel']
export type Wish = components['schemas']['VersionIn']
export type Approach = Version['approach']
export type Edit = components['schemas']['EditModel']
export type Job = components['schemas']['JobModel']
/** A tuning and capo that is asked for. */
export type TuningAndCapo = Required<Pick<Wish, 'tuning' | 'capo'>>
export type Ways = components['schemas']['WaysModel']
export type Technique = components['schemas']['TechniqueModel']
export type GradeQuery = components['schemas']['GradeQuery']
export type Import = components['schemas']['ImportModel']
export type Headings = components['schemas']['HeadingsModel']
export type HeadingKey = 'Title' | 'Tuning' | 'Capo' | 'Tempo' | 'Time'
export type Alternative = components['schemas']['AlternativeModel']
export type Passage = components['schemas']['PassageIn']
export type NameIn = components['schemas']['NameIn']
export type FingerIn = components['schemas']['FingerIn']
export type RoleIn = components['schemas']['RoleIn']
export type Role = NonNullable<RoleIn['role']>
export type ReadingIn = components['schemas']['ReadingIn']
export type Ladder = components['schemas']['LadderModel']
export type LadderScreen = components['schemas']['LadderScreenModel']
export type LadderPreview = components['schemas']['LadderPreviewModel']
export type Rung = components['schemas']['RungModel']
export type Library = components['schemas']['LibraryModel']
export type LibraryCopy = components['schemas']['CopyModel']
export type Contents = components['schemas']['ContentsModel']
type ErrorBody = components['schemas']['ErrorModel']

const client = createClient<paths>()

/** The usual hand at the marked tempo. */
export const USUAL: GradeQuery = {
  student_id: null,
  span_mm: 100,
  tempo: null,
  school: 'balanced',
  weighing: 'balanced',
  little_finger: 'usual',
  thumb_over: false,
}

/** An answer that says what was wrong and where. */
export class ApiError extends Error {
  readonly code: string
  readonly problems: Problem[]

  constructor(body: Partial<ErrorBody>) {
    super(body.message ?? 'the server could not be reached')
    this.code = body.code ?? 'unreachable'
    this.problems = body.problems ?? []
  }
}

async function reached<T>(call: Promise<T>): Promise<T> {
  try {
    return await call
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === 'AbortError') throw cause
    connection.lose()
    throw new ApiError({})
  }
}

async function answer<T>(call: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  const result = await reached(call)
  if (result.data === undefined) throw new ApiError((result.error ?? {}) as Partial<ErrorBody>)
  return result.data
}

/** The same for a call whose answer holds nothing. */
async function done(call: Promise<{ response: Response; error?: unknown }>): Promise<void> {
  const result = await reached(call)
  if (!result.response.ok) throw new ApiError((result.error ?? {}) as Partial<ErrorBody>)
}

/** A file as it is, which the generated client does not send. */
async function sendFile(path: string, file: File): Promise<{ data?: Contents; error?: unknown }> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: file,
  })
  const body: unknown = await response.json()
  return response.ok ? { data: body as Contents } : { error: body }
}

/** Whether a save failed because somebody else saved first. */
export function isStale(error: unknown): boolean {
  return error instanceof ApiError && error.code === 'stale_revision'
}

export const api = {
  songs: () => answer(client.GET('/api/songs')),
  song: (id: number, query: GradeQuery) =>
    answer(client.GET('/api/songs/{song_id}', { params: { path: { song_id: id }, query } })),
  addSong: (text: string, draft: string) =>
    answer(client.POST('/api/songs', { body: { text, draft, grade: USUAL } })),
  putSongAway: (id: number, away: boolean) =>
    done(client.PUT('/api/songs/{song_id}/away', { params: { path: { song_id: id } }, body: { away } })),
  lesson: (id: number, query: LessonQuery) =>
    answer(client.GET('/api/songs/{song_id}/lesson', { params: { path: { song_id: id }, query } })),
  versionLesson: (id: number, query: LessonQuery) =>
    answer(client.GET('/api/versions/{version_id}/lesson', { params: { path: { version_id: id }, query } })),
  settingUp: (id: number, query: SettingUpQuery) =>
    answer(client.GET('/api/songs/{song_id}/setting-up', { params: { path: { song_id: id }, query } })),
  sheet: (id: number, student_id: number | null) =>
    answer(
      client.GET('/api/songs/{song_id}/sheet', {
        params: { path: { song_id: id }, query: { student_id } },
      }),
    ),
  keepSheet: (id: number, body: SheetIn) =>
    answer(client.PUT('/api/songs/{song_id}/sheet', { params: { path: { song_id: id } }, body })),
  cut: (id: number, body: ChunksIn) =>
    answer(client.PUT('/api/songs/{song_id}/chunks', { params: { path: { song_id: id } }, body })),
  stretch: (id: number, body: StretchIn) =>
    answer(client.POST('/api/songs/{song_id}/stretch', { params: { path: { song_id: id } }, body })),
  preview: (text: string, grade: GradeQuery, signal?: AbortSignal) =>
    answer(client.POST('/api/preview', { body: { text, grade }, signal })),
  save: (id: number, basedOn: number, text: string) =>
    answer(
      client.POST('/api/songs/{song_id}/revisions', {
        params: { path: { song_id: id } },
        body: { based_on: basedOn, text },
      }),
    ),
  revisions: (id: number) =>
    answer(client.GET('/api/songs/{song_id}/revisions', { params: { path: { song_id: id } } })),
  alternatives: (id: number, passage: Passage) =>
    answer(
      client.POST('/api/songs/{song_id}/alternatives', { params: { path: { song_id: id } }, body: passage }),
    ),
  beginReading: (id: number, body: ReadingIn) =>
    answer(client.POST('/api/songs/{song_id}/readings', { params: { path: { song_id: id } }, body })),
  useReading: (id: number, body: ReadingIn) =>
    answer(client.POST('/api/songs/{song_id}/readings/use', { params: { path: { song_id: id } }, body })),
  writeTempo: (id: number, based_on: number, tempo: number) =>
    answer(
      client.POST('/api/songs/{song_id}/tempo', {
        params: { path: { song_id: id } },
        body: { based_on, tempo },
      }),
    ),
  setRinging: (id: number, based_on: number, part_index: number, as_written: boolean) =>
    answer(
      client.POST('/api/songs/{song_id}/ringing', {
        params: { path: { song_id: id } },
        body: { based_on, part_index, as_written },
      }),
    ),
  writeOrder: (id: number, based_on: number, order: string) =>
    answer(
      client.POST('/api/songs/{song_id}/order', {
        params: { path: { song_id: id } },
        body: { based_on, order },
      }),
    ),
  giveRole: (id: number, body: RoleIn) =>
    answer(client.POST('/api/songs/{song_id}/roles', { params: { path: { song_id: id } }, body })),
  nameShape: (id: number, body: NameIn) =>
    answer(client.POST('/api/songs/{song_id}/names', { params: { path: { song_id: id } }, body })),
  pinFinger: (id: number, body: FingerIn) =>
    answer(client.POST('/api/songs/{song_id}/fingers', { params: { path: { song_id: id } }, body })),
  giveOwnStep: (id: number, based_on: number, part_index: number, step: number | null) =>
    answer(
      client.PUT('/api/songs/{song_id}/own-step', {
        params: { path: { song_id: id } },
        body: { based_on, part_index, step },
      }),
    ),
  ladder: () => answer(client.GET('/api/ladder')),
  tryLadder: (ladder: Ladder) => answer(client.POST('/api/ladder/preview', { body: { ladder } })),
  addLadder: (ladder: Ladder) => answer(client.POST('/api/ladders', { body: { ladder } })),
  saveLadder: (id: number, based_on: number, ladder: Ladder) =>
    answer(
      client.POST('/api/ladders/{ladder_id}/revisions', {
        params: { path: { ladder_id: id } },
        body: { based_on, ladder },
      }),
    ),
  chooseLadder: (ladder_id: number | null) =>
    answer(client.PUT('/api/ladder/choice', { body: { ladder_id } })),
  lookAtFile: (name: string, content_base64: string, song: number, signal?: AbortSignal) =>
    answer(client.POST('/api/imports', { body: { name, content_base64, song }, signal })),
  changeHeading: (text: string, key: HeadingKey, value: string) =>
    answer(client.PUT('/api/texts/heading', { body: { text, key, value } })),
  keepParts: (text: string, parts: number[]) =>
    answer(client.PUT('/api/texts/parts', { body: { text, parts } })),
  takeSong: (text: string, song: number) => answer(client.PUT('/api/texts/song', { body: { text, song } })),
  differences: () => answer(client.GET('/api/differences')),
  students: () => answer(client.GET('/api/students')),
  studentSongs: (id: number) =>
    answer(client.GET('/api/students/{student_id}/songs', { params: { path: { student_id: id } } })),
  handOut: (student_id: number, song_id: number, part_index: number) =>
    answer(
      client.GET('/api/students/{student_id}/songs/{song_id}/parts/{part_index}', {
        params: { path: { student_id, song_id, part_index } },
      }),
    ),
  addStudent: (body: StudentIn) => answer(client.POST('/api/students', { body })),
  saveStudent: (id: number, based_on: number, body: StudentIn) =>
    answer(
      client.PUT('/api/students/{student_id}', {
        params: { path: { student_id: id } },
        body: { ...body, based_on },
      }),
    ),
  groups: (songId: number) =>
    answer(client.GET('/api/songs/{song_id}/groups', { params: { path: { song_id: songId } } })),
  proposedGroup: (songId: number) =>
    answer(client.GET('/api/songs/{song_id}/groups/proposed', { params: { path: { song_id: songId } } })),
  group: (id: number) => answer(client.GET('/api/groups/{group_id}', { params: { path: { group_id: id } } })),
  addGroup: (songId: number, body: GroupIn) =>
    answer(client.POST('/api/songs/{song_id}/groups', { params: { path: { song_id: songId } }, body })),
  saveGroup: (id: number, based_on: number, body: GroupIn) =>
    answer(
      client.PUT('/api/groups/{group_id}', {
        params: { path: { group_id: id } },
        body: { ...body, based_on },
      }),
    ),
  versions: (songId: number) =>
    answer(client.GET('/api/songs/{song_id}/versions', { params: { path: { song_id: songId } } })),
  askForVersion: (songId: number, wish: Wish) =>
    answer(
      client.POST('/api/songs/{song_id}/versions', { params: { path: { song_id: songId } }, body: wish }),
    ),
  versionBar: (id: number, bar: number) =>
    answer(
      client.GET('/api/versions/{version_id}/bars/{bar}', { params: { path: { version_id: id, bar } } }),
    ),
  changeVersionBar: (id: number, bar: number, tab: string) =>
    answer(
      client.PUT('/api/versions/{version_id}/bars/{bar}', {
        params: { path: { version_id: id, bar } },
        body: { tab },
      }),
    ),
  changesOf: (id: number, query: PassageEnds) =>
    answer(client.GET('/api/versions/{version_id}/changes', { params: { path: { version_id: id }, query } })),
  askForChange: (id: number, body: AskIn) =>
    answer(client.POST('/api/versions/{version_id}/changes', { params: { path: { version_id: id } }, body })),
  changeNote: (id: number, bar: number, body: NoteIn) =>
    answer(
      client.PUT('/api/versions/{version_id}/bars/{bar}/note', {
        params: { path: { version_id: id, bar } },
        body,
      }),
    ),
  putAway: (id: number, away: boolean) =>
    answer(
      client.PUT('/api/versions/{version_id}/away', { params: { path: { version_id: id } }, body: { away } }),
    ),
  setups: (songId: number, part_index: number, asked: TuningAndCapo | null) =>
    answer(
      client.GET('/api/songs/{song_id}/setups', {
        params: { path: { song_id: songId }, query: { part_index, ...asked } },
      }),
    ),
  changesOfSong: (songId: number, part_index: number, ends: PassageEnds) =>
    answer(
      client.GET('/api/songs/{song_id}/changes', {
        params: { path: { song_id: songId }, query: { part_index, ...ends } },
      }),
    ),
  askForChangeOfSong: (songId: number, body: AskOfPartIn) =>
    answer(client.POST('/api/songs/{song_id}/changes', { params: { path: { song_id: songId } }, body })),
  askForWays: (songId: number, wish: Wish) =>
    answer(client.POST('/api/songs/{song_id}/ways', { params: { path: { song_id: songId } }, body: wish })),
  ways: (jobId: number) =>
    answer(client.GET('/api/searches/{job_id}/ways', { params: { path: { job_id: jobId } } })),
  takeWay: (jobId: number, way: number) =>
    answer(
      client.POST('/api/searches/{job_id}/taken', { params: { path: { job_id: jobId } }, body: { way } }),
    ),
  search: (id: number) => answer(client.GET('/api/searches/{job_id}', { params: { path: { job_id: id } } })),
  stopSearch: (id: number) =>
    answer(client.DELETE('/api/searches/{job_id}', { params: { path: { job_id: id } } })),
  version: (id: number, query: GradeQuery) =>
    answer(client.GET('/api/versions/{version_id}', { params: { path: { version_id: id }, query } })),
  refuse: (id: number, based_on: number, refused: number[]) =>
    answer(
      client.PUT('/api/versions/{version_id}/choice', {
        params: { path: { version_id: id } },
        body: { based_on, refused },
      }),
    ),
  carryOver: (id: number) =>
    answer(client.POST('/api/versions/{version_id}/carried', { params: { path: { version_id: id } } })),
  library: () => answer(client.GET('/api/library')),
  copyContents: (name: string) =>
    answer(client.GET('/api/library/contents', { params: { query: { name } } })),
  restoreCopy: (name: string) => answer(client.POST('/api/library/restored', { body: { name } })),
  putDemoSongsIn: () => answer(client.POST('/api/library/demo-songs')),
  beginDemoOver: () => answer(client.POST('/api/library/begun-over')),
  takeBackup: (file: File) => answer(sendFile('/api/library/backups', file)),
  techniques: () => answer(client.GET('/api/techniques')),
}
