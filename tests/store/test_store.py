"""Every save is a revision; nothing is overwritten, nothing half stored."""

import sqlite3
from pathlib import Path

import pytest

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.hand import Player
from clear_steps.store import Database, NotFoundError, Players, Songs, StaleRevisionError


@pytest.fixture
def database(tmp_path: Path) -> Database:
    return Database(tmp_path)


def test_saving_adds_a_revision_and_keeps_the_old_one(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
        Songs(session).save(song.id, 1, "Porch", "two")
    with database.session() as session:
        assert [(revision.number, revision.text) for revision in Songs(session).revisions(song.id)] == [(1, "one"), (2, "two")]
        assert Songs(session).get(song.id).latest.text == "two"


def test_a_stale_save_is_refused_and_changes_nothing(database: Database) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
        Songs(session).save(song.id, 1, "Porch", "two")
    with pytest.raises(StaleRevisionError, match="revision 2 has been saved since"), database.session() as session:
        Songs(session).save(song.id, 1, "Porch", "three")
    with database.session() as session:
        assert [revision.text for revision in Songs(session).revisions(song.id)] == ["one", "two"]


def test_two_saves_at_once_give_one_revision(database: Database, monkeypatch: pytest.MonkeyPatch) -> None:
    with database.session() as session:
        song = Songs(session).add("Porch", "one")
        Songs(session).save(song.id, 1, "Porch", "two")
    monkeypatch.setattr(Songs, "_latest", lambda self, song_id: song.latest)  # as read before the other was stored
    with pytest.raises(StaleRevisionError), database.session() as session:
        Songs(session).save(song.id, 1, "Porch", "other")
    with database.session() as session:
        assert [revision.text for revision in Songs(session).revisions(song.id)] == ["one", "two"]


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


def test_players_have_names_of_their_own_and_possible_hands(database: Database) -> None:
    with database.session() as session:
        players = Players(session)
        mira = players.add(" Mira  Holt ", Player(95))
        assert mira.name == "Mira Holt"
        with pytest.raises(InvalidValueError, match="no other player"):
            players.add("Mira Holt", Player(100))
        with pytest.raises(InvalidValueError, match="40 to 200 mm"):
            players.add("Giant", Player(400))
        assert players.change(mira.id, "Mira Holt", Player(99)).player.span_mm == 99


def test_an_existing_file_is_opened_again_in_wal_mode(database: Database) -> None:
    with database.session() as session:
        Songs(session).add("Porch", "one")
    database.close()
    again = Database(database.path.parent)
    with again.session() as session:
        assert len(Songs(session).every()) == 1
    assert sqlite3.connect(database.path).execute("PRAGMA journal_mode").fetchone() == ("wal",)
