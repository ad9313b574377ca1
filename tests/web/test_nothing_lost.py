"""Nothing lost, nothing twice: put away and brought back, sent twice, old data in new code."""

import json
import threading
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from sqlalchemy import event, text

from clear_steps.core.grade import Modifier
from clear_steps.ladders import default_ladder_json
from clear_steps.store import Database, KeptAnswers
from clear_steps.web.app import create_app
from clear_steps.web.songs import cards
from clear_steps.web.workers import Here
from tests.store.test_old_files import restored
from tests.web.test_api import TAB, add
from tests.web.test_versions_api import BENDS, finished


def test_a_song_is_put_away_and_brought_back(client: FlaskClient) -> None:
    song = add(client)
    assert client.put(f"/api/songs/{song}/away", json={"away": True}).status_code == 204
    assert client.get("/api/songs").json["songs"][0]["put_away"]
    assert client.get(f"/api/songs/{song}").json["put_away"]
    assert client.put(f"/api/songs/{song}/away", json={"away": False}).status_code == 204
    assert not client.get("/api/songs").json["songs"][0]["put_away"]
    assert client.put("/api/songs/9/away", json={"away": True}).status_code == 404


def test_a_draft_sent_twice_is_one_song(client: FlaskClient) -> None:
    body = {"text": TAB, "draft": "a1"}
    assert [client.post("/api/songs", json=body).status_code for _ in range(2)] == [201, 200]
    assert len(client.get("/api/songs").json["songs"]) == 1


def test_a_wish_sent_twice_is_one_version_while_it_is_searched_for_and_after(client: FlaskClient) -> None:
    song = add(client, BENDS)
    jobs = [client.post(f"/api/songs/{song}/versions", json={"target": 4}).json for _ in range(2)]
    first = finished(client, jobs[0])["version_id"]
    assert finished(client, jobs[1])["version_id"] == first
    client.put(f"/api/versions/{first}/away", json={"away": True})
    again = client.post(f"/api/songs/{song}/versions", json={"target": 4}).json
    assert finished(client, again)["version_id"] == first
    assert not client.get(f"/api/versions/{first}").json["put_away"]
    assert len(client.get(f"/api/songs/{song}/versions").json["versions"]) == 1
    other = client.post(f"/api/songs/{song}/versions", json={"target": 4, "approach": "melody"}).json
    assert finished(client, other)["version_id"] != first


def test_refusals_that_meet_are_answered_and_never_an_error_of_ours(client: FlaskClient) -> None:
    song = add(client, BENDS)
    version = finished(client, client.post(f"/api/songs/{song}/versions", json={"target": 4}).json)[
        "version_id"
    ]
    path, body = f"/api/versions/{version}/choice", {"based_on": 0, "refused": [1]}
    app, statuses = client.application, []

    def choose() -> None:
        statuses.append(app.test_client().put(path, json=body).status_code)

    threads = [threading.Thread(target=choose) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(statuses) == [200, 409, 409, 409]


@pytest.mark.parametrize("revision", ["0003", "0004", "0005"])
def test_a_ladder_from_before_a_measure_and_a_technique_grades_and_says_what_was_added(
    tmp_path: Path, revision: str
) -> None:
    restored(tmp_path, revision)
    client = create_app(Database(tmp_path)).test_client()
    assert client.get("/api/songs").json["songs"][0]["grade"]["step"] >= 1
    assert client.get("/api/songs/1").json["analysis"]["ladder"] == "Mine"
    screen = client.get("/api/ladder").json
    curves = ["free time", "beat time", "independence"]
    assert screen["filled"] == [*curves, "rake", *Modifier, "strum patterns", "chord shapes"]
    assert client.get("/api/songs/1/versions").status_code == 200
    saved = client.post("/api/ladders/1/revisions", json={"based_on": 1, "ladder": screen["ladder"]}).json
    assert saved["filled"] == []


def test_a_song_whose_text_cannot_be_read_any_more_does_not_hide_the_others(
    client: FlaskClient, tmp_path: Path
) -> None:
    add(client), add(client)
    database: Database = client.application.extensions["clear_steps_database"]
    with database.session() as session:
        session.execute(text("UPDATE revisions SET text = 'nothing' WHERE song_id = 1"))
    first, second = client.get("/api/songs").json["songs"]
    assert (first["grade"], "no tab was found" in first["problem"]) == (None, True)
    assert second["grade"]["step"] >= 1


class Counting(Here):
    def __init__(self) -> None:
        self.texts: list[object] = []

    def run(self, work, *values, **how):  # type: ignore[no-untyped-def]
        self.texts.append(values[0])
        return work(*values)


def test_every_song_is_graded_once_and_kept_over_a_restart(tmp_path: Path) -> None:
    database, counting = Database(tmp_path), Counting()
    client = create_app(database, workers=counting).test_client()
    for number in range(3):
        add(client, TAB.replace("Porch", f"Porch {number}"))
    counting.texts.clear()
    first = client.get("/api/songs").json
    assert (len(counting.texts), first["waiting"]) == (3, 0)
    assert client.get("/api/songs").json == first
    database.close()
    again = create_app(Database(tmp_path), workers=counting).test_client()
    assert again.get("/api/songs").json == first
    assert len(counting.texts) == 3
    ladder = json.loads(default_ladder_json()) | {"name": "Other"}
    again.post("/api/ladders", json={"ladder": ladder})
    again.get("/api/songs")
    assert len(counting.texts) == 6


def test_many_songs_are_graded_behind_the_page_with_what_is_left_told(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(cards, "AT_ONCE", 1)
    for number in range(3):
        add(client, TAB.replace("Porch", f"Porch {number}"))
    first = client.get("/api/songs").json
    assert first["waiting"] == 3
    assert all(song["grade"] is None for song in first["songs"])
    client.application.extensions["clear_steps_cards"]._thread.join(20)
    assert client.get("/api/songs").json["waiting"] == 0


def test_what_another_state_of_the_program_graded_is_graded_anew(tmp_path: Path) -> None:
    database = Database(tmp_path)
    with database.session() as session:
        KeptAnswers(session, "card", "other").keep([("key", "{}")])
    with database.session() as session:
        assert KeptAnswers(session, "card", "this").every() == {}
        KeptAnswers(session, "card", "this").forget_others()
        assert KeptAnswers(session, "card", "other").every() == {}


def test_a_full_disk_is_said_and_stores_nothing(client: FlaskClient) -> None:
    song = add(client)
    database: Database = client.application.extensions["clear_steps_database"]
    with database._engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
    database.close()
    limit = f"PRAGMA max_page_count = {pages}"
    event.listen(database._engine, "connect", lambda connection, _: connection.execute(limit))
    long = TAB + "\n" + "a remark\n" * 5000
    answer = client.post(f"/api/songs/{song}/revisions", json={"based_on": 1, "text": long})
    assert (answer.status_code, answer.json["code"]) == (507, "no_room")
    assert "is full; nothing was stored" in answer.json["message"]
    assert client.get(f"/api/songs/{song}").json["revision"] == 1
