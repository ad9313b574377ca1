"""What each player of a group plays, graded for them; worked out by the workers."""

from dataclasses import dataclass

from clear_steps.core.grade import Ladder
from clear_steps.store import Seat, StoredGroup, Student
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.groups import schemas as api
from clear_steps.web.versions.comparing import alone, written_for
from clear_steps.web.versions.offered import Offered, played
from clear_steps.web.whom import ANYBODY, whom_is


@dataclass(frozen=True, slots=True)
class Seated:
    """A seat with what is played there, and who sits there, where known."""

    seat: Seat
    offered: Offered
    student: Student | None


def parts_in(text: str) -> int:
    """How many parts a text has."""
    return len(read_cached(text).song.parts)


def group_json(stored: StoredGroup, latest: str, seats: tuple[Seated, ...], ladder: str) -> str:
    """The GroupModel of a group."""
    song = read_cached(latest).song
    return api.GroupModel(
        id=stored.id,
        number=stored.number,
        song_id=stored.song_id,
        title=song.title or "Untitled",
        name=stored.group.name,
        marked_tempo=float(song.playing_tempo),
        feel=song.feel,
        seats=[_seat_model(row, ladder_of(ladder).ladder) for row in seats],
    ).model_dump_json()


def _seat_model(row: Seated, ladder: Ladder) -> api.SeatModel:
    version = row.offered.version
    whom = whom_is(row.student) if row.student else written_for(version) if version else ANYBODY
    own = played(row.offered, whom, ladder)
    return api.SeatModel(
        who=row.seat.who,
        part_index=row.seat.part_index,
        version_id=row.seat.version_id,
        student_id=row.seat.student_id,
        plays=own.words,
        whom=whom.name,
        step=own.grading.step,
        part=alone(own.song, own.part, own.grading, whom, ladder).parts[0],
    )
