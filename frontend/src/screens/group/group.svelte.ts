/** What the Group screen shows and plays: seats of one song, each with a part of their own. */
import type { Group, GroupIn, PartOffer, Seat, Student, VersionCard } from '../../api/client'

import { alignedParts } from '../../tab/aligned'
import { setupWords } from '../../components/setup'
import { stepText } from '../../components/steps'
import { orderOf, type SheetContent } from '../../sheet/sheet'

export class GroupState {
  silent = $state<string[]>([]) // seats that are not heard, by `seatKey`
  pageEach = $state(false)
  cursor = $state.raw<{ bar: number; event: number } | null>(null)

  hears(seat: Seat, at: number): boolean {
    return !this.silent.includes(seatKey(seat, at))
  }

  toggle(seat: Seat, at: number): void {
    const key = seatKey(seat, at)
    this.silent = this.silent.includes(key)
      ? this.silent.filter((each) => each !== key)
      : [...this.silent, key]
  }
}

export function seatKey(seat: Seat, at: number): string {
  return `${at} ${seat.who}`
}

export function bodyOf(group: Group): GroupIn {
  return {
    name: group.name,
    seats: group.seats.map(({ who, part_index, version_id, student_id }) => ({
      who,
      part_index,
      version_id,
      student_id,
    })),
  }
}

/** Something of a song that somebody can play. */
interface Playable {
  part_index: number
  version_id: number | null
  step: number
}
const MOST_PROPOSED = 4

/**
 * A first proposal: what was written for a student is theirs; the others get the hardest that is within what
 * they are comfortable with and nobody plays yet. Where the original is past everybody, the teacher plays it.
 */
export function proposed(
  title: string,
  students: Pick<Student, 'id' | 'name' | 'comfortable_step'>[],
  versions: VersionCard[],
  parts: Pick<PartOffer, 'index' | 'step'>[],
): GroupIn {
  const inSight = versions.filter((version) => !version.put_away)
  const original = { part_index: 0, version_id: null, step: parts[0]?.step ?? 10 }
  const offered: Playable[] = [
    original,
    ...inSight
      .filter((version) => !version.student)
      .map(({ id, part_index, step }) => ({ part_index, version_id: id, step })),
  ].sort((a, b) => b.step - a.step)
  const ownOf = (name: string) => inSight.find((version) => version.student === name)
  const seated = [...students].sort((a, b) => Number(!ownOf(a.name)) - Number(!ownOf(b.name)))
  const used = new Set<number | null>()
  const seats: GroupIn['seats'] = seated.slice(0, MOST_PROPOSED).map((student) => {
    const own = ownOf(student.name)
    const fits = offered.filter(({ step }) => step <= (student.comfortable_step ?? Infinity))
    const free = fits.find(({ version_id }) => !used.has(version_id))
    const plays = own
      ? { part_index: own.part_index, version_id: own.id }
      : (free ?? fits[0] ?? offered[offered.length - 1])
    used.add(plays.version_id)
    return seat(student.name, plays, student.id)
  })
  if (!used.has(null)) seats.unshift(seat('teacher', original))
  for (const each of offered)
    if (seats.length < 3 && !used.has(each.version_id) && each.version_id !== null)
      seats.push(seat(`player ${seats.length + 1}`, each))
  return { name: `${title} together`, seats }
}

function seat(
  who: string,
  plays: Pick<Playable, 'part_index' | 'version_id'>,
  student_id: number | null = null,
): GroupIn['seats'][number] {
  return { who, part_index: plays.part_index, version_id: plays.version_id, student_id }
}

/** A group in words, a player a line. */
export function groupLines(body: GroupIn, versions: VersionCard[]): string {
  const plays = (seat: GroupIn['seats'][number]): string =>
    seat.version_id === null
      ? `the original, part ${seat.part_index + 1}`
      : (versions.find((version) => version.id === seat.version_id)?.asked ?? `version ${seat.version_id}`)
  return [body.name, ...body.seats.map((seat) => `${seat.who}: ${plays(seat)}`)].join('\n')
}

/** What is printed: all under one another, or a sheet for each player. */
export function groupSheets(group: Group, pageEach: boolean): SheetContent[] {
  return (pageEach ? group.seats.map((seat) => [seat]) : [group.seats]).map((seats) => {
    const hardest = seats.reduce((worst, seat) => (seat.step > worst.step ? seat : worst))
    return {
      title: group.title,
      under: seats.length === 1 ? `${seats[0].who} plays ${seats[0].plays}` : group.name,
      whom: hardest.whom,
      step: hardest.step,
      why: seats.length === 1 ? hardest.part.sentences.slice(0, 2) : [],
      setup: setupWords(
        seats.map((seat) => seat.part),
        group.marked_tempo,
        group.feel,
      ),
      order: orderOf(hardest.part),
      play: [],
      rows: alignedParts(seats.map((seat) => seat.part)).map((part, at) => ({
        name:
          seats.length === 1 ? '' : `${seats[at].who}: ${seats[at].plays}, Step ${stepText(seats[at].step)}`,
        part,
      })),
    }
  })
}
