"""One server a data directory: a second one would take acknowledged saves from the first."""

from pathlib import Path

from filelock import FileLock, Timeout

from clear_steps.store.database import make_directory
from clear_steps.store.errors import StoreError

LOCK_NAME = "clear-steps.lock"
_ADDRESS_NAME = "clear-steps.serving"


class DataLock:
    """Held while a server or a restore works on a data directory; the system lets go of it with the
    process."""

    def __init__(self, directory: Path, holder: str) -> None:
        """Take it as `Clear Steps at http://...`, say; raises StoreError that names who holds it where it is
        taken."""
        self._told = directory / _ADDRESS_NAME
        make_directory(directory)
        try:
            self._lock = FileLock(directory / LOCK_NAME, timeout=0)
            self._lock.acquire()
            self._told.write_text(holder, encoding="utf-8")
        except Timeout as cause:
            raise StoreError(
                f"{directory} is in use by {self._holder()}; use that one, or stop it first,"
                " or choose another directory with --data"
            ) from cause
        except OSError as cause:
            raise StoreError(
                f"{directory} cannot be used ({cause.strerror}); choose another directory"
            ) from cause

    def _holder(self) -> str:
        try:
            return self._told.read_text(encoding="utf-8")
        except OSError:
            return "another Clear Steps"

    def release(self) -> None:
        """Let go."""
        self._lock.release()
