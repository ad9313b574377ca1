"""For whom a song is graded: a student with their guitar and limits, or a hand nobody has a name for."""

from dataclasses import dataclass, replace
from fractions import Fraction

from pydantic import BaseModel, ConfigDict, Field
from sqlalchemy.orm import Session

from clear_steps.core.grade import Ability, GradeRequest, Ladder, Limits, Weighing
from clear_steps.core.hand import PRESET_SPANS_MM, Habits, LittleFinger, Player, School
from clear_steps.core.score import Song
from clear_steps.core.score.tuning import is_bass
from clear_steps.store import Student, Students
from clear_steps.web.security import LARGEST_ID


class GradeQuery(BaseModel):
    """For whom to grade, at what tempo (quarters a minute; none = the marked one); a student brings their own
    hand and habits."""

    model_config = ConfigDict(frozen=True)
    student_id: int | None = Field(None, ge=1, le=LARGEST_ID)
    span_mm: float = Field(100.0, ge=40, le=200)
    tempo: float | None = Field(None, ge=10, le=400)
    school: School = School.BALANCED
    weighing: Weighing = Weighing.BALANCED
    little_finger: LittleFinger = LittleFinger.USUAL
    thumb_over: bool = False

    @property
    def request(self) -> GradeRequest:
        """The same question to the core."""
        practice = None if self.tempo is None else Fraction(self.tempo).limit_denominator(1000)
        player = Player(self.span_mm, Habits(self.little_finger, self.thumb_over))
        return GradeRequest(player, self.school, self.weighing, practice)


@dataclass(frozen=True)
class Whom:
    """Somebody who plays, and at what tempo; `name` as it stands in a sentence: `Mira`, `a medium hand`."""

    name: str
    request: GradeRequest = GradeRequest()
    limits: Limits = Limits()
    scale_length_mm: float | None = None  # of their guitar
    student_id: int | None = None
    tuning: str | None = None  # that their guitar is in, where it is not the usual one
    comfortable_step: float | None = None  # of a whole song

    def ability(self, ladder: Ladder) -> Ability:
        """What they can play, by a ladder."""
        return Ability(self.request.player, self.limits, ladder, self.comfortable_step)

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
    return Whom(
        student.name,
        asked,
        student.limits,
        student.scale_length_mm,
        tuning=student.tuning,
        comfortable_step=student.comfortable_step,
    )


def _hand_words(span_mm: float, habits: Habits) -> str:
    preset = next((name for name, span in PRESET_SPANS_MM.items() if span == span_mm), None)
    hand = f"a {preset} hand" if preset else f"a hand of {span_mm:g} mm"
    return hand if habits == Habits() else f"{hand} with habits of its own"
