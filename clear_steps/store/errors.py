"""What can go wrong when something stored is asked for or replaced, or the file itself cannot be used."""

import errno
import sqlite3
from pathlib import Path

from sqlalchemy.exc import DBAPIError, IntegrityError

from clear_steps.core.errors import ClearStepsError


class NotFoundError(ClearStepsError):
    """Nothing is stored under that number."""

    code = "not_found"


class StaleRevisionError(ClearStepsError):
    """Somebody saved a newer revision since; nothing was overwritten."""

    code = "stale_revision"

    def __init__(self, based_on: int, latest: int, what: str = "text") -> None:
        self.latest = latest
        begun = f"your {what} is based on revision {based_on}"
        since = f"writing {latest} has been saved since; nothing was overwritten"
        super().__init__(f"{begun}, but {since}")


class NameTakenError(ClearStepsError):
    """Another student has that name."""

    code = "name_taken"

    def __init__(self, name: str) -> None:
        super().__init__(f"student's name is {name!r}; expected one that no other student has")


class SavedAtOnceError(ClearStepsError):
    """Two saves of the same met; the first is stored, the second is not."""

    code = "saved_at_once"


class StoreError(ClearStepsError):
    """The database file cannot be opened or brought up to date; the text says why and what can be done."""

    code = "store"


class NoRoomError(StoreError):
    """The disk is full, or nothing can be written; what was to be saved is not stored."""

    code = "no_room"


class BusyError(StoreError):
    """Another program holds the database."""

    code = "busy"


class FileGoneError(StoreError):
    """The database file was taken away or replaced while it was open; nothing is stored until a restart."""

    code = "file_gone"


class NoBackupError(ClearStepsError):
    """A file cannot be restored: it is damaged, of another program, or of a newer one of ours."""

    code = "no_backup"


def is_full(cause: sqlite3.Error | OSError | BaseException | None) -> bool:
    """Whether something failed because the disk is full."""
    if isinstance(cause, OSError):
        return cause.errno in (errno.ENOSPC, errno.EDQUOT)
    return "full" in str(cause).lower()


def is_damage(cause: BaseException | None) -> bool:
    """Whether the driver complains that the file is no sound database."""
    said = str(cause).lower()
    return "not a database" in said or "malformed" in said


def trouble(cause: DBAPIError, path: Path) -> ClearStepsError:
    """The driver's complaint in our words."""
    said = str(cause.orig).lower()
    if isinstance(cause, IntegrityError):
        return SavedAtOnceError(
            "the same was saved a moment before; that one is kept, this one was not stored"
        )
    if is_full(cause.orig):
        return NoRoomError(f"the disk that holds {path} is full; nothing was stored")
    if "readonly" in said or "read-only" in said:
        return NoRoomError(f"{path} cannot be written, it is read-only; nothing was stored")
    if "locked" in said or "busy" in said:
        return BusyError(f"another program is writing to {path}; nothing was stored, try again")
    return StoreError(f"{path} cannot be used ({cause.orig})")
