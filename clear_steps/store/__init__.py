"""SQLite through SQLAlchemy: songs with every revision, and players."""

from clear_steps.store.database import Database
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.players import Players, StoredPlayer
from clear_steps.store.songs import Songs, StoredRevision, StoredSong

__all__ = ["Database", "NotFoundError", "Players", "Songs", "StaleRevisionError", "StoredPlayer", "StoredRevision", "StoredSong"]
