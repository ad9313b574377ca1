"""Everything as one file: given out while the server runs, kept day by day, and put back."""

import shutil
import sqlite3
import tempfile
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from clear_steps.store.clock import now
from clear_steps.store.copies import (
    CopyKind,
    KeptCopy,
    content_digest,
    copy_aside,
    folder_of,
    forget_old,
    kept_copies,
    looking_into,
    stamp,
    write_copy,
)
from clear_steps.store.database import FILE_NAME, Database
from clear_steps.store.errors import BusyError, NoBackupError, NoRoomError, NotFoundError, StoreError, is_full
from clear_steps.store.lock import DataLock
from clear_steps.store.marked import mark_of, put_mark
from clear_steps.store.migrating import known_revisions, migration_config

DAYS_KEPT = 7
PATIENCE_S = 30.0  # how long another program may hold the file that is to be replaced
_PREPARING = "restoring-"


@dataclass(frozen=True, slots=True)
class Contents:
    """What is in a backup; `newest` is when a text was saved last, in UTC."""

    songs: int
    versions: int
    students: int
    newest: datetime | None


def write_backup(database: Database, target: Path) -> Path:
    """Everything as one file, while others read and write; raises NoRoomError or StoreError."""
    return write_copy(database.file.standing, target)


def keep_daily_copy(database: Database) -> KeptCopy | None:
    """Keep a copy under today's date, in place of an earlier one of today; none where nothing changed
    since the last one. The last seven days stay."""
    folder = folder_of(database.path, CopyKind.DAILY)
    target = folder / f"{now():%Y-%m-%d}{database.path.suffix}"
    before = next(iter(_daily(database.path)), None)
    fresh = write_backup(database, target.with_name(f"{target.name}.unfinished"))
    if before and content_digest(database.path.parent / before.name) == content_digest(fresh):
        fresh.unlink()
        return None
    fresh.replace(target)
    forget_old(database.path, CopyKind.DAILY, DAYS_KEPT)
    return next(iter(_daily(database.path)))


def _daily(path: Path) -> list[KeptCopy]:
    copies = [copy for copy in kept_copies(path) if copy.kind == CopyKind.DAILY]
    return sorted(copies, key=lambda copy: copy.name, reverse=True)


def copy_named(path: Path, name: str) -> Path:
    """The file of a copy beside a database; raises NotFoundError."""
    if name not in {copy.name for copy in kept_copies(path)}:
        raise NotFoundError(f"there is no copy {name}")
    return path.parent / name


def contents_of(candidate: Path, called: str = "") -> Contents:
    """What a backup holds; raises NoBackupError in words where it cannot be restored."""
    with _prepared(candidate, called or candidate.name) as ready:
        return _counted(ready)


def restore(database: Database, candidate: Path, called: str = "") -> Path:
    """Put what a backup holds in the place of everything, and give the copy that was kept of what stood
    there. The one or the other is there at any moment.

    Raises NoBackupError, and changes nothing then, or StoreError.
    """
    with _prepared(candidate, called or candidate.name) as ready:
        put_mark(ready, mark_of(database.path))
        folder = folder_of(database.path, CopyKind.REPLACED)
        with database.one_writer:
            database.file.check()
            kept = write_backup(database, folder / f"replaced-{stamp()}.sqlite3")
            _put(ready, database)
            database.file.check()
        return kept


def restore_directory(directory: Path, candidate: Path) -> Path | None:
    """The same for a directory that nobody serves, whatever state its file is in; none was kept where none
    was there. Raises NoBackupError or StoreError."""
    lock = DataLock(directory, "a restore, which takes a moment")
    try:
        path = directory / FILE_NAME
        with _prepared(candidate, candidate.name) as ready:
            put_mark(ready, mark_of(path))
            kept = copy_aside(path)
            shutil.copyfile(ready, path.with_name(f"{FILE_NAME}.unfinished"))
            path.with_name(f"{FILE_NAME}.unfinished").replace(path)
        Database(directory).close()
        return kept
    finally:
        lock.release()


def _put(ready: Path, database: Database) -> None:
    """One transaction of the driver's own: readers see what stood there until it is done."""
    until = time.monotonic() + PATIENCE_S

    def patiently(_status: int, _remaining: int, _total: int) -> None:
        if time.monotonic() > until:
            raise BusyError(f"another program is writing to {database.path}; nothing was restored, try again")

    try:
        with closing(sqlite3.connect(ready)) as source, closing(database.file.connect()) as target:
            source.backup(target, progress=patiently)
    except sqlite3.Error as cause:
        if is_full(cause):
            raise NoRoomError(f"the disk that holds {database.path} is full; nothing was restored") from cause
        raise StoreError(f"{database.path} could not be replaced ({cause}); it is as it was") from cause


@contextmanager
def _prepared(candidate: Path, called: str) -> Iterator[Path]:
    """A copy of a backup, found sound and brought up to date, for as long as it is needed."""
    _check(candidate, called)
    try:
        with tempfile.TemporaryDirectory(prefix=_PREPARING) as directory:
            ready = Path(directory) / FILE_NAME
            shutil.copyfile(candidate, ready)
            _bring_up_to_date(ready, called)
            yield ready
    except OSError as cause:
        if is_full(cause):
            raise NoRoomError(f"the disk is full: there is no room to look into {called}") from cause
        raise StoreError(f"{called} cannot be looked into ({cause.strerror})") from cause


def _bring_up_to_date(ready: Path, called: str) -> None:
    try:
        Database(ready.parent).close()
    except StoreError as cause:
        raise NoBackupError(f"{called} cannot be restored: its tables are not those of a backup") from cause
    with looking_into(ready) as connection, _ours() as tables:
        if _tables(connection) != tables:
            raise NoBackupError(f"{called} cannot be restored: its tables are not those of a backup")


def _check(candidate: Path, called: str) -> None:
    """Damage, and what is none of ours, is told before anything is done."""
    try:
        with looking_into(candidate) as connection:
            found = connection.execute("PRAGMA integrity_check(1)").fetchone()[0]
            tables = {name for kind, name in _tables(connection) if kind == "table"}
            revision = _revision(connection) if {"alembic_version", "songs"} <= tables else None
    except sqlite3.Error as cause:
        raise NoBackupError(
            f"{called} is damaged, or no database ({cause}); expected a backup of Clear Steps"
        ) from cause
    if found != "ok":
        raise NoBackupError(f"{called} is damaged ({found}); expected a sound backup of Clear Steps")
    if revision is None:
        raise NoBackupError(f"{called} is no backup of Clear Steps; expected a file that *Backup* wrote")
    if revision not in known_revisions(migration_config()):
        raise NoBackupError(f"{called} was written by a newer Clear Steps; restore it with that one")


def _revision(connection: sqlite3.Connection) -> str | None:
    row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
    return str(row[0]) if row else None


@contextmanager
def _ours() -> Iterator[set[tuple[str, str]]]:
    """The tables and indexes of a new database, by kind and name."""
    with tempfile.TemporaryDirectory(prefix=_PREPARING) as directory:
        Database(Path(directory)).close()
        with looking_into(Path(directory) / FILE_NAME) as connection:
            yield _tables(connection)


def _tables(connection: sqlite3.Connection) -> set[tuple[str, str]]:
    return {
        (str(kind), str(name)) for kind, name in connection.execute("SELECT type, name FROM sqlite_master")
    }


def _counted(ready: Path) -> Contents:
    with looking_into(ready) as connection:
        songs, versions, students = (
            connection.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
            for table in ("songs", "versions", "students")
        )
        newest = connection.execute("SELECT max(saved_at) FROM revisions").fetchone()[0]
    return Contents(songs, versions, students, datetime.fromisoformat(newest) if newest else None)
