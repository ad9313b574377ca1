"""For whom a song is graded: a student with their guitar and limits, or a hand nobody has a name for."""

from dataclasses import dataclass, replace

from sqlalchemy.orm import Session

from clear_steps.core.grade import GradeRequest, Limits
from clear_steps.core.hand import PRESET_SPANS_MM, Habits
from clear_steps.core.score import Song
from clear_steps.core.score.tuning import is_bass
from clear_steps.store import Student, Students
from clear_steps.web.analysis.schemas import GradeQuery


@dataclass(frozen=True)
class Whom:
    """Somebody who plays, and at what tempo; `name` as it stands in a sentence: `Mira`, `a medium hand`."""

    name: str
    request: GradeRequest = GradeRequest()
    limits: Limits = Limits()
    scale_length_mm: float | None = None  # of their guitar
    student_id: int | None = None

    def on_their_guitar(self, song: Song) -> Song:
        """The song on strings as long as theirs; a bass stays one."""
        if self.scale_length_mm is None:
            return song
        length = self.scale_length_mm
        parts = (
            part if is_bass(part.tuning) else replace(part, scale_length_mm=length) for part in song.parts
        )
        return replace(song, parts=tuple(parts))


ANYBODY = Whom("a medium hand")


def whom_of(session: Session, query: GradeQuery) -> Whom:
    """Who is asked for; raises NotFoundError for a student nobody knows."""
    if query.student_id is None:
        player = query.request.player
        return Whom(_hand_words(player.span_mm, player.habits), query.request)
    student = Students(session).get(query.student_id).student
    return replace(whom_is(student, query.request), student_id=query.student_id)


def whom_is(student: Student, request: GradeRequest = GradeRequest()) -> Whom:
    """A student as they were stored."""
    asked = replace(request, player=student.player)
    return Whom(student.name, asked, student.limits, student.scale_length_mm)


def _hand_words(span_mm: float, habits: Habits) -> str:
    preset = next((name for name, span in PRESET_SPANS_MM.items() if span == span_mm), None)
    hand = f"a {preset} hand" if preset else f"a hand of {span_mm:g} mm"
    return hand if habits == Habits() else f"{hand} with habits of its own"
