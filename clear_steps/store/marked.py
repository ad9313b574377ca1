"""The demo's database: it carries a mark inside, and nothing without the mark is ever taken for one."""

import os
import sqlite3
import tempfile
from contextlib import closing
from pathlib import Path

from clear_steps.store.copies import copy_aside, looking_into
from clear_steps.store.database import FILE_NAME, Database
from clear_steps.store.errors import StoreError

# SQLite's own place for what kind of file it is: the letters CSdm.
MARK = int.from_bytes(b"CSdm")


def marked_path(directory: Path) -> Path:
    """Where a demo's database is or would be; raises StoreError where something else stands there."""
    path = directory / FILE_NAME
    if path.exists() and mark_of(path) != MARK:
        raise StoreError(f"{path} is no demo's, and is left alone; choose another directory with --data")
    return path


def open_marked(directory: Path) -> Database:
    """The marked database of a directory, made where there is none.

    Raises StoreError where the file that stands there has no mark, and touches nothing then.
    """
    path = marked_path(directory)
    if not path.exists():
        try:
            directory.mkdir(parents=True, exist_ok=True)
            _put_marked_file(path)
        except OSError as cause:
            raise StoreError(f"{path} cannot be made ({cause.strerror}); choose another directory") from cause
    return Database(directory)


def set_marked_aside(directory: Path) -> Path | None:
    """Move the marked database of a directory to its copies, whatever state it is in, and say where it is;
    nothing else may have it open. Raises StoreError where it has no mark."""
    path = marked_path(directory)
    aside = copy_aside(path)
    path.unlink(missing_ok=True)
    return aside


def is_marked(database: Database) -> bool:
    """Whether it is a demo's."""
    return mark_of(database.path) == MARK


def mark_of(path: Path) -> int | None:
    """The mark in a file; none where it is no database. Nothing is written, not even beside it."""
    try:
        with looking_into(path) as connection:
            mark: int = connection.execute("PRAGMA application_id").fetchone()[0]
            return mark
    except sqlite3.Error:
        return None


def put_mark(path: Path, mark: int | None) -> None:
    """Write a mark into a file that nobody has open."""
    with closing(sqlite3.connect(path)) as connection:
        connection.execute(f"PRAGMA application_id = {mark or 0}")
        connection.commit()


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
