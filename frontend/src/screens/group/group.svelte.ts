/** What the Group screen shows and plays: seats of one song, each with a part of their own. */
import type { Group, GroupIn, Seat, VersionCard } from '../../api/client'

export class GroupState {
  silent = $state<string[]>([]) // seats that are not heard, by `seatKey`
  pageEach = $state(false)
  printing = $state(false)
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
    seats: group.seats.map(({ who, part_index, version_id }) => ({ who, part_index, version_id })),
  }
}

/**
 * A first proposal: what was written for a student is theirs, the original goes to the next, then versions
 * from the hardest down.
 */
export function proposed(title: string, students: string[], versions: VersionCard[]): GroupIn {
  const easier = versions.filter((version) => !version.put_away).sort((a, b) => b.step - a.step)
  const own = [
    ...new Map(
      easier.filter((version) => version.student).map((version) => [version.student, version]),
    ).values(),
  ]
  const others = [
    ...new Map(
      easier.filter((version) => !version.student).map((version) => [version.asked, version]),
    ).values(),
  ].slice(0, Math.max(3 - own.length, 0))
  const free = students.filter((name) => !own.some((version) => version.student === name))
  const plays = [null, ...own, ...others]
  const seats = plays.map((version, at) => ({
    who: version?.student || (free.shift() ?? `player ${at + 1}`),
    part_index: version?.part_index ?? 0,
    version_id: version?.id ?? null,
  }))
  return { name: `${title} together`, seats }
}

/** A group in words, a player a line. */
export function groupLines(body: GroupIn, versions: VersionCard[]): string {
  const plays = (seat: GroupIn['seats'][number]): string =>
    seat.version_id === null
      ? `the original, part ${seat.part_index + 1}`
      : (versions.find((version) => version.id === seat.version_id)?.asked ?? `version ${seat.version_id}`)
  return [body.name, ...body.seats.map((seat) => `${seat.who}: ${plays(seat)}`)].join('\n')
}
