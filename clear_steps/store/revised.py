"""What is kept as JSON with every save: numbered revisions of one owner, of which the latest counts."""

from dataclasses import dataclass
from typing import Generic, TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from clear_steps.plainjson import PlainJson
from clear_steps.store.clock import now
from clear_steps.store.errors import NotFoundError, StaleRevisionError, StoreError
from clear_steps.store.models import GroupRevisionRow, LadderRevisionRow, RevisionOf, StudentRevisionRow

SCHEMA = 2  # of everything that is stored as JSON
T = TypeVar("T")
Revisions = type[LadderRevisionRow] | type[StudentRevisionRow] | type[GroupRevisionRow]


def read_stored(json: PlainJson[T], content: str, schema: int, what: str) -> T:
    """A value stored as JSON; raises StoreError where a newer program wrote it."""
    if schema > SCHEMA:
        raise StoreError(f"this {what} was stored by a newer Clear Steps (schema {schema}); start that one")
    return json.load(content)


@dataclass(frozen=True, slots=True)
class Saved(Generic[T]):
    """One save."""

    number: int
    value: T


class Revised(Generic[T]):
    """The revisions in one table, within one unit of work; `what` is the owner's name in messages."""

    def __init__(self, session: Session, table: Revisions, json: PlainJson[T], what: str) -> None:
        self._session, self._json, self._what = session, json, what
        self._table: type[RevisionOf] = table

    def latest(self, owner_id: int) -> Saved[T]:
        """The latest revision; raises NotFoundError."""
        newest = self._table.number.desc()
        statement = select(self._table).where(self._table.owner_id == owner_id).order_by(newest).limit(1)
        row: RevisionOf | None = self._session.scalars(statement).first()
        if row is None:
            raise NotFoundError(f"there is no {self._what} {owner_id}")
        return Saved(row.number, read_stored(self._json, row.content, row.schema, self._what))

    def begin(self, owner_id: int, value: T) -> None:
        """Add revision 1."""
        self._write(owner_id, 1, value)

    def save(self, owner_id: int, based_on: int, value: T) -> None:
        """Add a revision; raises StaleRevisionError if a newer one than `based_on` exists, or
        NotFoundError."""
        latest = self.latest(owner_id).number
        if latest != based_on:
            raise StaleRevisionError(based_on, latest, self._what)
        self._write(owner_id, latest + 1, value)

    def _write(self, owner_id: int, number: int, value: T) -> None:
        row = self._table()
        row.owner_id, row.number = owner_id, number
        row.content, row.schema, row.saved_at = self._json.dump(value), SCHEMA, now()
        self._session.add(row)
        self._session.flush()
