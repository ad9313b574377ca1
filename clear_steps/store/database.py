"""One SQLite file in WAL mode, brought up to date when opened; every unit of work is a real transaction."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from clear_steps.store.errors import StoreError, trouble
from clear_steps.store.migrating import bring_up_to_date

FILE_NAME = "clear-steps.sqlite3"
_BEGINS = "begins"  # the execution option that says how a connection's transactions begin


class Database:
    """The data directory's database: `session()` writes, `reading()` looks; each is one unit of work."""

    def __init__(self, directory: Path) -> None:
        """Open or make the file; raises StoreError in words."""
        self.path = directory / FILE_NAME
        _make(directory)
        self._engine = _engine(self.path)
        self._writing = self._engine.execution_options(**{_BEGINS: "BEGIN IMMEDIATE"})
        try:
            bring_up_to_date(self.path, self._engine, self._writing)
        except DBAPIError as cause:
            self.close()
            raise trouble(cause, self.path) from cause
        except StoreError:
            self.close()
            raise

    @contextmanager
    def session(self) -> Iterator[Session]:
        """All of what is done inside is stored, or none of it; no other session writes meanwhile.

        Keep it short: compute before and after, not inside.
        """
        with self._unit_of_work(self._writing) as session:
            yield session

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
            raise trouble(cause, self.path) from cause

    def close(self) -> None:
        """Let go of the file."""
        self._engine.dispose()


def _make(directory: Path) -> None:
    try:
        directory.mkdir(parents=True, exist_ok=True)
    except FileExistsError as cause:
        raise StoreError(f"{directory} is a file; expected a directory for the database") from cause
    except OSError as cause:
        raise StoreError(
            f"{directory} cannot be made ({cause.strerror}); choose another directory"
        ) from cause


def _engine(path: Path) -> Engine:
    """An engine whose transactions are SQLAlchemy's own (its documented recipe for this driver).

    The driver begins one by itself only before it changes rows, so that tables would be made outside of any.
    """
    engine = create_engine(f"sqlite:///{path}")

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
