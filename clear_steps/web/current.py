"""What the application that answers works on: its database, and the ladder it grades by."""

from dataclasses import dataclass, field
from functools import lru_cache

from flask import current_app
from sqlalchemy.orm import Session

from clear_steps.core.grade import Ladder
from clear_steps.ladders import default_ladder, default_ladder_json, ladder_from_json
from clear_steps.store import Database, Ladders


@dataclass(frozen=True)
class LadderInUse:
    """A ladder, told apart by what its file says."""

    content: str
    ladder: Ladder = field(compare=False, repr=False)


SHIPPED_LADDER = LadderInUse(default_ladder_json().decode(), default_ladder())


def current_database() -> Database:
    """The database of the application that answers."""
    database: Database = current_app.extensions["clear_steps_database"]
    return database


def ladder_in_use(session: Session) -> LadderInUse:
    """The ladder that grades go by."""
    stored = Ladders(session).in_use()
    return SHIPPED_LADDER if stored is None else LadderInUse(stored.content, _parsed(stored.content))


def current_ladder() -> LadderInUse:
    """The same, in a unit of work of its own."""
    with current_database().session() as session:
        return ladder_in_use(session)


@lru_cache(maxsize=32)
def _parsed(content: str) -> Ladder:
    return ladder_from_json(content.encode())
