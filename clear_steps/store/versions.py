"""The versions' repository: edits as found, and every choice a teacher made of them."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.core.easier import Blocking, Edit
from clear_steps.plainjson import PlainJson
from clear_steps.store.clock import now
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.models import ChoiceRow, HandEditRow, VersionRow
from clear_steps.store.revised import SCHEMA, read_stored
from clear_steps.store.students import Student, student_json, student_of

_EDIT: PlainJson[Edit] = PlainJson(Edit)
_EDITS: PlainJson[tuple[Edit, ...]] = PlainJson(tuple[Edit, ...])
_BLOCKING: PlainJson[tuple[Blocking, ...]] = PlainJson(tuple[Blocking, ...])
_IDS: PlainJson[tuple[int, ...]] = PlainJson(tuple[int, ...])


@dataclass(frozen=True, slots=True)
class StoredVersion:
    """An easier version of one part of one revision of a song."""

    id: int
    song_id: int
    revision: int
    part_index: int
    target: float
    edits: tuple[Edit, ...]
    blocking: tuple[Blocking, ...]
    refused: tuple[int, ...]
    approach: str = "sound"
    layer: str = ""
    staircase: int | None = None
    student: Student | None = None  # for whom it was written, as they were then
    put_away: bool = False
    choice: int = 0  # the number of the latest choice of what is refused


@dataclass(frozen=True, slots=True)
class NewVersion:
    """What the search found, for storing."""

    song_id: int
    revision: int
    part_index: int
    target: float
    edits: tuple[Edit, ...]
    blocking: tuple[Blocking, ...]
    approach: str = "sound"
    layer: str = ""
    student: Student | None = None
    wish: str | None = None  # a digest of what was asked for; asked for again it is this version


class Versions:
    """Versions within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def add(self, new: NewVersion) -> StoredVersion:
        """Store a version, nothing refused; of one wish there is one version, brought back where it was put
        away."""
        if new.wish is not None and (there := self.of_wish(new.wish)) is not None:
            return self.put_away(there.id, False)
        row = VersionRow(
            wish=new.wish,
            schema=SCHEMA,
            song_id=new.song_id,
            revision=new.revision,
            part_index=new.part_index,
            target=new.target,
            edits=_EDITS.dump(new.edits),
            blocking=_BLOCKING.dump(new.blocking),
            approach=new.approach,
            layer=new.layer,
            student=student_json(new.student),
            created_at=now(),
        )
        self._session.add(row)
        self._session.flush()
        return self._stored(row)

    def add_together(self, steps: Sequence[NewVersion]) -> list[StoredVersion]:
        """Store versions that were found together, in their order; several are a staircase."""
        stored = [self.add(step) for step in steps]
        if len(stored) > 1:
            for version in stored:
                self._row(version.id).staircase = stored[0].id
            self._session.flush()
        return [self.get(version.id) for version in stored]

    def add_hand_edit(self, version_id: int, edit: Edit) -> StoredVersion:
        """Add what a teacher changed by hand to a version's edits."""
        self._row(version_id)
        self._session.add(
            HandEditRow(version_id=version_id, edit=_EDIT.dump(edit), schema=SCHEMA, saved_at=now())
        )
        self._session.flush()
        return self.get(version_id)

    def of_wish(self, wish: str) -> StoredVersion | None:
        """The version that was written for a wish, if there is one."""
        row = self._session.scalars(select(VersionRow).where(VersionRow.wish == wish)).first()
        return self._stored(row) if row else None

    def _row(self, version_id: int) -> VersionRow:
        row = self._session.get(VersionRow, version_id)
        if row is None:
            raise NotFoundError(f"there is no version {version_id}")
        return row

    def of_song(self, song_id: int) -> list[StoredVersion]:
        """All versions of a song, easiest first."""
        rows = self._session.scalars(
            select(VersionRow).where(VersionRow.song_id == song_id).order_by(VersionRow.target, VersionRow.id)
        ).all()
        return [self._stored(row) for row in rows]

    def of_student(self, name: str) -> list[StoredVersion]:
        """All versions written for a student of this name, of whatever song."""
        rows = self._session.scalars(
            select(VersionRow).where(VersionRow.student != "").order_by(VersionRow.song_id, VersionRow.target)
        )
        return [self._stored(row) for row in rows if (own := student_of(row.student)) and own.name == name]

    def get(self, version_id: int) -> StoredVersion:
        """One version; raises NotFoundError."""
        return self._stored(self._row(version_id))

    def put_away(self, version_id: int, away: bool) -> StoredVersion:
        """Take a version out of sight, or bring it back; it stays stored either way."""
        self._row(version_id).put_away = away
        return self.get(version_id)

    def choose(self, version_id: int, based_on: int, refused: tuple[int, ...]) -> StoredVersion:
        """Add a choice: exactly these edits are refused; ids it does not have are left out.

        Raises StaleRevisionError where another choice than `based_on` was made last (0: none yet).
        """
        version = self.get(version_id)
        if version.choice != based_on:
            raise StaleRevisionError(based_on, version.choice, "choice")
        known = tuple(edit.id for edit in version.edits if edit.id in refused)
        number = version.choice + 1
        row = ChoiceRow(version_id=version_id, number=number, refused=_IDS.dump(known), saved_at=now())
        self._session.add(row)
        self._session.flush()
        return self.get(version_id)

    def _stored(self, row: VersionRow) -> StoredVersion:
        choice = self._session.scalars(
            select(ChoiceRow).where(ChoiceRow.version_id == row.id).order_by(ChoiceRow.number.desc()).limit(1)
        ).first()
        by_hand = self._session.scalars(
            select(HandEditRow).where(HandEditRow.version_id == row.id).order_by(HandEditRow.id)
        ).all()
        hand_edits = (read_stored(_EDIT, edit.edit, edit.schema, "change by hand") for edit in by_hand)
        return StoredVersion(
            row.id,
            row.song_id,
            row.revision,
            row.part_index,
            row.target,
            (*read_stored(_EDITS, row.edits, row.schema, "version"), *hand_edits),
            read_stored(_BLOCKING, row.blocking, row.schema, "version"),
            _IDS.load(choice.refused) if choice else (),
            row.approach,
            row.layer,
            row.staircase,
            student_of(row.student),
            row.put_away,
            choice.number if choice else 0,
        )
