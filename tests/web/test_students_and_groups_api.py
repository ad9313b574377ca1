"""Students with their limits, versions for them, and groups."""

from flask.testing import FlaskClient

from clear_steps.core.easier import LAYERS
from clear_steps.demo import demo_texts
from clear_steps.web.versions.schemas import LayerName
from tests.web.test_versions_api import add, finished

TOMKE = {
    "name": "Tomke",
    "span_mm": 78,
    "notes_per_second": 2.5,
    "unknown_techniques": ["bend_whole", "vibrato"],
    "hardest_shape": "no barre",
}


def test_a_student_is_kept_with_limits_and_a_taken_name_is_refused(client: FlaskClient) -> None:
    made = client.post("/api/students", json=TOMKE)
    assert made.status_code == 201
    assert client.get("/api/students").json["students"] == [made.json]
    again = client.post("/api/students", json=TOMKE)
    assert (again.status_code, again.json) == (200, made.json)
    other = client.post("/api/students", json={**TOMKE, "span_mm": 99})
    assert (other.status_code, "no other student" in other.json["message"]) == (409, True)
    changed = {**TOMKE, "span_mm": 80, "steps": {"rhythm": 3}, "based_on": 1}
    assert client.put("/api/students/1", json=changed).json["number"] == 2
    assert client.put("/api/students/1", json=changed).status_code == 409
    unknown = client.put("/api/students/1", json={**changed, "based_on": 2, "steps": {"volume": 3}})
    assert (unknown.status_code, "volume" in unknown.json["message"]) == (422, True)


def test_a_student_put_away_is_kept_and_can_be_brought_back(client: FlaskClient) -> None:
    client.post("/api/students", json=TOMKE)
    away = client.put("/api/students/1", json={**TOMKE, "put_away": True, "based_on": 1}).json
    assert (away["put_away"], away["number"]) == (True, 2)
    assert client.get("/api/students").json["students"] == [away]
    back = client.put("/api/students/1", json={**TOMKE, "based_on": 2}).json
    assert back == {**away, "put_away": False, "number": 3}


def version_for(client: FlaskClient, song: int, **wish: object) -> int:
    answer = client.post(f"/api/songs/{song}/versions", json=wish)
    assert answer.status_code == 202
    return int(str(finished(client, answer.json)["version_id"]))


def test_a_version_within_a_students_limits_says_for_whom_it_is(client: FlaskClient) -> None:
    song = add(client)
    client.post("/api/students", json=TOMKE)
    version = client.get(f"/api/versions/{version_for(client, song, target=10, student_id=1)}").json
    assert (version["student"], version["asked"]) == ("Tomke", "what Tomke can play")
    bends = [
        note["bend_half_tones"]
        for bar in version["version"]["parts"][0]["bars"]
        for event in bar["events"]
        for note in event["notes"]
    ]
    assert version["reached"]
    assert 2 not in bends
    assert any(
        "not known yet" in edit["reason"] or "notes a second" in edit["reason"] for edit in version["edits"]
    )
    # What the student could do then stays with the version, whatever is learnt later.
    client.put("/api/students/1", json={**TOMKE, "notes_per_second": 0.5, "based_on": 1})
    assert client.get(f"/api/versions/{version['id']}").json == version
    refused = client.put(
        f"/api/versions/{version['id']}/choice",
        json={"based_on": 0, "refused": [edit["id"] for edit in version["edits"]]},
    ).json
    assert not refused["reached"]
    assert client.post(f"/api/songs/{song}/versions", json={"target": 10, "student_id": 9}).status_code == 404


def test_every_layer_of_the_core_can_be_asked_for() -> None:
    assert set(LayerName.__args__) == {"", *LAYERS}  # type: ignore[attr-defined]


def test_parts_say_what_can_be_asked_of_them(client: FlaskClient) -> None:
    song = add(client, demo_texts()[2])
    parts = client.get(f"/api/songs/{song}/versions").json["parts"]
    assert [part["carries_the_tune"] for part in parts] == [False, True]
    together = version_for(client, song, target=10, layer="one guitar", part_index=1)
    assert client.get(f"/api/versions/{together}").json["asked"] == "the guitars as one part"
    alone = client.post(
        f"/api/songs/{song}/versions",
        json={"target": 10, "layer": "one guitar", "part_index": 0, "with_parts": []},
    ).json
    job = finished(client, alone)
    assert (job["state"], "two or more" in str(job["message"])) == ("failed", True)


def test_short_bars_are_filled_when_asked(client: FlaskClient) -> None:
    song = add(client, demo_texts()[5])
    (part,) = client.get(f"/api/songs/{song}/versions").json["parts"]
    version = client.get(f"/api/versions/{version_for(client, song, target=10, fill_short_bars=True)}").json
    filled = [edit["bars"][0] for edit in version["edits"] if edit["kind"] == "fill"]
    assert filled == part["short_bars"]


def test_a_note_is_changed_by_hand(client: FlaskClient) -> None:
    song = add(client)
    version_id = version_for(client, song, target=10)
    changed = client.put(
        f"/api/versions/{version_id}/bars/0/note", json={"event": 0, "string": 4, "fret": 2}
    ).json
    notes = changed["version"]["parts"][0]["bars"][0]["events"][0]["notes"]
    assert (4, 2) in [(note["string"], note["fret"]) for note in notes]
    assert [edit["kind"] for edit in changed["edits"]] == ["hand"]
    halved = client.put(f"/api/versions/{version_id}/bars/0/note", json={"event": 0, "halve": True}).json
    assert (
        len(halved["version"]["parts"][0]["bars"][0]["events"])
        == len(changed["version"]["parts"][0]["bars"][0]["events"]) + 1
    )
    refused = client.put(f"/api/versions/{version_id}/bars/0/note", json={"event": 0, "string": 8, "fret": 2})
    assert (refused.status_code, "string" in refused.json["message"]) == (422, True)
    assert (
        client.put(
            f"/api/versions/{version_id}/bars/99/note", json={"event": 0, "string": 1, "fret": 2}
        ).status_code
        == 422
    )


def test_a_bar_changed_by_hand_while_an_edit_was_refused_falls_when_that_one_is_taken_back(
    client: FlaskClient,
) -> None:
    song = add(client)
    version_id = version_for(client, song, target=4)
    first = client.get(f"/api/versions/{version_id}").json["edits"][0]
    bar = first["bars"][0] - 1
    client.put(f"/api/versions/{version_id}/choice", json={"based_on": 0, "refused": [first["id"]]})
    by_hand = client.put(
        f"/api/versions/{version_id}/bars/{bar}/note", json={"event": 0, "string": 3, "fret": 2}
    ).json
    assert not by_hand["edits"][-1]["refused"]
    back = client.put(f"/api/versions/{version_id}/choice", json={"based_on": 1, "refused": []}).json
    assert (back["edits"][-1]["refused"], back["edits"][-1]["refused_itself"]) == (True, False)
    assert "does not find the notes that it replaces" in back["edits"][-1]["reason"]
    assert (
        client.put(f"/api/versions/{version_id}/choice", json={"based_on": 2, "refused": [first["id"]]}).json[
            "tab"
        ]
        == by_hand["tab"]
    )


def test_a_version_is_put_away_and_brought_back(client: FlaskClient) -> None:
    song = add(client)
    version_id = version_for(client, song, target=10)
    assert client.put(f"/api/versions/{version_id}/away", json={"away": True}).json["put_away"]
    assert client.get(f"/api/songs/{song}/versions").json["versions"][0]["put_away"]
    assert not client.put(f"/api/versions/{version_id}/away", json={"away": False}).json["put_away"]


def test_a_group_plays_versions_and_the_original_together(client: FlaskClient) -> None:
    song = add(client)
    version_id = version_for(client, song, target=4)
    body = {
        "name": "Thursday group",
        "seats": [{"who": "Anselm"}, {"who": "Tomke", "version_id": version_id}],
    }
    made = client.post(f"/api/songs/{song}/groups", json=body)
    assert made.status_code == 201
    assert [(seat["who"], seat["plays"]) for seat in made.json["seats"]] == [
        ("Anselm", "the original"),
        ("Tomke", "asked for Step 4"),
    ]
    assert made.json["seats"][1]["step"] <= 4.05 < made.json["seats"][0]["step"]
    assert len({len(seat["part"]["bars"]) for seat in made.json["seats"]}) == 1
    group = made.json["id"]
    assert (
        client.put(f"/api/groups/{group}", json={**body, "name": "Friday group", "based_on": 1}).json[
            "number"
        ]
        == 2
    )
    assert client.put(f"/api/groups/{group}", json={**body, "based_on": 1}).status_code == 409
    assert client.get(f"/api/songs/{song}/groups").json["groups"] == [
        {"id": group, "name": "Friday group", "who": ["Anselm", "Tomke"]}
    ]
    assert client.get(f"/api/groups/{group}").json["name"] == "Friday group"


def test_a_seat_must_play_something_of_the_song(client: FlaskClient) -> None:
    song = add(client)
    for seat, status in (({"who": "A", "part_index": 3}, 422), ({"who": "A", "version_id": 77}, 404)):
        assert (
            client.post(f"/api/songs/{song}/groups", json={"name": "G", "seats": [seat]}).status_code
            == status
        )
    assert client.post(f"/api/songs/{song}/groups", json={"name": "G", "seats": []}).status_code == 422
    assert client.post("/api/songs/77/groups", json={"name": "G", "seats": [{"who": "A"}]}).status_code == 404
    assert client.get("/api/groups/5").status_code == 404
