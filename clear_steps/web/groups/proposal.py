"""A first group of a song, each student within what they can play."""

from sqlalchemy.orm import Session

from clear_steps.core.grade import Ability, bars_past, grade_part
from clear_steps.core.teach import Playable, seated
from clear_steps.store import Seat, Songs, StoredStudent, StoredVersion, Students, Versions
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import ladder_in_use
from clear_steps.web.versions.comparing import version_now
from clear_steps.web.whom import whom_is

MOST_SEATED, FEWEST_SEATS = 4, 3


def proposed_seats(session: Session, song_id: int) -> tuple[Seat, ...]:
    """What was written for a student is theirs; the others take the hardest within their limits. Where nobody
    takes the original the teacher plays it; empty seats get versions that are left."""
    versions = [each for each in Versions(session).of_song(song_id) if not each.put_away]
    own = {each.student.name: each for each in versions if each.student}
    offered = [None, *(each for each in versions if each.student is None)]
    students = [each for each in Students(session).every() if not each.student.put_away]
    students.sort(key=lambda each: each.student.name not in own)
    seats = [
        Seat(each.student.name, own[each.student.name].part_index, own[each.student.name].id, each.id)
        for each in students[:MOST_SEATED]
        if each.student.name in own
    ]
    others = [each for each in students[:MOST_SEATED] if each.student.name not in own]
    taken = seated(
        [each.student.comfortable_step for each in others],
        len(offered),
        lambda player, number: _playable(session, song_id, others[player], offered[number], number),
    )
    seats += [_seat(who.student.name, offered[key], who.id) for who, key in zip(others, taken, strict=True)]
    if all(seat.version_id is not None for seat in seats):
        seats.insert(0, _seat("teacher", None))
    left = [version for version in offered[1:] if version and version.id not in {s.version_id for s in seats}]
    for version in left[: max(FEWEST_SEATS - len(seats), 0)]:
        seats.append(_seat(f"player {len(seats) + 1}", version))
    return tuple(seats)


def _seat(who: str, version: StoredVersion | None, student_id: int | None = None) -> Seat:
    return Seat(who, version.part_index if version else 0, version.id if version else None, student_id)


def _playable(
    session: Session, song_id: int, student: StoredStudent, version: StoredVersion | None, key: int
) -> Playable:
    songs, ladder, whom = Songs(session), ladder_in_use(session).ladder, whom_is(student.student)
    if version is None:
        song = whom.on_their_guitar(read_cached(songs.get(song_id).latest.text).song)
        part, grading = song.parts[0], grade_part(song, song.parts[0], ladder, whom.request)
    else:
        song = whom.on_their_guitar(read_cached(songs.revision(song_id, version.revision).text).song)
        now = version_now(version, song, ladder, whom)
        part, grading = now.version, now.grading
    past = bars_past(part, grading, Ability(whom.request.player, whom.limits, ladder))
    return Playable(key, grading.step, len(past))
