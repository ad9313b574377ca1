"""From an older file to today's tables: in one transaction, after a copy of the file was kept."""

import sqlite3
from contextlib import closing
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, inspect
from sqlalchemy.exc import DBAPIError

from clear_steps.store.copies import CopyKind, copies_words, folder_of, forget_old, stamp, write_copy
from clear_steps.store.errors import NoRoomError, StoreError, is_full

MIGRATIONS = Path(__file__).parent / "migrations"
COPIES_KEPT = 3


def migration_config() -> Config:
    """For Alembic, which takes a percent sign for the begin of a name."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS).replace("%", "%%"))
    return config


def known_revisions(config: Config) -> list[str]:
    """The schemas that this program knows, newest first."""
    return [script.revision for script in ScriptDirectory.from_config(config).walk_revisions()]


def bring_up_to_date(path: Path, reading: Engine, writing: Engine) -> None:
    """Make or update the tables; raises StoreError where the file is damaged or newer than this program."""
    config = migration_config()
    known = known_revisions(config)
    with reading.connect() as connection:
        _check(path, connection)
        if _revision(connection) == known[0]:
            return
    with writing.begin() as connection:
        found = _revision(connection)  # another start may have been quicker
        if found is not None and found not in known:
            raise StoreError(
                f"{path} was written by a newer Clear Steps; start that one, or choose another --data"
            )
        if found == known[0]:
            return
        copy = _copy(path, found) if found is not None else None
        config.attributes["connection"] = connection
        try:
            command.upgrade(config, "head")
        except DBAPIError as cause:
            raise _not_updated(path, cause, copy) from cause
    if copy:
        forget_old(path, CopyKind.UPDATED, COPIES_KEPT)


def damaged(path: Path, found: object) -> StoreError:
    """That a file is no sound database, and what there is instead."""
    help_ = f"{copies_words(path)}; restore one with `clear-steps restore FILE`"
    return StoreError(f"{path} is damaged ({found}); {help_}")


def _not_updated(path: Path, cause: DBAPIError, copy: Path | None) -> StoreError:
    kept = f"; it is as it was, and a copy is in {copy}" if copy else ""
    if is_full(cause.orig):
        return NoRoomError(f"the disk is full: {path} could not be brought up to date{kept}")
    return StoreError(f"{path} could not be brought up to date ({cause.orig}){kept}")


def _check(path: Path, connection: Connection) -> None:
    """Damage is told before anything is written."""
    found = connection.exec_driver_sql("PRAGMA quick_check(1)").scalar()
    if found != "ok":
        raise damaged(path, found)


def _revision(connection: Connection) -> str | None:
    """The file's own; None for a new file."""
    if not inspect(connection).has_table("alembic_version"):
        return None
    revision: str | None = connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar()
    return revision


def _copy(path: Path, revision: str) -> Path:
    """A copy of the whole file under its revision and the time."""
    target = folder_of(path, CopyKind.UPDATED) / f"{path.stem}-{revision}-{stamp()}{path.suffix}"
    with closing(sqlite3.connect(path)) as source:
        return write_copy(source, target)
