"""One SQLite file in WAL mode, brought up to date when opened; every unit of work is a real transaction."""

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session
from sqlalchemy.pool import QueuePool

from clear_steps.store.errors import StoreError, is_damage, trouble
from clear_steps.store.migrating import bring_up_to_date, damaged
from clear_steps.store.openfile import OpenFile

FILE_NAME = "clear-steps.sqlite3"
_BEGINS = "begins"  # the execution option that says how a connection's transactions begin


class Database:
    """The data directory's database: `session()` writes, `reading()` looks; each is one unit of work."""

    def __init__(self, directory: Path) -> None:
        """Open or make the file; raises StoreError in words."""
        self.path = directory / FILE_NAME
        make_directory(directory)
        self.file = OpenFile(self.path)
        self._engine = _engine(self.file)
        self._writing = self._engine.execution_options(**{_BEGINS: "BEGIN IMMEDIATE"})
        self.one_writer = threading.RLock()  # held by whoever changes the file; everybody else waits
        try:
            bring_up_to_date(self.path, self._engine, self._writing)
            self.file.hold()
        except DBAPIError as cause:
            self.close()
            raise self._trouble(cause) from cause
        except StoreError:
            self.close()
            raise

    @contextmanager
    def session(self) -> Iterator[Session]:
        """All of what is done inside is stored, or none of it; no other session writes meanwhile.

        Keep it short: compute before and after, not inside. Raises FileGoneError where the file was taken
        away, also where that came before the end: nothing counts as stored then.
        """
        with self.one_writer:
            self.file.check()
            with self._unit_of_work(self._writing) as session:
                yield session
            self.file.check()

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """One state of everything, whatever is saved meanwhile; nobody waits for it."""
        with self._unit_of_work(self._engine) as session:
            yield session

    @contextmanager
    def _unit_of_work(self, engine: Engine) -> Iterator[Session]:
        try:
            with Session(engine) as session, session.begin():
                yield session
        except DBAPIError as cause:
            raise self._trouble(cause) from cause

    def _trouble(self, cause: DBAPIError) -> Exception:
        return damaged(self.path, cause.orig) if is_damage(cause.orig) else trouble(cause, self.path)

    def close(self) -> None:
        """Let go of the file."""
        self._engine.dispose()
        self.file.close()


def make_directory(directory: Path) -> None:
    """A data directory, made where it is not there; raises StoreError."""
    try:
        directory.mkdir(parents=True, exist_ok=True)
    except FileExistsError as cause:
        raise StoreError(f"{directory} is a file; expected a directory for the database") from cause
    except OSError as cause:
        raise StoreError(
            f"{directory} cannot be made ({cause.strerror}); choose another directory"
        ) from cause


def _engine(file: OpenFile) -> Engine:
    """An engine whose transactions are SQLAlchemy's own (its documented recipe for this driver).

    The driver begins one by itself only before it changes rows, so that tables would be made outside of any.
    """
    engine = create_engine("sqlite://", creator=file.connect, poolclass=QueuePool)

    @event.listens_for(engine, "connect")
    def _configure(connection: Any, _record: object) -> None:  # the driver's own connection type
        connection.isolation_level = None
        connection.execute("PRAGMA busy_timeout=5000")
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA foreign_keys=ON")

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        connection.exec_driver_sql(connection.get_execution_options().get(_BEGINS, "BEGIN"))

    return engine
