"""The database file as it was opened: told apart from whatever stands under its name later."""

import sqlite3
from pathlib import Path

from clear_steps.store.copies import CopyKind, folder_of, stamp, write_copy
from clear_steps.store.errors import FileGoneError, StoreError


class OpenFile:
    """Connects to one file, made if need be until it is held, and never to another one after that."""

    def __init__(self, path: Path) -> None:
        self._path = path
        self._identity: tuple[int, int] | None = None
        self._standing: sqlite3.Connection | None = None
        self._rescued: Path | None = None

    def connect(self) -> sqlite3.Connection:
        """A new connection; raises FileGoneError. By a URI, for a path may hold any sign."""
        mode = "rwc" if self._identity is None else "rw"
        if self._identity is not None:
            self.check()
        uri = f"{self._path.absolute().as_uri()}?mode={mode}"
        return sqlite3.connect(uri, uri=True, check_same_thread=False)

    def hold(self) -> None:
        """From now on it is this very file. One connection stays: with it the content is there still where
        the file is taken away."""
        self._standing = self.connect()
        self._standing.execute("SELECT count(*) FROM sqlite_master").fetchone()
        self._identity = self._found()

    @property
    def standing(self) -> sqlite3.Connection:
        """The connection that stays open; for copies only."""
        assert self._standing is not None, "the file is held from the opening on"
        return self._standing

    def check(self) -> None:
        """Raises FileGoneError where the file is no longer under its name; its content is rescued once."""
        if self._found() == self._identity:
            return
        self._rescued = self._rescued or self._rescue()
        kept = f"; all that was stored before is in {self._rescued}" if self._rescued else ""
        raise FileGoneError(
            f"{self._path} was taken away or replaced while Clear Steps was running, so nothing can be"
            f" stored{kept}. What you typed stays on this page: copy it, put the file back and start again"
        )

    def close(self) -> None:
        """Let go of the connection that stays."""
        if self._standing is not None:
            self._standing.close()

    def _found(self) -> tuple[int, int] | None:
        try:
            facts = self._path.stat()
        except OSError:
            return None
        return facts.st_dev, facts.st_ino

    def _rescue(self) -> Path | None:
        try:
            folder = folder_of(self._path, CopyKind.REPLACED)
            return write_copy(self.standing, folder / f"rescued-{stamp()}.sqlite3")
        except StoreError:
            return None
