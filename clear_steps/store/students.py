"""The students' repository: who they are, their hand, what they can do; every save a revision."""

from dataclasses import dataclass, replace

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import Limits
from clear_steps.core.hand import Player
from clear_steps.core.score import Instrument, parse_tuning
from clear_steps.core.teach.words import Language, Names
from clear_steps.plainjson import PlainJson
from clear_steps.store.clock import now
from clear_steps.store.errors import NameTakenError
from clear_steps.store.models import StudentRevisionRow, StudentRow
from clear_steps.store.revised import Revised


@dataclass(frozen=True, slots=True)
class Student:
    """Somebody who plays: a name, a hand, and the limits of what comes out clean now."""

    name: str
    player: Player = Player()
    limits: Limits = Limits()
    put_away: bool = False  # out of sight, never deleted
    comfortable_step: float | None = None  # of a whole song
    instrument: Instrument | None = None
    scale_length_mm: float | None = None  # of their guitar, where it is not the usual one
    tuning: str | None = None  # that their guitar is in, by name or pitches, where it is not the usual one
    language: Language = Language.ENGLISH  # they take their sheets home in
    names: Names = Names.LETTERS

    def __post_init__(self) -> None:
        if self.tuning is not None:
            parse_tuning(self.tuning)
        if self.comfortable_step is not None and not 1 <= self.comfortable_step <= 10:
            raise InvalidValueError("comfortable Step", self.comfortable_step, "1 to 10")
        if self.scale_length_mm is not None and not 300 <= self.scale_length_mm <= 1000:
            raise InvalidValueError("scale length", self.scale_length_mm, "300 to 1000 mm")


@dataclass(frozen=True, slots=True)
class StoredStudent:
    """A student at the latest revision."""

    id: int
    number: int
    student: Student


_STUDENT: PlainJson[Student] = PlainJson(Student)


def student_json(student: Student | None) -> str:
    """For a column; nobody is the empty text."""
    return _STUDENT.dump(student) if student else ""


def student_of(content: str) -> Student | None:
    """The student in a column."""
    return _STUDENT.load(content) if content else None


class Students:
    """Students within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._revisions = Revised(session, StudentRevisionRow, _STUDENT, "student")

    def every(self) -> list[StoredStudent]:
        """All students by name."""
        ids = self._session.scalars(select(StudentRow.id)).all()
        return sorted(
            (self.get(student_id) for student_id in ids),
            key=lambda stored: (stored.student.name.lower(), stored.id),
        )

    def get(self, student_id: int) -> StoredStudent:
        """One student; raises NotFoundError."""
        latest = self._revisions.latest(student_id)
        return StoredStudent(student_id, latest.number, latest.value)

    def add(self, student: Student) -> StoredStudent:
        """Store a new student; the very same once more is the one that is there.

        Raises InvalidValueError for an empty name, NameTakenError for one that another student has.
        """
        named = _named(student)
        other = self._called(named.name)
        if other is not None:
            if (stored := self.get(other.id)).student == named:
                return stored
            raise NameTakenError(named.name)
        row = StudentRow(name=named.name, created_at=now())
        self._session.add(row)
        self._session.flush()
        self._revisions.begin(row.id, named)
        return self.get(row.id)

    def save(self, student_id: int, based_on: int, student: Student) -> StoredStudent:
        """Add a revision; raises NotFoundError, StaleRevisionError, InvalidValueError or NameTakenError."""
        named = _named(student)
        other = self._called(named.name)
        if other is not None and other.id != student_id:
            raise NameTakenError(named.name)
        self._revisions.save(student_id, based_on, named)
        self._session.get_one(StudentRow, student_id).name = named.name
        self._session.flush()
        return self.get(student_id)

    def _called(self, name: str) -> StudentRow | None:
        return self._session.scalars(select(StudentRow).where(StudentRow.name == name)).first()


def _named(student: Student) -> Student:
    """The student with a tidy name."""
    name = " ".join(student.name.split())
    if not name or len(name) > 80:
        raise InvalidValueError("student's name", student.name, "1 to 80 letters")
    return replace(student, name=name)
