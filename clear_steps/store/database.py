"""One SQLite file in WAL mode, brought up to date by Alembic when opened."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session

MIGRATIONS = Path(__file__).parent / "migrations"
FILE_NAME = "clear-steps.sqlite3"


class Database:
    """The data directory's database; every `session()` is one unit of work."""

    def __init__(self, directory: Path) -> None:
        directory.mkdir(parents=True, exist_ok=True)
        self.path = directory / FILE_NAME
        self._engine = _engine(self.path)
        self._migrate()

    @contextmanager
    def session(self) -> Iterator[Session]:
        """All of what is done inside is stored, or none of it."""
        with Session(self._engine) as session, session.begin():
            yield session

    def close(self) -> None:
        """Let go of the file."""
        self._engine.dispose()

    def _migrate(self) -> None:
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        with self._engine.begin() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")


def _engine(path: Path) -> Engine:
    engine = create_engine(f"sqlite:///{path}")

    @event.listens_for(engine, "connect")
    def _configure(connection: Any, _record: object) -> None:  # the driver's own connection type
        connection.execute("PRAGMA journal_mode=WAL")
        connection.execute("PRAGMA foreign_keys=ON")
        connection.execute("PRAGMA busy_timeout=5000")

    return engine
