"""The libraries of a machine, the teacher's own and the demo's: where they are, how they are opened."""

import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import platformdirs

from clear_steps.demo import seed
from clear_steps.store import Database, Songs
from clear_steps.store.database import FILE_NAME
from clear_steps.store.lock import DataLock
from clear_steps.store.marked import marked_path, open_marked, set_marked_aside

_APP = "clear-steps"


def own_directory() -> Path:
    """Where the teacher's own library is, unless another place is named."""
    return Path(platformdirs.user_data_dir(_APP))


def demo_directory(port: int) -> Path:
    """Where the demo is. Earlier programs had one a port among what may be thrown away: it moves."""
    directory = own_directory() / "demo"
    earlier = Path(platformdirs.user_cache_dir(_APP)) / "demo" / str(port)
    if (earlier / FILE_NAME).exists() and not directory.exists():
        directory.parent.mkdir(parents=True, exist_ok=True)
        shutil.move(earlier, directory)
    return directory


@contextmanager
def own_library(directory: Path, address: str) -> Iterator[Database]:
    """The teacher's library, nobody else's while it is open; raises StoreError."""
    with _locked(directory, address):
        database = Database(directory)
        try:
            yield database
        finally:
            database.close()


@contextmanager
def demo_library(directory: Path, address: str, fresh: bool) -> Iterator[Database]:
    """The demo's library with its songs put in once; `fresh` begins over and keeps what stood there as a
    copy. Raises StoreError where the directory holds something else."""
    marked_path(directory)  # before a lock is laid beside somebody else's file
    with _locked(directory, address):
        if fresh:
            set_marked_aside(directory)
        database = open_marked(directory)
        try:
            with database.reading() as session:
                is_new = not Songs(session).every()
            if is_new:
                seed(database)
            yield database
        finally:
            database.close()


@contextmanager
def _locked(directory: Path, address: str) -> Iterator[None]:
    lock = DataLock(directory, f"Clear Steps at {address}")
    try:
        yield
    finally:
        lock.release()
