"""SQLite through SQLAlchemy: songs with every revision, versions with every choice, players, ladders, own Steps."""

from clear_steps.store.database import Database
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.ladders import Ladders, StoredLadder
from clear_steps.store.own_steps import OwnSteps
from clear_steps.store.players import Players, StoredPlayer
from clear_steps.store.songs import Songs, StoredRevision, StoredSong
from clear_steps.store.versions import NewVersion, StoredVersion, Versions

__all__ = [
    "Database",
    "Ladders",
    "NewVersion",
    "NotFoundError",
    "OwnSteps",
    "Players",
    "Songs",
    "StaleRevisionError",
    "StoredLadder",
    "StoredPlayer",
    "StoredRevision",
    "StoredSong",
    "StoredVersion",
    "Versions",
]
