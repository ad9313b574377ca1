"""From an older file to today's tables: in one transaction, after a copy of the file was kept."""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, inspect
from sqlalchemy.exc import DBAPIError

from clear_steps.store.errors import StoreError

MIGRATIONS = Path(__file__).parent / "migrations"
COPIES = "before-updates"  # the folder of copies, beside the database
COPIES_KEPT = 3


def bring_up_to_date(path: Path, reading: Engine, writing: Engine) -> None:
    """Make or update the tables; raises StoreError where the file is damaged or newer than this program."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    known = [
        script.revision for script in ScriptDirectory.from_config(config).walk_revisions()
    ]  # newest first
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
            kept = f"; it is as it was, and a copy is in {copy}" if copy else ""
            raise StoreError(f"{path} could not be brought up to date ({cause.orig}){kept}") from cause
    if copy:
        _forget_old(copy.parent)


def _check(path: Path, connection: Connection) -> None:
    """Damage is told before anything is written."""
    found = connection.exec_driver_sql("PRAGMA quick_check(1)").scalar()
    if found != "ok":
        raise StoreError(f"{path} is damaged ({found}); bring back a copy of it and start again")


def _revision(connection: Connection) -> str | None:
    """The file's own; None for a new file."""
    if not inspect(connection).has_table("alembic_version"):
        return None
    revision: str | None = connection.exec_driver_sql("SELECT version_num FROM alembic_version").scalar()
    return revision


def _copy(path: Path, revision: str) -> Path:
    """A copy of the whole file under its revision and the time; complete, or not there at all."""
    folder = path.parent / COPIES
    folder.mkdir(exist_ok=True)
    target = folder / f"{path.stem}-{revision}-{datetime.now(UTC):%Y%m%dT%H%M%S%f}{path.suffix}"
    unfinished = target.with_suffix(".unfinished")
    with closing(sqlite3.connect(path)) as source, closing(sqlite3.connect(unfinished)) as copy:
        source.backup(copy)
    return unfinished.replace(target)


def _forget_old(folder: Path) -> None:
    """Keep the last few copies."""
    copies = sorted(folder.glob("*.sqlite3"), key=lambda copy: copy.stat().st_mtime_ns)
    for old in copies[:-COPIES_KEPT]:
        old.unlink()
    for left in folder.glob("*.unfinished"):
        left.unlink()
