"""The ladders' repository: a teacher's own, every save a revision."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.plainjson import PlainJson
from clear_steps.store.clock import now
from clear_steps.store.errors import NotFoundError
from clear_steps.store.models import LadderRevisionRow, LadderRow
from clear_steps.store.revised import Revised


@dataclass(frozen=True, slots=True)
class StoredLadder:
    """A ladder at its latest revision; `content` is a ladder file's JSON."""

    id: int
    number: int
    content: str
    in_use: bool


class _AsWritten(PlainJson[str]):
    """A ladder is JSON already; the room of ladders reads it."""

    def dump(self, value: str, indent: int | None = None) -> str:
        return value

    def load(self, content: str | bytes) -> str:
        return content if isinstance(content, str) else content.decode()


class Ladders:
    """Ladders within one unit of work."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._revisions = Revised(session, LadderRevisionRow, _AsWritten(str), "ladder")

    def every(self) -> list[StoredLadder]:
        """All of the teacher's ladders, oldest first."""
        return [
            self._stored(row) for row in self._session.scalars(select(LadderRow).order_by(LadderRow.id)).all()
        ]

    def in_use(self) -> StoredLadder | None:
        """The one in use; None where it is the one that ships."""
        row = self._session.scalars(select(LadderRow).where(LadderRow.in_use)).first()
        return self._stored(row) if row else None

    def get(self, ladder_id: int) -> StoredLadder:
        """One ladder; raises NotFoundError."""
        return self._stored(self._row(ladder_id))

    def add(self, content: str) -> StoredLadder:
        """Store a new ladder and use it; the very same once more is the one that is there."""
        same = next((ladder for ladder in self.every() if ladder.content == content), None)
        if same is not None:
            self.use(same.id)
            return self.get(same.id)
        row = LadderRow(in_use=False, created_at=now())
        self._session.add(row)
        self._session.flush()
        self._revisions.begin(row.id, content)
        self.use(row.id)
        return self._stored(row)

    def save(self, ladder_id: int, based_on: int, content: str) -> StoredLadder:
        """Add a revision; raises StaleRevisionError if a newer one than `based_on` exists, or
        NotFoundError."""
        self._revisions.save(ladder_id, based_on, content)
        return self.get(ladder_id)

    def use(self, ladder_id: int | None) -> None:
        """Grade by this ladder from now on, or by the one that ships; raises NotFoundError."""
        chosen = None if ladder_id is None else self._row(ladder_id)
        for row in self._session.scalars(select(LadderRow)).all():
            row.in_use = row is chosen

    def _row(self, ladder_id: int) -> LadderRow:
        row = self._session.get(LadderRow, ladder_id)
        if row is None:
            raise NotFoundError(f"there is no ladder {ladder_id}")
        return row

    def _stored(self, row: LadderRow) -> StoredLadder:
        latest = self._revisions.latest(row.id)
        return StoredLadder(row.id, latest.number, latest.value, row.in_use)
