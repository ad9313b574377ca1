"""What the API takes and gives about students."""

from pydantic import BaseModel, Field

from clear_steps.core.grade import HardestShape, Limits
from clear_steps.core.hand import Habits, LittleFinger, Player
from clear_steps.core.score import Instrument, Technique
from clear_steps.core.teach.words import Language, Names
from clear_steps.formats.tabtext import tuning_said
from clear_steps.store import StoredStudent, Student


class StudentIn(BaseModel):
    """A student: name, hand, and what comes out clean now."""

    name: str = Field(max_length=80)
    span_mm: float = Field(ge=40, le=200)
    little_finger: LittleFinger = LittleFinger.USUAL
    thumb_over: bool = False
    notes_per_second: float | None = Field(None, ge=0.5, le=20)
    unknown_techniques: list[Technique] = Field([], max_length=len(Technique))
    hardest_shape: HardestShape = HardestShape.FULL_BARRE
    steps: dict[str, float] = Field({}, max_length=20)  # the comfortable Step of a measure, by its name
    put_away: bool = False
    comfortable_step: float | None = Field(None, ge=1, le=10)
    instrument: Instrument | None = None
    scale_length_mm: float | None = Field(None, ge=300, le=1000)
    tuning: str | None = Field(None, max_length=100)  # as people say it
    language: Language = Language.ENGLISH
    names: Names = Names.LETTERS

    @property
    def student(self) -> Student:
        """The same for the store; raises InvalidValueError."""
        limits = Limits(
            self.notes_per_second,
            frozenset(self.unknown_techniques),
            self.hardest_shape,
            tuple(sorted(self.steps.items())),
        )
        return Student(
            self.name,
            Player(self.span_mm, Habits(self.little_finger, self.thumb_over)),
            limits,
            self.put_away,
            self.comfortable_step,
            self.instrument,
            self.scale_length_mm,
            tuning_said(self.tuning).name if self.tuning and self.tuning.strip() else None,
            self.language,
            self.names,
        )


class StudentChange(StudentIn):
    """A student changed, and the revision the change was based on."""

    based_on: int


class StudentModel(StudentIn):
    id: int
    number: int


class MeasureModel(BaseModel):
    name: str
    about: str


class StudentList(BaseModel):
    students: list[StudentModel]
    preset_spans_mm: dict[str, float]
    measures: list[MeasureModel]
    tunings: list[str]  # that have a name


class StudentVersion(BaseModel):
    """A version written for a student, at its Step for them."""

    id: int
    asked: str
    step: float
    within_reach: bool


class StudentSong(BaseModel):
    """A song that a student plays: the original's Step for them, the bars (by number) past them, their
    versions; or the `problem` that keeps it from being graded."""

    song_id: int
    title: str
    step: float | None = None
    past_bars: list[int] = []
    past_song: str = ""
    within_reach: bool = False
    versions: list[StudentVersion] = []
    problem: str = ""


class ProposedModel(BaseModel):
    """A version, or the original where there is none, at its Step for a student."""

    version_id: int | None
    step: float


class HandOutModel(BaseModel):
    """What of a song is proposed for a student: the hardest within their reach; none where nothing is."""

    proposed: ProposedModel | None


class StudentSongList(BaseModel):
    songs: list[StudentSong]


def student_model(stored: StoredStudent) -> StudentModel:
    """A stored student as the API gives it."""
    student, habits, limits = stored.student, stored.student.player.habits, stored.student.limits
    return StudentModel(
        id=stored.id,
        number=stored.number,
        name=student.name,
        span_mm=student.player.span_mm,
        little_finger=habits.little_finger,
        thumb_over=habits.thumb_over,
        notes_per_second=limits.notes_per_second,
        unknown_techniques=sorted(limits.unknown_techniques),
        hardest_shape=limits.hardest_shape,
        steps=dict(limits.steps),
        put_away=student.put_away,
        comfortable_step=student.comfortable_step,
        instrument=student.instrument,
        scale_length_mm=student.scale_length_mm,
        tuning=student.tuning,
        language=student.language,
        names=student.names,
    )
