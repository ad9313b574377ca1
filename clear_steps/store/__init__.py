"""SQLite through SQLAlchemy: songs with every revision, versions with every choice, players."""

from clear_steps.store.database import Database
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.players import Players, StoredPlayer
from clear_steps.store.songs import Songs, StoredRevision, StoredSong
from clear_steps.store.versions import NewVersion, StoredVersion, Versions

__all__ = [
    "Database",
    "NewVersion",
    "NotFoundError",
    "Players",
    "Songs",
    "StaleRevisionError",
    "StoredPlayer",
    "StoredRevision",
    "StoredSong",
    "StoredVersion",
    "Versions",
]
