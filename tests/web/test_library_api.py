"""The library as one file, through the API: had, looked into, restored, undone; and the demo begun over."""

import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from clear_steps.core.easier import Progress
from clear_steps.store import Database
from clear_steps.store.backups import restore_directory
from clear_steps.store.marked import open_marked
from clear_steps.web.app import create_app
from clear_steps.web.versions.jobs import Jobs, Search
from tests.patience import comes_true, patience_s
from tests.web.test_api import TAB, add


@pytest.fixture
def demo(tmp_path: Path) -> Iterator[FlaskClient]:
    database = open_marked(tmp_path / "demo")
    yield create_app(database).test_client()
    database.close()


def titles(client: FlaskClient) -> list[str]:
    return [card["title"] for card in client.get("/api/songs").json["songs"]]


def given_back(client: FlaskClient, content: bytes, kind: str = "application/octet-stream"):  # type: ignore[no-untyped-def]
    return client.post("/api/library/backups", data=content, content_type=kind)


def restored(client: FlaskClient) -> None:
    name = given_back(client, client.get("/api/library/backup").data).json["name"]
    assert client.post("/api/library/restored", json={"name": name}).status_code == 200


def begun_over(client: FlaskClient) -> None:
    assert client.post("/api/library/begun-over").status_code == 200


def test_a_backup_is_had_looked_into_restored_and_undone(client: FlaskClient) -> None:
    add(client)
    backup = client.get("/api/library/backup")
    assert "attachment" in backup.headers["Content-Disposition"]
    add(client, TAB.replace("Porch", "Lantern"))
    found = given_back(client, backup.data)
    assert (found.status_code, found.json["songs"]) == (201, 1)
    assert titles(client) == ["Lantern", "Porch"]  # looked into only
    kept = client.post("/api/library/restored", json={"name": found.json["name"]}).json["kept"]
    assert titles(client) == ["Porch"]
    assert client.get("/api/library/contents", query_string={"name": kept}).json["songs"] == 2
    client.post("/api/library/restored", json={"name": kept})
    assert titles(client) == ["Lantern", "Porch"]


def test_of_backups_that_were_opened_the_last_is_kept(client: FlaskClient) -> None:
    backup = client.get("/api/library/backup").data
    names = [given_back(client, backup).json["name"] for _ in range(3)]
    kept = [copy["name"] for copy in client.get("/api/library").json["copies"]]
    assert kept == names[-1:]


@pytest.mark.parametrize("replace", [restored, begun_over])
def test_a_search_under_way_stores_nothing_in_what_is_put_in_its_place(
    demo: FlaskClient,
    replace,  # type: ignore[no-untyped-def]
) -> None:
    goes_on, stored = threading.Event(), []

    def found(_progress: Progress) -> str:
        assert goes_on.wait(patience_s(10))
        return "a version"

    def store(version: str) -> int:
        stored.append(version)
        return 1

    jobs: Jobs = demo.application.extensions["clear_steps_jobs"]
    job = jobs.start("what is replaced", Search(found, store))
    replace(demo)
    goes_on.set()
    assert comes_true(lambda: job.state == "stopped")
    assert not stored


def test_a_file_that_is_no_backup_is_refused_and_not_kept(client: FlaskClient) -> None:
    add(client)
    answer = given_back(client, b"years of work" * 100)
    assert (answer.status_code, answer.json["code"]) == (422, "no_backup")
    assert "this file is damaged, or no database" in answer.json["message"]
    assert client.get("/api/library").json["copies"] == []
    assert given_back(client, b"x", "text/plain").status_code == 415
    assert client.post("/api/library/restored", json={"name": "../clear-steps.sqlite3"}).status_code == 404


def test_an_own_library_takes_the_demo_songs_once_and_is_never_begun_over(client: FlaskClient) -> None:
    add(client)
    assert client.post("/api/library/demo-songs").json == {"songs": 6}
    assert client.post("/api/library/demo-songs").json == {"songs": 0}
    cards = client.get("/api/songs").json["songs"]
    assert {card["title"] for card in cards if not card["is_demo"]} == {"Porch"}
    assert client.post("/api/library/begun-over").status_code == 422
    assert len(titles(client)) == 7


def test_the_demo_begins_over_and_that_is_undone(demo: FlaskClient) -> None:
    demo.post("/api/library/demo-songs")
    add(demo)
    kept = demo.post("/api/library/begun-over").json["kept"]
    assert "Porch" not in titles(demo)
    assert demo.get("/api/library").json["is_demo"]
    demo.post("/api/library/restored", json={"name": kept})
    assert "Porch" in titles(demo)


def test_a_library_that_is_taken_away_takes_no_saves_and_says_so(tmp_path: Path) -> None:
    database = Database(tmp_path)
    client = create_app(database).test_client()
    add(client)
    database.path.unlink()
    answer = client.post("/api/songs", json={"text": TAB.replace("Porch", "Lantern")})
    assert (answer.status_code, answer.json["code"]) == (503, "file_gone")
    assert "copy it, put the file back and start again" in answer.json["message"]


def everything(client: FlaskClient) -> dict[str, bytes]:
    """Every song, version, student and lesson as the API gives it, and every file of a song."""
    songs = [card["id"] for card in client.get("/api/songs").json["songs"]]
    paths = ["students", *(f"students/{number}/songs" for number in (1, 2, 3))]
    for song in songs:
        paths += [
            f"songs/{song}{end}" for end in ("", "/revisions", "/lesson", "/sheet", "/versions", "/groups")
        ]
        paths += [f"songs/{song}/file.{ending}" for ending in ("tab", "musicxml", "mid", "json")]
        listed = client.get(f"/api/songs/{song}/versions").json["versions"]
        paths += [f"versions/{each['id']}" for each in listed]
    return {path: client.get(f"/api/{path}").data for path in paths}


def test_what_is_restored_into_an_empty_directory_is_the_same_to_the_byte(
    demo: FlaskClient, tmp_path: Path
) -> None:
    demo.post("/api/library/demo-songs")
    demo.post("/api/songs/1/groups", json={"name": "Thursday", "seats": [{"who": "Mira", "student_id": 1}]})
    demo.put("/api/songs/1/own-step", json={"part_index": 0, "based_on": 0, "step": 4.0})
    demo.put("/api/versions/1/choice", json={"based_on": 0, "refused": [1]})
    backup = tmp_path / "backup.sqlite3"
    backup.write_bytes(demo.get("/api/library/backup").data)
    assert restore_directory(tmp_path / "empty", backup) is None
    restored = Database(tmp_path / "empty")
    before = everything(demo)
    assert len(before) > 60
    assert everything(create_app(restored).test_client()) == before
    restored.close()
