"""SQLite through SQLAlchemy: songs with every revision, versions with every choice, students, groups,
ladders, own Steps."""

from clear_steps.store.chunkings import Chunking, Chunkings, ChunkStart
from clear_steps.store.database import Database
from clear_steps.store.errors import (
    BusyError,
    FileGoneError,
    NameTakenError,
    NoBackupError,
    NoRoomError,
    NotFoundError,
    SavedAtOnceError,
    StaleRevisionError,
    StoreError,
)
from clear_steps.store.groups import MOST_SEATS, Group, Groups, Seat, StoredGroup
from clear_steps.store.kept_answers import KeptAnswers, digest
from clear_steps.store.ladders import Ladders, StoredLadder
from clear_steps.store.lesson_sheets import LessonSheet, LessonSheets, SheetBlock
from clear_steps.store.own_steps import OwnStep, OwnSteps
from clear_steps.store.songs import Songs, StoredRevision, StoredSong
from clear_steps.store.students import StoredStudent, Student, Students
from clear_steps.store.versions import NewVersion, StoredVersion, Versions

__all__ = [
    "MOST_SEATS",
    "BusyError",
    "ChunkStart",
    "Chunking",
    "Chunkings",
    "Database",
    "FileGoneError",
    "Group",
    "Groups",
    "KeptAnswers",
    "Ladders",
    "LessonSheet",
    "LessonSheets",
    "NameTakenError",
    "NewVersion",
    "NoBackupError",
    "NoRoomError",
    "NotFoundError",
    "OwnStep",
    "OwnSteps",
    "SavedAtOnceError",
    "Seat",
    "SheetBlock",
    "Songs",
    "StaleRevisionError",
    "StoreError",
    "StoredGroup",
    "StoredLadder",
    "StoredRevision",
    "StoredSong",
    "StoredStudent",
    "StoredVersion",
    "Student",
    "Students",
    "Versions",
    "digest",
]
