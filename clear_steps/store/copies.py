"""Copies of the whole database in one file each: where they are kept beside it, and how one is written."""

import hashlib
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from dataclasses import dataclass
from datetime import UTC, datetime
from enum import StrEnum
from pathlib import Path

from clear_steps.store.clock import now
from clear_steps.store.errors import NoRoomError, StoreError, is_full

MOST_NAMED = 3  # copies that a message names
_BESIDE = ("-wal", "-shm")


class CopyKind(StrEnum):
    """Why a copy was kept; each kind has a folder of that name beside the database."""

    DAILY = "daily-copies"
    REPLACED = "before-restores"  # what stood there before a restore, and what was rescued
    UPDATED = "before-updates"


@dataclass(frozen=True, slots=True)
class KeptCopy:
    """A copy beside the database; `name` is its path from there."""

    name: str
    kind: CopyKind
    taken_at: datetime  # UTC
    size_bytes: int


def kept_copies(path: Path) -> tuple[KeptCopy, ...]:
    """The copies of a database that stand beside it, newest first."""
    found = []
    for kind in CopyKind:
        for file in (path.parent / kind).glob("*.sqlite3"):
            facts = file.stat()
            taken_at = datetime.fromtimestamp(facts.st_mtime, UTC).replace(tzinfo=None)
            found.append(KeptCopy(f"{kind}/{file.name}", kind, taken_at, facts.st_size))
    return tuple(sorted(found, key=lambda copy: (copy.taken_at, copy.name), reverse=True))


def copies_words(path: Path) -> str:
    """Which copies there are, for a message: the newest few by name."""
    names = [copy.name for copy in kept_copies(path)[:MOST_NAMED]]
    return f"copies beside it: {', '.join(names)}" if names else "there is no copy beside it"


def stamp() -> str:
    """Now, as it stands in a file's name; later ones sort behind."""
    return f"{now():%Y%m%dT%H%M%S%f}"


def folder_of(path: Path, kind: CopyKind) -> Path:
    """The folder of a kind of copies, made where it is not there; raises StoreError."""
    folder = path.parent / kind
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except FileExistsError as cause:
        raise StoreError(f"{folder} is a file; copies are kept in a folder of that name") from cause
    except OSError as cause:
        raise _unwritable(folder, cause) from cause
    return folder


def write_copy(source: sqlite3.Connection, target: Path) -> Path:
    """The database behind a connection as one file, complete or not there at all; answers that can be made
    again at any time are left out.

    Others may read and write meanwhile. Raises NoRoomError or StoreError.
    """
    unfinished = target.with_name(f"{target.name}.unfinished")
    try:
        with closing(sqlite3.connect(unfinished)) as copy:
            source.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")  # else it is three files once it is opened
            _without_kept_answers(copy)
        return unfinished.replace(target)
    except (sqlite3.Error, OSError) as cause:
        unfinished.unlink(missing_ok=True)
        raise _unwritable(target, cause) from cause


def _without_kept_answers(copy: sqlite3.Connection) -> None:
    """Of a database of any revision: early ones kept none."""
    if copy.execute("SELECT 1 FROM sqlite_master WHERE name = 'kept_answers'").fetchone():
        copy.execute("DELETE FROM kept_answers")
        copy.commit()
        copy.execute("VACUUM")


def copy_aside(path: Path) -> Path | None:
    """Copy a database that nobody has open to what was replaced, sound or not, and leave it as one file that
    may be replaced; none where there is none."""
    if not path.exists():
        return None
    with suppress(sqlite3.Error), closing(sqlite3.connect(path)) as connection:
        connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")  # what is not in the file yet
    aside = folder_of(path, CopyKind.REPLACED) / f"replaced-{stamp()}{path.suffix}"
    try:
        for ending in ("", *_BESIDE):
            beside = path.with_name(path.name + ending)
            if beside.exists():
                shutil.copyfile(beside, aside.with_name(aside.name + ending))
        for ending in _BESIDE:  # left by a file that could not be opened: they fit no other
            path.with_name(path.name + ending).unlink(missing_ok=True)
    except OSError as cause:
        raise _unwritable(aside, cause) from cause
    return aside


def forget_old(path: Path, kind: CopyKind, most: int) -> None:
    """Keep the newest copies of a kind; what a killed copying left goes too."""
    for copy in [copy for copy in kept_copies(path) if copy.kind == kind][most:]:
        (path.parent / copy.name).unlink()
    for left in (path.parent / kind).glob("*.unfinished"):
        left.unlink()


def content_digest(copy: Path) -> str:
    """What tells two copies apart: all that is in them, not how it lies in the file."""
    whole = hashlib.sha256()
    with looking_into(copy) as connection:
        for line in connection.iterdump():
            whole.update(line.encode("utf-8", "surrogatepass"))
    return whole.hexdigest()


@contextmanager
def looking_into(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection to a file that nobody writes to; nothing is written, not even beside it."""
    with closing(sqlite3.connect(f"{path.absolute().as_uri()}?mode=ro&immutable=1", uri=True)) as connection:
        yield connection


def _unwritable(target: Path, cause: sqlite3.Error | OSError) -> StoreError:
    if is_full(cause):
        return NoRoomError(f"the disk is full: there is no room for the copy {target}")
    return StoreError(f"the copy {target} cannot be written ({cause})")
