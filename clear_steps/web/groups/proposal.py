"""A first group of a song, each student within what they can play; worked out by the workers."""

from dataclasses import dataclass

from clear_steps.core.grade import Ladder, grade_part, reach_of
from clear_steps.core.teach import Playable, best_fit
from clear_steps.store import Seat, StoredStudent, StoredVersion
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.versions.comparing import version_now
from clear_steps.web.whom import whom_is

MOST_SEATED, FEWEST_SEATS = 4, 3


@dataclass(frozen=True, slots=True)
class Offered:
    """What somebody may play: a version with the text of its revision, or the original."""

    text: str
    version: StoredVersion | None = None


def proposed_seats(
    original: str, versions: tuple[Offered, ...], students: tuple[StoredStudent, ...], ladder: str
) -> tuple[Seat, ...]:
    """Each student takes the hardest within their reach, of what was written for them and of what was
    written for nobody. Where nobody takes the original the teacher plays it; empty seats get versions that
    are left."""
    anybodys = [Offered(original), *(each for each in versions if _student_of(each) is None)]
    seats: list[Seat] = []
    for who in students[:MOST_SEATED]:
        own = [each for each in versions if _student_of(each) == who.student.name]
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
    choices = [_playable(who, each, key, ladder) for key, each in enumerate(own)]
    offered = own if any(row.within for row in choices) else anybodys
    if offered is anybodys:
        choices = [_playable(who, each, key, ladder) for key, each in enumerate(anybodys)]
    best = best_fit(choices, [key for key, each in enumerate(offered) if _id_of(each) in taken])
    return _seat(who.student.name, offered[best.key].version, who.id)


def _student_of(offered: Offered) -> str | None:
    return offered.version.student.name if offered.version and offered.version.student else None


def _id_of(offered: Offered) -> int | None:
    return offered.version.id if offered.version else None


def _seat(who: str, version: StoredVersion | None, student_id: int | None = None) -> Seat:
    return Seat(who, version.part_index if version else 0, version.id if version else None, student_id)


def _playable(who: StoredStudent, offered: Offered, key: int, ladder: Ladder) -> Playable:
    whom = whom_is(who.student)
    song = whom.on_their_guitar(read_cached(offered.text).song)
    if offered.version is None:
        part, grading = song.parts[0], grade_part(song, song.parts[0], ladder, whom.request)
    else:
        now = version_now(offered.version, song, ladder, whom)
        part, grading = now.version, now.grading
    reach = reach_of(part, grading, whom.ability(ladder))
    return Playable(key, grading.step, len(reach.bars), reach.within)
