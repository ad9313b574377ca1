"""A database that may be thrown away: it carries a mark inside, and nothing without the mark is ever
removed."""

import os
import sqlite3
import tempfile
from contextlib import closing
from pathlib import Path

from clear_steps.store.database import FILE_NAME, Database
from clear_steps.store.errors import StoreError

# SQLite's own place for what kind of file it is: the letters CSdm.
MARK = int.from_bytes(b"CSdm")


def make_marked(directory: Path) -> Database:
    """A fresh marked database in a directory, in place of a marked one that stood there.

    Raises StoreError where the file that stands there has no mark, and touches nothing then.
    """
    path = directory / FILE_NAME
    if path.exists():
        if _mark_of(path) != MARK:
            raise StoreError(f"{path} is no demo's, and is left alone; choose another directory with --data")
        for file in (path, path.with_name(f"{FILE_NAME}-wal"), path.with_name(f"{FILE_NAME}-shm")):
            file.unlink(missing_ok=True)
    try:
        directory.mkdir(parents=True, exist_ok=True)
        _put_marked_file(path)
    except OSError as cause:
        raise StoreError(f"{path} cannot be made ({cause.strerror}); choose another directory") from cause
    return Database(directory)


def _mark_of(path: Path) -> int | None:
    """The mark in a file; none where it is no database. Nothing is written, not even beside it."""
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro&immutable=1", uri=True)) as connection:
            mark: int = connection.execute("PRAGMA application_id").fetchone()[0]
            return mark
    except sqlite3.Error:
        return None


def _put_marked_file(path: Path) -> None:
    """An empty database with the mark, there at once or not at all."""
    with closing(sqlite3.connect(":memory:")) as connection:
        connection.execute(f"PRAGMA application_id = {MARK}")
        connection.execute("VACUUM")
        content = connection.serialize()
    handle, unfinished = tempfile.mkstemp(dir=path.parent, prefix="demo-")
    with os.fdopen(handle, "wb") as file:
        file.write(content)
    os.replace(unfinished, path)
