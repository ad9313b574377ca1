"""For whom it is graded, fingers pinned, the order written: what the API promises of them."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from clear_steps.core.grade import added_up, grade_song
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder

WIDE = """Title: Far
Tempo: 100

[Verse]

e|5-5-5-5-|
B|--------|
G|1-1-1-1-|
D|--------|
A|--------|
E|--------|
"""
STUDENT = {"name": "Ines", "span_mm": 75, "hardest_shape": "no barre"}


def added(client: FlaskClient, path: str, body: dict[str, Any]) -> dict[str, Any]:
    answer = client.post(f"/api{path}", json=body)
    assert answer.status_code in (200, 201), answer.json
    return dict(answer.json)


def test_a_song_is_graded_for_a_student_by_id_and_says_so(client: FlaskClient) -> None:
    song, student = added(client, "/songs", {"text": WIDE}), added(client, "/students", STUDENT)
    usual = client.get(f"/api/songs/{song['id']}").json["analysis"]
    own = client.get(f"/api/songs/{song['id']}?student_id={student['id']}").json["analysis"]
    assert (usual["whom"], own["whom"], own["span_mm"]) == ("a medium hand", "Ines", 75)
    assert own["parts"][0]["step"] > usual["parts"][0]["step"]
    assert own["parts"][0]["past_bars"][0]["words"].startswith("stretch past a comfortable 75 mm")


def test_a_shorter_guitar_lies_closer_and_changes_no_text(client: FlaskClient) -> None:
    song = added(client, "/songs", {"text": WIDE})
    tall = added(client, "/students", STUDENT)
    small = added(client, "/students", {**STUDENT, "name": "Bo", "scale_length_mm": 480})
    steps = [
        client.get(f"/api/songs/{song['id']}?student_id={each['id']}").json["analysis"]["parts"][0]["step"]
        for each in (tall, small)
    ]
    assert steps[1] < steps[0]
    ways = client.post(
        f"/api/songs/{song['id']}/alternatives",
        json={"first": 0, "last": 0, "grade": {"student_id": small["id"]}},
    ).json["alternatives"]
    assert all("Scale:" not in way["text"] for way in ways)


def test_an_unknown_student_is_told(client: FlaskClient) -> None:
    song = added(client, "/songs", {"text": WIDE})
    assert client.get(f"/api/songs/{song['id']}?student_id=9").status_code == 404


@pytest.mark.parametrize(
    ("place", "status"),
    [
        ({"bar": 0, "event": 0, "string": 1}, 201),
        ({"bar": 0, "event": 0, "string": 2}, 422),
        ({"bar": 7, "event": 0, "string": 1}, 422),
        ({"bar": 0, "event": 90, "string": 1}, 422),
    ],
)
def test_a_finger_is_pinned_where_a_note_is_fretted(
    client: FlaskClient, place: dict[str, int], status: int
) -> None:
    song = added(client, "/songs", {"text": WIDE})
    answer = client.post(f"/api/songs/{song['id']}/fingers", json={"based_on": 1, "finger": "3", **place})
    assert answer.status_code == status
    revisions = client.get(f"/api/songs/{song['id']}/revisions").json["revisions"]
    assert len(revisions) == (2 if status == 201 else 1)
    if status == 201:
        note = answer.json["analysis"]["parts"][0]["bars"][0]["events"][0]["notes"][0]
        assert (note["finger"], note["finger_pinned"]) == ("3", True)


def test_what_is_held_is_named_in_the_text_and_a_name_with_a_space_is_refused(client: FlaskClient) -> None:
    song = added(client, "/songs", {"text": WIDE})
    place = {"based_on": 1, "bar": 0, "event": 0}
    refused = client.post(f"/api/songs/{song['id']}/names", json={**place, "name": "G or so"})
    assert refused.status_code == 422
    assert "without a space" in refused.json["message"]
    saved = added(client, f"/songs/{song['id']}/names", {**place, "name": "N.C."})
    assert "N.C." in saved["text"]
    assert saved["analysis"]["parts"][0]["bars"][0]["events"][0]["chord"] == "N.C."


def test_an_order_is_written_and_a_name_nobody_knows_changes_nothing(client: FlaskClient) -> None:
    song = added(client, "/songs", {"text": WIDE})
    refused = client.post(f"/api/songs/{song['id']}/order", json={"based_on": 1, "order": "Verse, Nowhere"})
    assert refused.status_code == 422
    saved = added(client, f"/songs/{song['id']}/order", {"based_on": 1, "order": " Verse   x3 "})
    assert saved["analysis"]["order"] == ["Verse x3"]
    passage = saved["analysis"]["parts"][0]["map"][0]
    assert (passage["name"], passage["times"], passage["counted"]) == ("Verse", 3, True)


def test_the_pieces_of_a_step_make_the_whole() -> None:
    """But for a bar past the hand (10) and one of nothing (1), which are that by decree."""
    seen = 0
    for text in demo_texts():
        for grading in grade_song(read_tab(text).song, default_ladder()):
            for bar in grading.bars:
                shares = added_up({name: found.step for name, found in bar.findings.items()})
                if shares and not bar.past_hand and bar.step > 1:
                    whole = sum(shares.values()) + sum(bar.added.values())
                    assert whole == pytest.approx(bar.step)
                    hardest = max(found.step for found in bar.findings.values())
                    assert next(iter(shares.values())) == pytest.approx(hardest)
                    seen += 1
    assert seen > 40


def test_what_is_within_reach_is_proposed_to_hand_out(client: FlaskClient) -> None:
    """Of a song past Ines: the version that plays one string, once there is one."""
    song, student = added(client, "/songs", {"text": WIDE}), added(client, "/students", STUDENT)
    path = f"/api/students/{student['id']}/songs/{song['id']}/parts/0"
    assert client.get(path).json == {"proposed": None}
    wish = {"first": 0, "last": 0, "kind": "root", "says": "the root alone, one string"}
    version = added(client, f"/songs/{song['id']}/changes", wish)["id"]
    proposed = client.get(path).json["proposed"]
    assert proposed["version_id"] == version
    assert proposed["step"] < 1.5
    assert client.get(path.replace("parts/0", "parts/7")).status_code == 422
    tall = added(client, "/students", {"name": "Tall", "span_mm": 140})["id"]
    original = client.get(f"/api/students/{tall}/songs/{song['id']}/parts/0").json["proposed"]
    assert original["version_id"] is None
    assert original["step"] > 1


def test_a_first_group_seats_students_within_their_limits(client: FlaskClient) -> None:
    """The only thing there is to play is past Ines: she gets it all the same, and it is said which bars."""
    song = added(client, "/songs", {"text": WIDE})
    added(client, "/students", STUDENT)
    added(client, "/students", {"name": "Tall", "span_mm": 140})
    proposed = client.get(f"/api/songs/{song['id']}/groups/proposed").json
    assert [(seat["who"], seat["version_id"]) for seat in proposed["seats"]] == [
        ("Ines", None),
        ("Tall", None),
    ]
    group = added(client, f"/songs/{song['id']}/groups", proposed)
    assert [bool(seat["part"]["past_bars"]) for seat in group["seats"]] == [True, False]
    assert client.get("/api/songs/99/groups/proposed").status_code == 404
