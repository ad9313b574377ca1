"""Every save is a revision; nothing is overwritten, nothing half stored."""

import sqlite3
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine, text

from clear_steps.core.errors import ClearStepsError, InvalidValueError
from clear_steps.core.grade import HardestShape, Limits
from clear_steps.core.hand import Habits, LittleFinger, Player
from clear_steps.core.score import Technique
from clear_steps.store import (
    Database,
    Group,
    Groups,
    Ladders,
    NameTakenError,
    NotFoundError,
    SavedAtOnceError,
    Seat,
    Songs,
    StaleRevisionError,
    Student,
    Students,
)
from clear_steps.store.database import FILE_NAME
from clear_steps.store.migrating import MIGRATIONS


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database(tmp_path)


def test_saving_adds_a_revision_and_keeps_the_old_one(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
        Songs(session).save(song.id, 1, "Porch", "two")
    with database.session() as session:
        assert [(revision.number, revision.text) for revision in Songs(session).revisions(song.id)] == [
            (1, "one"),
            (2, "two"),
        ]
        assert Songs(session).get(song.id).latest.text == "two"


def test_a_stale_save_is_refused_and_changes_nothing(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
        Songs(session).save(song.id, 1, "Porch", "two")
    with (
        pytest.raises(StaleRevisionError, match="writing 2 has been saved since"),
        database.session() as session,
    ):
        Songs(session).save(song.id, 1, "Porch", "three")
    with database.session() as session:
        assert [revision.text for revision in Songs(session).revisions(song.id)] == ["one", "two"]


def test_what_two_saves_at_once_would_store_twice_the_file_refuses(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
    with pytest.raises(SavedAtOnceError, match="saved a moment before"), database.session() as session:
        Songs(session)._save(song.id, 1, "Porch", "other")
    with database.reading() as session:
        assert [revision.text for revision in Songs(session).revisions(song.id)] == ["one"]


def test_a_session_waits_until_the_one_before_has_stored(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")

    def save(number: int) -> bool:
        try:
            with database.session() as session:
                based_on = Songs(session).get(song.id).latest.number
                Songs(session).save(song.id, based_on, "Porch", f"text {number}")
        except ClearStepsError:
            return False
        return True

    with ThreadPoolExecutor(8) as pool:
        assert all(pool.map(save, range(40)))
    with database.reading() as session:
        assert Songs(session).get(song.id).latest.number == 41


def test_a_draft_becomes_one_song_however_often_it_is_sent(database: Database) -> None:
    with database.session() as session:
        first = Songs(session).add("Porch", "one", "draft-1")
        assert Songs(session).add("Porch", "one", "draft-1") == first
        assert Songs(session).add("Porch", "two", "draft-1").latest.number == 2
        assert len(Songs(session).every()) == 1


def test_a_song_is_put_away_and_brought_back_whole(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
        assert Songs(session).put_away(song.id, True).put_away
    with database.session() as session:
        assert [each.put_away for each in Songs(session).every()] == [True]
        assert Songs(session).put_away(song.id, False) == song
        with pytest.raises(NotFoundError):
            Songs(session).put_away(7, True)


def test_a_failure_in_the_middle_stores_nothing(database: Database) -> None:
    def fail() -> None:
        with database.session() as session:
            Songs(session).add("Porch", "one")
            raise RuntimeError("in the middle")

    with pytest.raises(RuntimeError):
        fail()
    with database.session() as session:
        assert Songs(session).every() == []


def test_what_is_not_there_is_said(database: Database) -> None:
    with database.session() as session, pytest.raises(NotFoundError, match="there is no song 7"):
        Songs(session).get(7)


def test_students_have_names_of_their_own_and_every_save_is_kept(database: Database) -> None:
    limits = Limits(4.0, frozenset({Technique.TAP}), HardestShape.NO_BARRE, (("rhythm", 3.0),))
    with database.session() as session:
        students = Students(session)
        mira = students.add(Student(" Mira  Holt ", Player(95), limits))
        assert mira.student == Student("Mira Holt", Player(95), limits)
        assert students.add(Student("Mira Holt", Player(95), limits)) == mira
        with pytest.raises(NameTakenError, match="no other student"):
            students.add(Student("Mira Holt"))
        other = students.add(Student("Tomke"))
        with pytest.raises(NameTakenError, match="no other student"):
            students.save(other.id, 1, Student("Mira Holt"))
        changed = students.save(mira.id, 1, Student("Mira Holt", Player(99)))
        assert (changed.number, changed.student.player.span_mm) == (2, 99)
        with pytest.raises(StaleRevisionError):
            students.save(mira.id, 1, Student("Mira Holt", Player(90)))
        with pytest.raises(NotFoundError, match="student 9"):
            students.get(9)
    rows = (
        sqlite3.connect(database.path)
        .execute("SELECT number FROM student_revisions WHERE owner_id = 1 ORDER BY number")
        .fetchall()
    )
    assert rows == [(1,), (2,)]


def test_a_group_keeps_who_plays_what_and_every_save(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
        groups = Groups(session)
        first = groups.add(song.id, Group("Thursday", (Seat("Mira"), Seat("Tomke", 0, 3))))
        assert groups.save(first.id, 1, Group("Friday", (Seat("Mira"),))).number == 2
        assert [each.group.name for each in groups.of_song(song.id)] == ["Friday"]
        with pytest.raises(StaleRevisionError):
            groups.save(first.id, 1, Group("Sunday", (Seat("Mira"),)))
        with pytest.raises(InvalidValueError, match="1 to 12"):
            Group("nobody", ())
        with pytest.raises(InvalidValueError, match="name"):
            Group(" ", (Seat("Mira"),))


def test_players_of_an_older_file_become_students(tmp_path: Path) -> None:
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    engine = create_engine(f"sqlite:///{tmp_path / FILE_NAME}")
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0004")
        connection.execute(
            text(
                "INSERT INTO players (name, span_mm, little_finger, thumb_over) VALUES ('Mira', 95,"
                " 'avoided', 1)"
            )
        )
        connection.execute(text("INSERT INTO ladders (in_use, created_at) VALUES (1, CURRENT_TIMESTAMP)"))
        connection.execute(
            text(
                "INSERT INTO ladder_revisions (ladder_id, number, content, saved_at) VALUES (1, 1, '{}',"
                " CURRENT_TIMESTAMP)"
            )
        )
    database = Database(tmp_path)
    with database.session() as session:
        (mira,) = Students(session).every()
        assert mira.student == Student("Mira", Player(95, Habits(LittleFinger.AVOIDED, True)))
        assert Ladders(session).get(1).content == "{}"
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "0004")
        assert connection.execute(
            text("SELECT name, span_mm, little_finger, thumb_over FROM players")
        ).all() == [("Mira", 95, "avoided", 1)]


def test_an_existing_file_is_opened_again_in_wal_mode(database: Database) -> None:
    with database.session() as session:
        Songs(session).add("Porch", "one")
    database.close()
    again = Database(database.path.parent)
    with again.session() as session:
        assert len(Songs(session).every()) == 1
    assert sqlite3.connect(database.path).execute("PRAGMA journal_mode").fetchone() == ("wal",)
