"""What stands on the sheet a student takes home, kept with the song and the student."""

from dataclasses import dataclass
from enum import StrEnum

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.teach.words import Language, Names
from clear_steps.plainjson import PlainJson
from clear_steps.store.clock import now
from clear_steps.store.errors import StaleRevisionError
from clear_steps.store.models import LessonSheetRow
from clear_steps.store.revised import SCHEMA, read_stored

MOST_BESIDE = 5  # versions that stand under the one that is handed out


class SheetBlock(StrEnum):
    """A block under the title, in the usual order."""

    HARD = "hard"
    SETUP = "setup"
    MAP = "map"
    SHAPES = "shapes"
    TAB = "tab"
    WORDS = "words"
    STEPS = "steps"
    CARE = "care"


@dataclass(frozen=True, slots=True)
class LessonSheet:
    """All blocks in their order, and which of them are switched off; `version_id` of the version that is
    handed out, none for the original. The music stands over that of other versions (`beside`, by id), and
    under the original where `with_original`."""

    blocks: tuple[SheetBlock, ...] = tuple(SheetBlock)
    off: tuple[SheetBlock, ...] = ()
    language: Language = Language.ENGLISH
    names: Names = Names.LETTERS
    version_id: int | None = None
    beside: tuple[int, ...] = ()
    with_original: bool = False

    def __post_init__(self) -> None:
        if sorted(self.blocks) != sorted(SheetBlock):
            expected = f"each of {', '.join(SheetBlock)} once"
            raise InvalidValueError("blocks of a sheet", ", ".join(self.blocks), expected)
        if len(self.beside) > MOST_BESIDE:
            raise InvalidValueError("versions under one another", len(self.beside), f"at most {MOST_BESIDE}")


_SHEET: PlainJson[LessonSheet] = PlainJson(LessonSheet)


class LessonSheets:
    """Sheets within one unit of work; a change of mind adds a row."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def latest(self, song_id: int, student_id: int | None) -> tuple[int, LessonSheet]:
        """The number of the latest choice and the choice; 0 and the usual one where there is none."""
        statement = (
            select(LessonSheetRow)
            .where(
                LessonSheetRow.song_id == song_id, LessonSheetRow.student_id.is_not_distinct_from(student_id)
            )
            .order_by(LessonSheetRow.number.desc())
            .limit(1)
        )
        row = self._session.scalars(statement).first()
        if row is None:
            return 0, LessonSheet()
        return row.number, read_stored(_SHEET, row.content, row.schema, "sheet")

    def save(self, song_id: int, student_id: int | None, based_on: int, sheet: LessonSheet) -> int:
        """Keep a choice, and give its number; raises StaleRevisionError where a newer one exists."""
        latest = self.latest(song_id, student_id)[0]
        if latest != based_on:
            raise StaleRevisionError(based_on, latest, "sheet")
        row = LessonSheetRow(song_id=song_id, student_id=student_id, number=latest + 1)
        row.content, row.schema, row.saved_at = _SHEET.dump(sheet), SCHEMA, now()
        self._session.add(row)
        self._session.flush()
        return row.number
