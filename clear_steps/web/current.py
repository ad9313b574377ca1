"""What the application that answers works on: its database, its workers, and the ladder it grades by."""

from collections.abc import Callable
from dataclasses import dataclass, field
from functools import lru_cache
from typing import TypeVar

from flask import Response, current_app, request
from sqlalchemy.orm import Session

from clear_steps.core.grade import Ladder
from clear_steps.ladders import LadderReading, default_ladder, default_ladder_json, read_ladder
from clear_steps.store import Database, Ladders
from clear_steps.web.workers import Workers, always

T = TypeVar("T")


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


def current_workers() -> Workers:
    """What does the long work of the application that answers."""
    workers: Workers = current_app.extensions["clear_steps_workers"]
    return workers


def still_wanted() -> Callable[[], bool]:
    """Whether the page still waits for the answer to this request, as far as the server can tell."""
    disconnected = request.environ.get("waitress.client_disconnected")
    return always if disconnected is None else lambda: not disconnected()


def worked_out(work: Callable[..., T], *values: object) -> T:
    """What the workers make of some values, while the page waits for it."""
    return current_workers().run(work, *values, wanted=still_wanted())


def answered(work: Callable[..., str], *values: object, status: int = 200) -> Response:
    """JSON that the workers write, as the answer."""
    return Response(worked_out(work, *values), status, mimetype="application/json")


def ladder_in_use(session: Session) -> LadderInUse:
    """The ladder that grades go by; rows that it lacks are the shipped ladder's."""
    stored = Ladders(session).in_use()
    return SHIPPED_LADDER if stored is None else ladder_of(stored.content)


def ladder_of(content: str) -> LadderInUse:
    """A ladder by what its file says; raises ReadError."""
    if content == SHIPPED_LADDER.content:
        return SHIPPED_LADDER
    reading = ladder_reading(content)
    return LadderInUse(reading.content, reading.ladder)


def current_ladder() -> LadderInUse:
    """The ladder in use, in a unit of work of its own."""
    with current_database().reading() as session:
        return ladder_in_use(session)


@lru_cache(maxsize=32)
def ladder_reading(content: str) -> LadderReading:
    """A ladder's file, read once; raises ReadError."""
    return read_ladder(content.encode())
