"""The API about places in a song, ladders and files."""

import base64
from pathlib import Path

from flask.testing import FlaskClient

from clear_steps.demo import demo_texts
from clear_steps.formats.musicxml import write_musicxml
from clear_steps.formats.tabtext import read_tab
from clear_steps.store import Database
from clear_steps.web.app import create_app

TEXT = demo_texts()[0]
STRINGS = "".join(f"{name}|{'-' * 16}|\n" for name in "eBGDA") + "E|"


def add(client: FlaskClient, text: str = TEXT) -> int:
    return int(client.post("/api/songs", json={"text": text}).json["id"])


def test_an_alternative_is_pinned_in_a_new_revision(client: FlaskClient) -> None:
    song = add(client)
    found = client.post(f"/api/songs/{song}/alternatives", json={"first": 0, "last": 0}).json
    ways = found["alternatives"]
    assert ways[0]["title"] == "As written"
    assert "|" in ways[1]["tab"]
    saved = client.post(
        f"/api/songs/{song}/revisions", json={"based_on": found["revision"], "text": ways[1]["text"]}
    )
    assert saved.status_code == 201
    notes = [
        note
        for event in saved.json["analysis"]["parts"][0]["bars"][0]["events"]
        for note in event["notes"]
        if note["fret"]
    ]
    assert all(note["finger_pinned"] for note in notes)
    assert saved.json["analysis"]["parts"][0]["bars"][0]["step"] == ways[1]["step"]
    too_long = client.post(f"/api/songs/{song}/alternatives", json={"first": 0, "last": 99})
    assert too_long.status_code == 422
    assert "passage" in too_long.json["message"]


def test_ways_and_changes_are_found_for_some_notes_alone(client: FlaskClient) -> None:
    song = add(client)
    notes = {"first": 0, "last": 0, "first_event": 0, "last_event": 1}
    ways = client.post(f"/api/songs/{song}/alternatives", json=notes).json["alternatives"]
    whole = client.post(f"/api/songs/{song}/alternatives", json={"first": 0, "last": 0}).json["alternatives"]
    assert ways[1]["tab"] != whole[1]["tab"]
    changes = client.get(f"/api/songs/{song}/changes", query_string=notes).json["changes"]
    wish = {**notes, "kind": changes[0]["kind"], "says": changes[0]["says"]}
    made = client.post(f"/api/songs/{song}/changes", json=wish).json
    before, after = (made[side]["parts"][0]["bars"][0]["events"] for side in ("original", "version"))
    assert [event["notes"] for event in before[2:]] == [event["notes"] for event in after[-len(before[2:]) :]]
    wrong = client.get(f"/api/songs/{song}/changes", query_string={**notes, "last_event": 99})
    assert wrong.status_code == 422


def test_readings_are_begun_and_put_in_use_as_revisions(client: FlaskClient) -> None:
    song = add(client)
    begun = client.post(f"/api/songs/{song}/readings", json={"based_on": 1, "bar": 2, "name": "live"}).json
    assert [(row["name"], row["in_use"]) for row in begun["analysis"]["parts"][0]["readings"]] == [
        ("as first written", False),
        ("live", True),
    ]
    used = client.post(
        f"/api/songs/{song}/readings/use", json={"based_on": 2, "bar": 2, "name": "as first written"}
    ).json
    assert used["revision"] == 3
    assert [row["name"] for row in used["analysis"]["parts"][0]["readings"] if row["in_use"]] == [
        "as first written"
    ]
    stale = client.post(f"/api/songs/{song}/readings", json={"based_on": 1, "bar": 2, "name": "third"})
    assert stale.status_code == 409


def test_a_tapped_tempo_changes_one_line_of_the_text(client: FlaskClient) -> None:
    song = add(client)
    desk = client.post(f"/api/songs/{song}/tempo", json={"based_on": 1, "tempo": 81}).json
    assert desk["analysis"]["marked_tempo"] == 81
    assert not desk["analysis"]["tempo_assumed"]
    differing = [(a, b) for a, b in zip(TEXT.split("\n"), desk["text"].split("\n"), strict=True) if a != b]
    assert differing == [("Tempo: 72", "Tempo: 81")]


def test_a_step_of_the_teachers_own_stands_beside_and_its_difference_is_listed(client: FlaskClient) -> None:
    song = add(client)
    assert client.get("/api/differences").json == {"differences": [], "waiting": 0, "not_graded": []}
    desk = client.put(f"/api/songs/{song}/own-step", json={"based_on": 0, "part_index": 0, "step": 2.5}).json
    assert desk["own_steps"] == [{"part_index": 0, "number": 1, "step": 2.5}]
    row = client.get("/api/differences").json["differences"][0]
    assert (row["own"], row["measure"] != "") == (2.5, True)
    assert client.get("/api/songs").json["songs"][0]["own_step"] == 2.5
    stale = client.put(f"/api/songs/{song}/own-step", json={"based_on": 0, "part_index": 0, "step": 3})
    assert (stale.status_code, "your own Step is based on" in stale.json["message"]) == (409, True)
    back = client.put(f"/api/songs/{song}/own-step", json={"based_on": 1, "part_index": 0, "step": None}).json
    assert back["own_steps"] == [{"part_index": 0, "number": 2, "step": None}]


def test_a_copied_ladder_grades_and_the_shipped_one_comes_back(client: FlaskClient) -> None:
    song = add(client)
    before = client.get(f"/api/songs/{song}").json["analysis"]
    screen = client.get("/api/ladder").json
    assert screen["id"] is None
    assert len(screen["rungs"]) == 10
    ladder = screen["ladder"] | {"name": "Studio", "own_techniques": [{"name": "harp", "step": 5}]}
    for curve in ladder["curves"]:
        if curve["curve"] == "shift":
            curve["points"] = [[0.1, 5], [0.2, 9], [1, 10]]
    tried = client.post("/api/ladder/preview", json={"ladder": ladder}).json["songs"][0]
    assert tried["step_then"] > tried["step"] + 0.5
    assert client.get(f"/api/songs/{song}").json["analysis"]["ladder"] == before["ladder"], (
        "a preview stores nothing"
    )
    stored = client.post("/api/ladders", json={"ladder": ladder}).json
    after = client.get(f"/api/songs/{song}").json["analysis"]
    assert after["ladder"] == "Studio"
    assert after["parts"][0]["step"] == tried["step_then"]
    again = client.post(
        f"/api/ladders/{stored['id']}/revisions",
        json={"based_on": 1, "ladder": ladder | {"name": "Studio 2"}},
    )
    assert again.json["revision"] == 2
    assert (
        client.post(
            f"/api/ladders/{stored['id']}/revisions", json={"based_on": 1, "ladder": ladder}
        ).status_code
        == 409
    )
    client.put("/api/ladder/choice", json={"ladder_id": None})
    assert client.get(f"/api/songs/{song}").json["analysis"] == before


def test_a_ladder_that_cannot_grade_is_refused(client: FlaskClient) -> None:
    ladder = client.get("/api/ladder").json["ladder"]
    ladder["curves"][0]["points"] = [[1, 5], [0.5, 6]]
    answer = client.post("/api/ladders", json={"ladder": ladder})
    assert answer.status_code == 422
    assert "rise" in answer.json["message"]
    assert client.get("/api/ladder").json["ladders"] == []


def encoded(content: bytes) -> str:
    return base64.b64encode(content).decode()


def test_a_file_is_looked_at_before_anything_is_stored(client: FlaskClient) -> None:
    content = write_musicxml(read_tab(TEXT).song)
    found = client.post(
        "/api/imports", json={"name": "song.musicxml", "content_base64": encoded(content)}
    ).json
    assert found["read"]
    assert "Tuning: drop D" in found["text"]
    assert client.get("/api/songs").json["songs"] == []
    refused = client.post(
        "/api/imports", json={"name": "song.musicxml", "content_base64": encoded(b"<score-partwise>")}
    )
    assert refused.status_code == 422
    assert "well-formed" in refused.json["message"]
    assert (
        client.post("/api/imports", json={"name": "a.exe", "content_base64": encoded(b"MZ")}).status_code
        == 422
    )
    assert client.post("/api/imports", json={"name": "a.tab", "content_base64": "%%%"}).status_code == 422


def test_a_song_leaves_as_a_file(client: FlaskClient) -> None:
    song = add(client)
    assert client.get(f"/api/songs/{song}/file.tab").data.decode() == TEXT
    assert client.get(f"/api/songs/{song}/file.mid").data[:4] == b"MThd"
    answer = client.get(f"/api/songs/{song}/file.musicxml")
    assert b"<score-partwise" in answer.data
    assert "attachment" in answer.headers["Content-Disposition"]
    assert client.get(f"/api/songs/{song}/file.exe").status_code == 422


def test_a_students_habits_change_the_fingering(client: FlaskClient) -> None:
    player = client.post(
        "/api/students", json={"name": "Ines", "span_mm": 90, "little_finger": "avoided", "thumb_over": True}
    ).json
    assert (player["little_finger"], player["thumb_over"]) == ("avoided", True)
    song = add(client)
    desk = client.get(f"/api/songs/{song}?span_mm=90&little_finger=avoided").json
    fingers = [
        note["finger"]
        for bar in desk["analysis"]["parts"][0]["bars"]
        for event in bar["events"]
        for note in event["notes"]
    ]
    assert fingers.count("4") < 3


def test_two_databases_in_one_process_do_not_share_a_ladder(client: FlaskClient, tmp_path: Path) -> None:
    ladder = client.get("/api/ladder").json["ladder"]
    client.post("/api/ladders", json={"ladder": ladder | {"name": "Here"}})
    song = add(client)
    other = Database(tmp_path / "elsewhere")
    there = create_app(other).test_client()
    there.post("/api/ladders", json={"ladder": ladder | {"name": "There"}})
    assert client.get(f"/api/songs/{song}").json["analysis"]["ladder"] == "Here"
    assert there.get(f"/api/songs/{add(there)}").json["analysis"]["ladder"] == "There"
    other.close()


ARPEGGIO = """Title: Lamps
Tempo: 90
Time: 4/4
Tuning: standard

len|e e e e e e e e |
  e|------0---------|
  B|----1---1-------|
  G|--0-------0---0-|
  D|------------2---|
  A|3---------------|
  E|----------------|
"""


def test_what_rings_unsaid_is_told_and_switched_off_and_on_again(client: FlaskClient) -> None:
    song = add(client, ARPEGGIO)
    part = client.get(f"/api/songs/{song}").json["analysis"]["parts"][0]
    assert part["guessed_ringing"] == ["Bar 1: the notes of the broken chord ring on to the change of grip."]
    off = client.post(f"/api/songs/{song}/ringing", json={"based_on": 1, "as_written": True})
    assert off.status_code == 201
    assert "Ringing: as written" in off.json["text"]
    part = off.json["analysis"]["parts"][0]
    assert (part["rings_as_written"], part["guessed_ringing"]) == (True, [])
    stale = client.post(f"/api/songs/{song}/ringing", json={"based_on": 1, "as_written": False})
    assert stale.status_code == 409
    on = client.post(f"/api/songs/{song}/ringing", json={"based_on": 2, "as_written": False}).json
    assert "Ringing" not in on["text"]
    assert on["analysis"]["parts"][0]["guessed_ringing"]


def test_nothing_easier_is_said_where_nothing_easier_was_found(client: FlaskClient) -> None:
    song = add(client, "Tempo: 80\nTuning: standard\n\nE|0-------0-------|\n".replace("E|", STRINGS))
    found = client.post(f"/api/songs/{song}/alternatives", json={"first": 0, "last": 0}).json
    assert found["nothing_easier"]
    assert len({way["title"] for way in found["alternatives"]}) == len(found["alternatives"])
