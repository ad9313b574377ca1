"""Easier versions through the API: ask, follow, compare, refuse, carry over."""

import pytest
from flask.testing import FlaskClient

from clear_steps.demo import demo_texts
from tests.patience import comes_true

BENDS = demo_texts()[4]


def add(client: FlaskClient, text: str = BENDS) -> int:
    return int(client.post("/api/songs", json={"text": text}).json["id"])


def finished(client: FlaskClient, job: dict[str, object]) -> dict[str, object]:
    def state() -> dict[str, object]:
        return dict(client.get(f"/api/searches/{job['id']}").json)

    assert comes_true(lambda: state()["state"] != "running", 30), "the search did not end"
    return state()


@pytest.fixture
def version_id(client: FlaskClient) -> int:
    answer = client.post(f"/api/songs/{add(client)}/versions", json={"target": 4})
    assert answer.status_code == 202
    job = finished(client, answer.json)
    assert (job["state"], job["done"]) == ("finished", 1.0)
    return int(str(job["version_id"]))


def test_a_version_is_found_stored_and_compared(client: FlaskClient, version_id: int) -> None:
    version = client.get(f"/api/versions/{version_id}").json
    assert version["reached"]
    assert version["version"]["parts"][0]["step"] <= 4.05 < version["original"]["parts"][0]["step"]
    assert {"kind", "reason", "effect", "loss", "does", "refused"} <= set(version["edits"][0])
    marks = {event["mark"] for bar in version["version"]["parts"][0]["bars"] for event in bar["events"]}
    assert marks == {"", "changed"}
    assert client.get("/api/songs/1/versions").json["versions"][0]["id"] == version_id


def test_refusing_and_taking_back_is_stored_and_graded_anew(client: FlaskClient, version_id: int) -> None:
    before = client.get(f"/api/versions/{version_id}").json
    first = before["edits"][0]["id"]
    refused = client.put(
        f"/api/versions/{version_id}/choice", json={"based_on": 0, "refused": [first, 9999]}
    ).json
    assert refused["edits"][0]["refused"]
    assert refused["tab"] != before["tab"]
    assert client.get(f"/api/versions/{version_id}").json == refused
    stale = client.put(f"/api/versions/{version_id}/choice", json={"based_on": 0, "refused": []})
    assert (stale.status_code, "your choice is based on" in stale.json["message"]) == (409, True)
    back = client.put(f"/api/versions/{version_id}/choice", json={"based_on": 1, "refused": []}).json
    assert back == before | {"choice": 2}


def test_edits_that_do_the_same_in_several_bars_are_told_together(
    client: FlaskClient, version_id: int
) -> None:
    edits = client.get(f"/api/versions/{version_id}").json["edits"]
    together = [edit for edit in edits if sum(other["alike"] == edit["alike"] for other in edits) > 1]
    assert len({edit["alike"] for edit in together}) < len(together)
    assert all(edit["alike"] <= edit["id"] for edit in edits)
    kinds = {edit["id"]: edit["kind"] for edit in edits}
    assert all(kinds[edit["alike"]] == edit["kind"] for edit in together)


def test_from_where_on_a_version_is_still_the_tune_is_the_teachers_to_say(
    client: FlaskClient, version_id: int
) -> None:
    assert client.get(f"/api/versions/{version_id}").json["kept"]["still_the_tune"]
    ladder = client.get("/api/ladder").json["ladder"]
    assert ladder["tune_floor"] == 60
    client.post("/api/ladders", json={"ladder": ladder | {"name": "strict", "tune_floor": 100}})
    assert not client.get(f"/api/versions/{version_id}").json["kept"]["still_the_tune"]


def test_refusing_all_gives_the_original_back(client: FlaskClient, version_id: int) -> None:
    version = client.get(f"/api/versions/{version_id}").json
    answer = client.put(
        f"/api/versions/{version_id}/choice",
        json={"based_on": 0, "refused": [edit["id"] for edit in version["edits"]]},
    ).json
    assert answer["version"]["parts"] == answer["original"]["parts"]
    assert answer["kept"]["overall"] == 100


def test_a_version_says_when_its_song_has_moved_on_and_is_carried_over(
    client: FlaskClient, version_id: int
) -> None:
    changed = BENDS.replace("Title: Burnt sugar", "Title: Burnt honey")
    assert client.post("/api/songs/1/revisions", json={"based_on": 1, "text": changed}).status_code == 201
    old = client.get(f"/api/versions/{version_id}").json
    assert (old["revision"], old["latest_revision"], old["title"]) == (1, 2, "Burnt sugar")
    carried = client.post(f"/api/versions/{version_id}/carried")
    assert carried.status_code == 201
    assert (carried.json["revision"], carried.json["title"], len(carried.json["edits"])) == (
        2,
        "Burnt honey",
        len(old["edits"]),
    )


def test_an_edit_whose_bar_was_rewritten_is_carried_over_but_does_not_stand_and_says_so(
    client: FlaskClient, version_id: int
) -> None:
    old = client.get(f"/api/versions/{version_id}").json
    rewritten = BENDS.replace("7b9-7b9r7", "7---5----")
    assert rewritten != BENDS
    assert client.post("/api/songs/1/revisions", json={"based_on": 1, "text": rewritten}).status_code == 201
    carried = client.post(f"/api/versions/{version_id}/carried").json
    assert len(carried["edits"]) == len(old["edits"])
    fallen = [edit for edit in carried["edits"] if edit["refused"]]
    assert 0 < len(fallen) < len(carried["edits"])
    assert not any(edit["refused_itself"] for edit in fallen)
    assert all("does not find the notes" in edit["reason"] for edit in fallen)


@pytest.mark.parametrize(
    ("body", "words"),
    [({"target": 0}, "target"), ({"target": 4, "part_index": 7}, "part is 7; expected 0 to 0")],
)
def test_what_cannot_be_asked_for_is_refused(
    client: FlaskClient, body: dict[str, object], words: str
) -> None:
    answer = client.post(f"/api/songs/{add(client)}/versions", json=body)
    assert answer.status_code == 422
    assert words in answer.json["message"]


def test_a_search_can_be_stopped_and_stores_nothing(client: FlaskClient) -> None:
    song = add(client, demo_texts()[5])
    job = client.post(f"/api/songs/{song}/versions", json={"target": 1.5}).json
    client.delete(f"/api/searches/{job['id']}")
    assert finished(client, job)["state"] == "stopped"
    assert client.get(f"/api/songs/{song}/versions").json["versions"] == []


@pytest.mark.parametrize("path", ["/api/versions/99", "/api/searches/99", "/api/songs/99/versions"])
def test_what_is_not_there_is_said(client: FlaskClient, path: str) -> None:
    answer = client.get(path)
    assert (answer.status_code, "there is no" in answer.json["message"]) == (404, True)


def test_ways_are_found_and_nothing_is_stored_until_one_is_taken(client: FlaskClient) -> None:
    add(client)
    job = finished(client, client.post("/api/songs/1/ways", json={"target": 2.0}).json)
    assert (job["state"], job["version_id"]) == ("finished", None)
    assert client.get("/api/songs/1/versions").json["versions"] == []
    found = client.get(f"/api/searches/{job['id']}/ways").json
    assert 1 <= len(found["ways"]) <= 3
    assert found["ways"][0]["sentence"]
    taken = client.post(f"/api/searches/{job['id']}/taken", json={"way": 0})
    assert taken.status_code == 201
    assert taken.json["version"]["parts"][0]["step"] == pytest.approx(found["ways"][0]["step"])
    again = client.post(f"/api/searches/{job['id']}/taken", json={"way": 0}).json
    assert again["id"] == taken.json["id"], "taken twice it is one version"
    assert len(client.get("/api/songs/1/versions").json["versions"]) == 1
    assert client.post(f"/api/searches/{job['id']}/taken", json={"way": 2}).status_code in (201, 422)


@pytest.mark.parametrize(("path", "method"), [("ways", "get"), ("taken", "post")])
def test_there_are_no_ways_where_none_were_asked_for(client: FlaskClient, path: str, method: str) -> None:
    body = {"json": {"way": 0}} if method == "post" else {}
    assert getattr(client, method)(f"/api/searches/999/{path}", **body).status_code == 404


def test_one_change_is_offered_with_its_step_made_and_refused(client: FlaskClient, version_id: int) -> None:
    path = f"/api/versions/{version_id}/changes"
    offered = client.get(f"{path}?first=0&last=1").json
    assert offered["changes"]
    one = offered["changes"][-1]
    made = client.post(path, json={"first": 0, "last": 1, "kind": one["kind"], "says": one["says"]}).json
    assert made["version"]["parts"][0]["step"] == pytest.approx(one["step"])
    edit = made["edits"][-1]
    assert (edit["kind"], edit["reason"]) == (one["kind"], edit["reason"])
    assert "asked for" in edit["reason"]
    body = {"based_on": made["choice"], "refused": [edit["id"]]}
    back = client.put(f"/api/versions/{version_id}/choice", json=body).json
    assert back["version"]["parts"][0]["step"] == pytest.approx(offered["step"])


@pytest.mark.parametrize(("first", "last"), [(0, 999), (3, 2)])
def test_bars_that_are_not_there_are_said(
    client: FlaskClient, version_id: int, first: int, last: int
) -> None:
    answer = client.get(f"/api/versions/{version_id}/changes?first={first}&last={last}")
    assert answer.status_code == 422
    assert "expected 0 to" in answer.json["message"]
