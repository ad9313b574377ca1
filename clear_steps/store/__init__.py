"""SQLite through SQLAlchemy: songs with every revision, versions with every choice, students, groups,
ladders, own Steps."""

from clear_steps.store.database import Database
from clear_steps.store.errors import NotFoundError, StaleRevisionError
from clear_steps.store.groups import MOST_SEATS, Group, Groups, Seat, StoredGroup
from clear_steps.store.ladders import Ladders, StoredLadder
from clear_steps.store.own_steps import OwnSteps
from clear_steps.store.songs import Songs, StoredRevision, StoredSong
from clear_steps.store.students import StoredStudent, Student, Students
from clear_steps.store.versions import NewVersion, StoredVersion, Versions

__all__ = [
    "MOST_SEATS",
    "Database",
    "Group",
    "Groups",
    "Ladders",
    "NewVersion",
    "NotFoundError",
    "OwnSteps",
    "Seat",
    "Songs",
    "StaleRevisionError",
    "StoredGroup",
    "StoredLadder",
    "StoredRevision",
    "StoredSong",
    "StoredStudent",
    "StoredVersion",
    "Student",
    "Students",
    "Versions",
]
