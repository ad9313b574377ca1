"""What each player of a group plays, graded for them; worked out by the workers."""

from dataclasses import dataclass

from clear_steps.core.grade import Ladder, grade_part
from clear_steps.store import Seat, StoredGroup, StoredVersion, Student
from clear_steps.web.analysis.shown import read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.groups import schemas as api
from clear_steps.web.versions.comparing import alone, asked_words, version_now, written_for
from clear_steps.web.whom import ANYBODY, whom_is


@dataclass(frozen=True, slots=True)
class Seated:
    """A seat with the text it plays from, the version if it is one, and who sits there, where known."""

    seat: Seat
    text: str
    version: StoredVersion | None
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
    own = written_for(row.version) if row.version else ANYBODY
    whom = whom_is(row.student) if row.student else own
    song = whom.on_their_guitar(read_cached(row.text).song)
    if row.version is None:
        part = song.parts[min(row.seat.part_index, len(song.parts) - 1)]  # a later revision may have fewer
        grading = grade_part(song, part, ladder, whom.request)
        plays = f"the original{f', {part.name}' if part.name else ''}"
    else:
        now = version_now(row.version, song, ladder, whom)
        part, grading, plays = now.version, now.grading, asked_words(row.version)
    return api.SeatModel(
        who=row.seat.who,
        part_index=row.seat.part_index,
        version_id=row.seat.version_id,
        student_id=row.seat.student_id,
        plays=plays,
        whom=whom.name,
        step=grading.step,
        part=alone(song, part, grading, whom, ladder).parts[0],
    )
