"""Files of every earlier schema open in today's program, with all that was in them."""

import sqlite3
from pathlib import Path

import pytest

from clear_steps.core.hand import Player
from clear_steps.store import (
    Database,
    Groups,
    Ladders,
    NoRoomError,
    NotFoundError,
    OwnSteps,
    Songs,
    StoreError,
    Students,
    Versions,
)
from clear_steps.store.copies import CopyKind
from clear_steps.store.database import FILE_NAME
from clear_steps.store.migrating import COPIES_KEPT
from clear_steps.store.openfile import OpenFile

STORED = Path(__file__).parents[1] / "data/stored"
REVISIONS = ("0001", "0002", "0003", "0004", "0005")


def restored(directory: Path, revision: str) -> Path:
    """A database file as that revision of the program left it."""
    path = directory / FILE_NAME
    connection = sqlite3.connect(path)
    connection.executescript((STORED / f"{revision}.sql").read_text())
    connection.close()
    return path


@pytest.mark.parametrize("revision", REVISIONS)
def test_a_file_of_every_earlier_schema_opens_with_all_that_was_in_it(tmp_path: Path, revision: str) -> None:
    restored(tmp_path, revision)
    database = Database(tmp_path)
    with database.reading() as session:
        (song,) = Songs(session).every()
        assert (song.latest.number, song.latest.title, song.put_away) == (2, "Flour sacks", False)
        assert [student.student.name for student in Students(session).every()] == ["Mira"]
        assert Students(session).every()[0].student.player == Player(95)
        versions = Versions(session).of_song(song.id)
        assert len(versions) == (0 if revision == "0001" else 2 if revision == "0005" else 1)
        assert all(version.edits for version in versions)
        if versions:
            assert (versions[0].refused, versions[0].choice) == ((1,), 1)
        if revision >= "0003":
            assert OwnSteps(session).of_song(song.id)[0].step == 4.0
            assert OwnSteps(session).of_song(song.id)[0].number == 2
            assert '"Mine"' in Ladders(session).get(1).content
        if revision == "0005":
            assert versions[0].edits[-1].kind == "hand"
            assert Groups(session).of_song(song.id)[0].group.name == "Thursday"


def test_a_copy_of_the_file_is_kept_before_it_is_brought_up_to_date_the_last_three(tmp_path: Path) -> None:
    for _ in range(COPIES_KEPT + 2):
        path = tmp_path / FILE_NAME
        for file in tmp_path.glob(f"{FILE_NAME}*"):
            file.unlink()
        restored(tmp_path, "0003")
        Database(tmp_path).close()
    copies = sorted((tmp_path / CopyKind.UPDATED).iterdir())
    assert len(copies) == COPIES_KEPT
    kept = sqlite3.connect(copies[-1])
    assert kept.execute("SELECT version_num FROM alembic_version").fetchone() == ("0003",)
    assert kept.execute("SELECT count(*) FROM revisions").fetchone() == (2,)
    assert path.exists()


def test_a_migration_that_fails_leaves_the_file_as_it_was_and_names_the_copy(tmp_path: Path) -> None:
    path = restored(tmp_path, "0005")
    connection = sqlite3.connect(path)
    connection.executescript("CREATE TABLE x (a); CREATE INDEX one_student_a_name ON x (a);")
    connection.close()
    with pytest.raises(
        StoreError, match=rf"could not be brought up to date.*a copy is in .*{CopyKind.UPDATED}"
    ):
        Database(tmp_path)
    found = sqlite3.connect(path)
    assert found.execute("SELECT version_num FROM alembic_version").fetchone() == ("0005",)
    assert "draft" not in [row[1] for row in found.execute("PRAGMA table_info(songs)")]


def test_a_disk_that_is_full_during_an_update_is_told_as_full(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = restored(tmp_path, "0003")
    connect = OpenFile.connect

    def with_no_room(self: OpenFile) -> sqlite3.Connection:
        connection = connect(self)
        connection.execute("PRAGMA max_page_count=1")  # no more pages than there are
        return connection

    monkeypatch.setattr(OpenFile, "connect", with_no_room)
    with pytest.raises(NoRoomError, match=rf"the disk is full.*a copy is in .*{CopyKind.UPDATED}"):
        Database(tmp_path)
    found = sqlite3.connect(path)
    assert found.execute("SELECT version_num FROM alembic_version").fetchone() == ("0003",)


def test_a_file_in_the_place_of_the_copies_is_told_and_nothing_is_changed(tmp_path: Path) -> None:
    path = restored(tmp_path, "0003")
    (tmp_path / CopyKind.UPDATED).write_text("a file")
    with pytest.raises(StoreError, match="before-updates is a file"):
        Database(tmp_path)
    found = sqlite3.connect(path)
    assert found.execute("SELECT version_num FROM alembic_version").fetchone() == ("0003",)


def test_a_file_that_an_earlier_program_left_half_migrated_is_finished(tmp_path: Path) -> None:
    path = restored(tmp_path, "0004")
    connection = sqlite3.connect(path)
    connection.execute("CREATE TABLE students (id INTEGER PRIMARY KEY, created_at DATETIME NOT NULL)")
    connection.commit()
    connection.close()
    database = Database(tmp_path)
    with database.reading() as session:
        assert [each.student.name for each in Students(session).every()] == ["Mira"]


def test_two_students_who_had_met_in_one_name_are_told_apart(tmp_path: Path) -> None:
    path = restored(tmp_path, "0005")
    connection = sqlite3.connect(path)
    connection.execute("INSERT INTO students (id, created_at) VALUES (2, '2026-01-01 00:00:00')")
    connection.execute(
        "INSERT INTO student_revisions (owner_id, number, content, saved_at)"
        " SELECT 2, 1, content, saved_at FROM student_revisions WHERE owner_id = 1"
    )
    connection.commit()
    connection.close()
    with Database(tmp_path).reading() as session:
        assert [each.student.name for each in Students(session).every()] == ["Mira", "Mira 2"]


def test_a_newer_file_is_refused_in_a_sentence_and_not_touched(tmp_path: Path) -> None:
    database = Database(tmp_path)
    database.close()
    connection = sqlite3.connect(database.path)
    connection.execute("UPDATE alembic_version SET version_num = '9999'")
    connection.commit()
    with pytest.raises(StoreError, match="written by a newer Clear Steps"):
        Database(tmp_path)
    assert connection.execute("SELECT version_num FROM alembic_version").fetchone() == ("9999",)


def test_content_of_a_newer_schema_is_told_and_not_read(tmp_path: Path) -> None:
    restored(tmp_path, "0005")
    database = Database(tmp_path)
    connection = sqlite3.connect(database.path)
    connection.execute("UPDATE student_revisions SET schema = 99")
    connection.commit()
    with database.reading() as session, pytest.raises(StoreError, match="newer Clear Steps"):
        Students(session).get(1)
    with database.reading() as session, pytest.raises(NotFoundError):
        Students(session).get(7)
