"""What is kept as JSON with every save: numbered revisions of one owner, of which the latest counts."""

from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from clear_steps.store.clock import now
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.models import GroupRevisionRow, LadderRevisionRow, StudentRevisionRow


@dataclass(frozen=True, slots=True)
class Saved:
    """One save."""

    number: int
    content: str


class Revised:
    """The revisions in one table, within one unit of work; `what` is the owner's name in messages."""

    def __init__(
        self,
        session: Session,
        table: type[LadderRevisionRow | StudentRevisionRow | GroupRevisionRow],
        what: str,
    ) -> None:
        self._session, self._what = session, what
        self._table: Any = table  # their columns are the same, their types are not

    def latest(self, owner_id: int) -> Saved:
        """The latest revision; raises NotFoundError."""
        statement = (
            select(self._table)
            .where(self._table.owner_id == owner_id)
            .order_by(self._table.number.desc())
            .limit(1)
        )
        row = self._session.scalars(statement).first()
        if row is None:
            raise NotFoundError(f"there is no {self._what} {owner_id}")
        return Saved(row.number, row.content)

    def begin(self, owner_id: int, content: str) -> None:
        """Add revision 1."""
        self._write(owner_id, 1, content)

    def save(self, owner_id: int, based_on: int, content: str) -> None:
        """Add a revision; raises StaleRevisionError if a newer one than `based_on` exists, or
        NotFoundError."""
        latest = self.latest(owner_id).number
        if latest != based_on:
            raise StaleRevisionError(based_on, latest)
        try:
            self._write(owner_id, latest + 1, content)
        except IntegrityError as cause:  # somebody saved between the look and the write
            raise StaleRevisionError(based_on, latest + 1) from cause

    def _write(self, owner_id: int, number: int, content: str) -> None:
        self._session.add(self._table(owner_id=owner_id, number=number, content=content, saved_at=now()))
        self._session.flush()
