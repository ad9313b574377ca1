"""Everything as one file, and back: nothing is lost on the way, and what cannot be restored says why."""

import sqlite3
from contextlib import closing
from datetime import datetime, timedelta
from pathlib import Path

import pytest

from clear_steps.demo import begin_over, seed
from clear_steps.store import Database, KeptAnswers, Songs, Student, Students, backups, copies
from clear_steps.store.backups import (
    DAYS_KEPT,
    contents_of,
    copy_named,
    keep_daily_copy,
    restore,
    restore_directory,
    write_backup,
)
from clear_steps.store.copies import CopyKind, kept_copies, looking_into
from clear_steps.store.database import FILE_NAME
from clear_steps.store.errors import FileGoneError, NoBackupError, NoRoomError, NotFoundError, StoreError
from clear_steps.store.lock import DataLock
from clear_steps.store.marked import is_marked, open_marked


@pytest.fixture
def database(tmp_path: Path) -> Database:
    opened = Database(tmp_path / "own")
    write(opened, "Porch")
    return opened


def write(database: Database, title: str) -> None:
    with database.session() as session:
        Songs(session).add(title, f"{title} as typed")


def titles(database: Database) -> list[str]:
    with database.reading() as session:
        return [song.latest.title for song in Songs(session).every()]


def test_a_restore_replaces_everything_keeps_what_stood_there_and_is_undone(
    database: Database, tmp_path: Path
) -> None:
    backup = write_backup(database, tmp_path / "backup.sqlite3")
    write(database, "Lantern")
    kept = restore(database, backup)
    assert titles(database) == ["Porch"]
    restore(database, kept)
    assert titles(database) == ["Lantern", "Porch"]


def test_what_can_be_made_again_is_not_in_a_backup(database: Database, tmp_path: Path) -> None:
    with database.session() as session:
        KeptAnswers(session, "card", "mark").keep([("key", "answer")])
    with looking_into(write_backup(database, tmp_path / "backup.sqlite3")) as connection:
        assert connection.execute("SELECT count(*) FROM kept_answers").fetchone() == (0,)


def test_a_backup_has_its_name_only_when_all_of_it_is_done(
    database: Database, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def full(_copy: sqlite3.Connection) -> None:
        raise sqlite3.OperationalError("database or disk is full")

    monkeypatch.setattr(copies, "_without_kept_answers", full)
    with pytest.raises(NoRoomError):
        write_backup(database, tmp_path / "backup.sqlite3")
    assert not list(tmp_path.glob("backup*"))


def test_a_backup_says_what_is_in_it(database: Database, tmp_path: Path) -> None:
    with database.session() as session:
        Students(session).add(Student("Ilka"))
    found = contents_of(write_backup(database, tmp_path / "backup.sqlite3"))
    assert (found.songs, found.versions, found.students) == (1, 0, 1)
    assert found.newest is not None


def not_a_database(path: Path) -> None:
    path.write_bytes(b"something else altogether" * 400)


def of_another_program(path: Path) -> None:
    with closing(sqlite3.connect(path)) as connection:
        connection.execute("CREATE TABLE songs (id INTEGER)")


def cut_short(path: Path) -> None:
    path.write_bytes(path.read_bytes()[:20_000])


def of_a_newer_program(path: Path) -> None:
    with closing(sqlite3.connect(path)) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
        connection.commit()


def with_a_trigger(path: Path) -> None:
    with closing(sqlite3.connect(path)) as connection:
        connection.execute("CREATE TRIGGER forget AFTER INSERT ON songs BEGIN DELETE FROM revisions; END")


@pytest.mark.parametrize(
    ("spoil", "words"),
    [
        (not_a_database, "is damaged, or no database"),
        (of_another_program, "is no backup of Clear Steps"),
        (cut_short, "is damaged"),
        (of_a_newer_program, "was written by a newer Clear Steps"),
        (with_a_trigger, "its tables are not those of a backup"),
    ],
    ids=lambda value: getattr(value, "__name__", ""),
)
def test_a_file_that_is_no_sound_backup_is_refused_and_changes_nothing(
    database: Database,
    tmp_path: Path,
    spoil,  # type: ignore[no-untyped-def]
    words: str,
) -> None:
    backup = tmp_path / "backup.sqlite3"
    if spoil not in (not_a_database, of_another_program):
        write_backup(database, backup)
    spoil(backup)
    for attempt in (
        lambda: contents_of(backup),
        lambda: restore(database, backup),
        lambda: restore_directory(tmp_path / "other", backup),
    ):
        with pytest.raises(NoBackupError, match=words):
            attempt()
    assert titles(database) == ["Porch"]
    assert not (tmp_path / "other" / FILE_NAME).exists()


def test_a_backup_of_an_earlier_program_is_brought_up_to_date(database: Database, tmp_path: Path) -> None:
    old = tmp_path / "old.sqlite3"
    with closing(sqlite3.connect(old)) as connection:
        connection.executescript((Path(__file__).parents[1] / "data/stored/0003.sql").read_text())
    restore(database, old)
    assert titles(database) == ["Flour sacks"]


def test_a_copy_a_day_is_kept_where_something_changed_the_last_seven(
    database: Database, monkeypatch: pytest.MonkeyPatch
) -> None:
    day = datetime(2031, 3, 1, 18)
    for number in range(DAYS_KEPT + 2):
        monkeypatch.setattr(backups, "now", lambda day=day + timedelta(days=number): day)
        write(database, f"Song {number}")
        assert keep_daily_copy(database) is not None
        assert keep_daily_copy(database) is None  # nothing changed since
    monkeypatch.setattr(backups, "now", lambda: day + timedelta(days=30))
    assert keep_daily_copy(database) is None
    names = [copy.name for copy in kept_copies(database.path)]
    assert sorted(names) == [f"{CopyKind.DAILY}/2031-03-{day:02}.sqlite3" for day in range(3, 10)]
    assert contents_of(copy_named(database.path, max(names))).songs == DAYS_KEPT + 3


def test_of_one_day_the_latest_state_is_kept(database: Database) -> None:
    keep_daily_copy(database)
    write(database, "Lantern")
    copy = keep_daily_copy(database)
    assert copy
    assert contents_of(copy_named(database.path, copy.name)).songs == 2
    assert len(kept_copies(database.path)) == 1


def test_a_copy_is_asked_for_by_a_name_that_is_listed(database: Database) -> None:
    with pytest.raises(NotFoundError):
        copy_named(database.path, f"../{database.path.name}")


def test_the_mark_stays_with_the_place_not_with_the_backup(database: Database, tmp_path: Path) -> None:
    demo = open_marked(tmp_path / "demo")
    seed(demo)
    restore(demo, write_backup(database, tmp_path / "own.sqlite3"))
    restore(database, write_backup(demo, tmp_path / "demos.sqlite3"))
    assert (is_marked(demo), is_marked(database)) == (True, False)


def test_a_demo_begun_over_can_be_had_back(tmp_path: Path) -> None:
    demo = open_marked(tmp_path / "demo")
    seed(demo)
    fresh = titles(demo)
    write(demo, "Lantern")
    kept = begin_over(demo)
    assert titles(demo) == fresh
    restore(demo, kept)
    assert titles(demo) == sorted([*fresh, "Lantern"])


def test_demo_songs_are_put_in_once(database: Database) -> None:
    assert seed(database) == 6
    with database.session() as session:
        song = Songs(session).get(2)
        Songs(session).save(2, 1, "Another title", song.latest.text)
    assert seed(database) == 0
    assert len(titles(database)) == 7


@pytest.mark.parametrize("name", ["100 %", "50%20off", "what?", "a#b", "ümlaut & space", "%s"])
def test_any_name_of_a_directory_is_that_directory(tmp_path: Path, name: str) -> None:
    database = Database(tmp_path / name)
    write(database, "Porch")
    backup = write_backup(database, tmp_path / name / "backup.sqlite3")
    restore(database, backup)
    keep_daily_copy(database)
    database.close()
    assert [each.name for each in tmp_path.iterdir()] == [name]
    assert (tmp_path / name / FILE_NAME).is_file()
    assert titles(Database(tmp_path / name)) == ["Porch"]
    demo = open_marked(tmp_path / f"{name} demo")
    assert is_marked(demo)


def moved_away(path: Path) -> None:
    path.rename(path.with_name("elsewhere"))


def removed(path: Path) -> None:
    path.unlink()


def replaced(path: Path) -> None:
    Database(path.parent / "new").close()
    (path.parent / "new" / FILE_NAME).replace(path)


@pytest.mark.parametrize("away", [moved_away, removed, replaced])
def test_a_save_into_a_file_that_is_gone_is_never_acknowledged(database: Database, away) -> None:  # type: ignore[no-untyped-def]
    away(database.path)
    with pytest.raises(FileGoneError, match="was taken away or replaced"), database.session() as session:
        Songs(session).add("Lantern", "typed after")
    (rescued,) = kept_copies(database.path)
    other = Database(database.path.parent / "other")
    restore(other, database.path.parent / rescued.name)
    assert titles(other) == ["Porch"]


def test_a_file_that_goes_while_saving_is_told(database: Database) -> None:
    def saved() -> None:
        with database.session() as session:
            Songs(session).add("Lantern", "typed")
            removed(database.path)

    with pytest.raises(FileGoneError):
        saved()


def test_a_file_that_comes_back_takes_saves_again(database: Database) -> None:
    moved_away(database.path)
    with pytest.raises(FileGoneError):
        write(database, "Lantern")
    database.path.with_name("elsewhere").rename(database.path)
    write(database, "Lantern")
    assert titles(database) == ["Lantern", "Porch"]


def test_one_directory_is_served_once(tmp_path: Path) -> None:
    lock = DataLock(tmp_path, "Clear Steps at http://127.0.0.1:8420")
    with pytest.raises(StoreError, match=r"in use by Clear Steps at http://127\.0\.0\.1:8420"):
        DataLock(tmp_path, "Clear Steps at http://127.0.0.1:9000")
    with pytest.raises(StoreError, match="in use"):
        restore_directory(tmp_path, write_backup(Database(tmp_path / "b"), tmp_path / "b.sqlite3"))
    lock.release()
    DataLock(tmp_path, "Clear Steps at http://127.0.0.1:9000").release()


def test_a_damaged_library_names_its_copies_and_is_restored_from_one(tmp_path: Path) -> None:
    database = Database(tmp_path)
    write(database, "Porch")
    copy = keep_daily_copy(database)
    database.close()
    (tmp_path / FILE_NAME).write_bytes(b"no database, but long enough to be looked into" * 100)
    assert copy
    with pytest.raises(StoreError, match=copy.name):
        Database(tmp_path)
    kept = restore_directory(tmp_path, tmp_path / copy.name)
    assert kept
    assert kept.read_bytes().startswith(b"no database")
    assert titles(Database(tmp_path)) == ["Porch"]
