/** What the Group screen shows and plays: seats of one song, each with a part of their own. */
import type { Group, GroupIn, Seat, VersionCard } from '../../api/client'

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
