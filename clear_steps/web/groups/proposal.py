"""A first group of a song, each student within what they can play; worked out by the workers."""

from clear_steps.core.grade import Ladder
from clear_steps.core.teach import best_fit
from clear_steps.store import Seat, StoredStudent, StoredVersion
from clear_steps.web.current import ladder_of
from clear_steps.web.versions.offered import Offered, playable
from clear_steps.web.whom import whom_is

MOST_SEATED, FEWEST_SEATS = 4, 3


def proposed_seats(
    original: str, versions: tuple[Offered, ...], students: tuple[StoredStudent, ...], ladder: str
) -> tuple[Seat, ...]:
    """Each student takes the hardest within their reach, of what was written for them and of what was
    written for nobody. Where nobody takes the original the teacher plays it; empty seats get versions that
    are left."""
    anybodys = [Offered(original), *(each for each in versions if each.student is None)]
    seats: list[Seat] = []
    for who in students[:MOST_SEATED]:
        own = [each for each in versions if each.student == who.student.name]
        taken = [seat.version_id for seat in seats]
        seats.append(_seat_of(who, own, anybodys, taken, ladder_of(ladder).ladder))
    if all(seat.version_id is not None for seat in seats):
        seats.insert(0, _seat("teacher", None))
    in_use = {seat.version_id for seat in seats}
    left = [each.version for each in anybodys[1:] if each.version and each.version.id not in in_use]
    for version in left[: max(FEWEST_SEATS - len(seats), 0)]:
        seats.append(_seat(f"player {len(seats) + 1}", version))
    return tuple(seats)


def _seat_of(
    who: StoredStudent,
    own: list[Offered],
    anybodys: list[Offered],
    taken: list[int | None],
    ladder: Ladder,
) -> Seat:
    """What was written for a student is theirs, where they can play it."""
    whom = whom_is(who.student)
    choices = [playable(key, each, whom, ladder) for key, each in enumerate(own)]
    offered = own if any(row.within for row in choices) else anybodys
    if offered is anybodys:
        choices = [playable(key, each, whom, ladder) for key, each in enumerate(anybodys)]
    best = best_fit(choices, [key for key, each in enumerate(offered) if each.version_id in taken])
    return _seat(who.student.name, offered[best.key].version, who.id)


def _seat(who: str, version: StoredVersion | None, student_id: int | None = None) -> Seat:
    return Seat(who, version.part_index if version else 0, version.id if version else None, student_id)
