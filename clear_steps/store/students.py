"""The students' repository: who they are, their hand, what they can do; every save a revision."""

from dataclasses import dataclass, replace

from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import Limits
from clear_steps.core.hand import Player
from clear_steps.store.clock import now
from clear_steps.store.models import StudentRevisionRow, StudentRow
from clear_steps.store.revised import Revised


@dataclass(frozen=True, slots=True)
class Student:
    """Somebody who plays: a name, a hand, and the limits of what comes out clean now."""

    name: str
    player: Player = Player()
    limits: Limits = Limits()
    put_away: bool = False  # out of sight, never deleted


@dataclass(frozen=True, slots=True)
class StoredStudent:
    """A student at the latest revision."""

    id: int
    number: int
    student: Student


_STUDENT = TypeAdapter(Student)


def student_json(student: Student | None) -> str:
    """For a column; nobody is the empty text."""
    return _STUDENT.dump_json(student).decode() if student else ""


def student_of(content: str) -> Student | None:
    """The student in a column."""
    return _STUDENT.validate_json(content) if content else None


class Students:
    """Students within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._revisions = Revised(session, StudentRevisionRow, "student")

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
        return StoredStudent(student_id, latest.number, _STUDENT.validate_json(latest.content))

    def add(self, student: Student) -> StoredStudent:
        """Store a new student; raises InvalidValueError for a taken or empty name."""
        named = self._named(student, None)
        row = StudentRow(created_at=now())
        self._session.add(row)
        self._session.flush()
        self._revisions.begin(row.id, student_json(named))
        return self.get(row.id)

    def save(self, student_id: int, based_on: int, student: Student) -> StoredStudent:
        """Add a revision; raises NotFoundError, StaleRevisionError or InvalidValueError."""
        self._revisions.save(student_id, based_on, student_json(self._named(student, student_id)))
        return self.get(student_id)

    def _named(self, student: Student, own_id: int | None) -> Student:
        """The student with a tidy name, if nobody else has it."""
        name = " ".join(student.name.split())
        if (
            not name
            or len(name) > 80
            or any(other.student.name == name and other.id != own_id for other in self.every())
        ):
            raise InvalidValueError(
                "student's name", student.name, "1 to 80 letters that no other student has"
            )
        return replace(student, name=name)
