"""The API as a page uses it."""

import json
import time

import pytest
from flask.testing import FlaskClient

from clear_steps.core.grade import MEASURES
from clear_steps.demo import demo_texts

TAB = "Title: Porch\nTempo: 90\nTime: 4/4\nTuning: standard\n\n" + "\n".join(
    f"{name}|0---3---1---0---|" for name in "eBGDAE"
)
BROKEN = TAB.replace("e|0-", "e|99")


def add(client: FlaskClient, text: str = TAB) -> int:
    return int(client.post("/api/songs", json={"text": text}).json["id"])


def test_a_song_is_stored_shown_found_and_graded(client: FlaskClient) -> None:
    answer = client.post("/api/songs", json={"text": TAB})
    assert answer.status_code == 201
    desk = client.get(f"/api/songs/{answer.json['id']}").json
    assert (desk["text"], desk["revision"], desk["analysis"]["title"]) == (TAB, 1, "Porch")
    bar = desk["analysis"]["parts"][0]["bars"][0]
    assert bar["step"] >= 1
    assert {finding["measure"] for finding in bar["findings"]} == set(MEASURES)
    assert bar["events"][1]["notes"][0]["words"].startswith("1st string, 3rd fret")
    card = client.get("/api/songs").json["songs"][0]
    assert (card["problem"], card["put_away"]) == ("", False)
    assert (card["title"], card["grade"]["bars"], len(card["grade"]["climb"]["steps"])) == ("Porch", 1, 1)


def test_a_text_that_cannot_be_read_stores_nothing_and_names_the_place(client: FlaskClient) -> None:
    answer = client.post("/api/songs", json={"text": BROKEN})
    assert answer.status_code == 422
    assert answer.json["code"] == "unreadable"
    assert answer.json["place"] == {"line": 6, "column": 3}
    assert "fret 99 is not on the neck" in answer.json["message"]
    assert client.get("/api/songs").json["songs"] == []


def test_a_preview_of_an_unfinished_text_is_an_answer_and_no_error(client: FlaskClient) -> None:
    answer = client.post("/api/preview", json={"text": BROKEN})
    assert answer.status_code == 200
    (problem,) = answer.json["problems"]
    assert (problem["place"], problem["part"], problem["bar"]) == ({"line": 6, "column": 3}, 0, 0)
    assert answer.json["analysis"]["parts"][0]["bars"], "what can be read is drawn"
    assert client.post("/api/preview", json={"text": TAB}).json["analysis"]["parts"][0]["step"] >= 1


def test_saving_makes_revisions_and_a_stale_one_gets_409(client: FlaskClient) -> None:
    song = add(client)
    changed = TAB.replace("Porch", "Veranda")
    assert (
        client.post(f"/api/songs/{song}/revisions", json={"based_on": 1, "text": changed}).json["revision"]
        == 2
    )
    stale = client.post(f"/api/songs/{song}/revisions", json={"based_on": 1, "text": TAB})
    assert (stale.status_code, stale.json["code"]) == (409, "stale_revision")
    broken = client.post(f"/api/songs/{song}/revisions", json={"based_on": 2, "text": BROKEN})
    assert broken.status_code == 422
    found = client.get(f"/api/songs/{song}/revisions").json["revisions"]
    assert [(revision["number"], revision["title"]) for revision in found] == [(1, "Porch"), (2, "Veranda")]


def test_hand_and_tempo_change_the_step(client: FlaskClient) -> None:
    wide = {"e": "5-5-5-5-5-5-5-5-", "G": "1-1-1-1-1-1-1-1-"}
    song = add(
        client,
        "Tempo: 90\nTime: 4/4\nTuning: standard\n\n"
        + "\n".join(f"{name}|{wide.get(name, '-' * 16)}|" for name in "eBGDAE"),
    )

    def step(**query: object) -> float:
        return float(
            client.get(f"/api/songs/{song}", query_string=query).json["analysis"]["parts"][0]["step"]
        )

    assert step(span_mm=75) > step() > step(span_mm=130)
    assert step(tempo=45) < step() < step(tempo=135)


@pytest.mark.parametrize(
    ("path", "status", "words"),
    [
        ("/api/songs/99", 404, "there is no song 99"),
        ("/api/songs/1?span_mm=5", 422, "span_mm"),
        ("/api/songs/1?tempo=fast", 422, "tempo"),
        ("/api/nowhere", 404, "not found"),
    ],
)
def test_every_error_has_one_shape(client: FlaskClient, path: str, status: int, words: str) -> None:
    add(client)
    answer = client.get(path)
    assert answer.status_code == status
    assert set(answer.json) == {"code", "message", "place", "problems"}
    assert words in answer.json["message"].lower()


def test_other_hosts_and_origins_are_not_served(client: FlaskClient) -> None:
    assert client.get("/api/songs", headers={"Host": "evil.example"}).status_code == 400
    assert (
        client.post("/api/songs", json={"text": TAB}, headers={"Origin": "http://evil.example"}).status_code
        == 403
    )
    assert (
        client.post("/api/songs", json={"text": TAB}, headers={"Origin": "http://localhost"}).status_code
        == 201
    )


def test_pages_come_with_a_strict_policy_and_a_fresh_nonce(client: FlaskClient) -> None:
    first, second = client.get("/"), client.get("/")
    policy = first.headers["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy
    nonce = first.text.split('content="')[1].split('"')[0]
    assert f"'nonce-{nonce}'" in policy
    assert first.text != second.text


def test_an_upload_past_the_limit_is_refused(client: FlaskClient) -> None:
    answer = client.post(
        "/api/preview", data=json.dumps({"text": "-" * 3_000_000}), content_type="application/json"
    )
    assert answer.status_code == 413
    assert set(answer.json) == {"code", "message", "place", "problems"}


def test_what_nobody_foresaw_is_told_without_its_trace(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("clear_steps.web.songs.routes.title_of", lambda text: 1 / 0)
    answer = client.post("/api/songs", json={"text": TAB})
    assert answer.status_code == 500
    assert answer.json["message"] == "something went wrong on our side; nothing was stored"


def test_all_demo_pieces_are_graded_by_the_api(client: FlaskClient) -> None:
    for text in demo_texts():
        begun = time.perf_counter()
        assert client.post("/api/preview", json={"text": text}).json["analysis"]["parts"][0]["step"] > 1
        assert time.perf_counter() - begun < 30  # a hang, not a speed: speed is measured by `make bench`


def test_what_a_section_is_comes_as_the_teacher_says_it_or_guessed(client: FlaskClient) -> None:
    system = "\n".join(f"{name}|{'0---3---1---0---' if name == 'e' else '-' * 16}|" for name in "eBGDAE")
    text = f"Time: 4/4\n\n[Verse] {{riff, clean}}\n\n{system}\n\n[Chorus]\n\n{system}\n"
    said, guessed = client.post("/api/preview", json={"text": text}).json["analysis"]["parts"][0]["map"]
    assert (said["role"], said["role_said"], said["sound"]) == ("riff", True, ["clean"])
    assert (guessed["role"], guessed["role_said"], guessed["sound"]) == ("line", False, [])


def test_a_role_is_written_into_the_text_as_a_revision_and_taken_back(client: FlaskClient) -> None:
    song = add(client, demo_texts()[4])
    body = {"based_on": 1, "part_index": 0, "first_bar": 0, "role": "line"}
    said = client.post(f"/api/songs/{song}/roles", json=body)
    assert said.status_code == 201
    assert "[Turn] {line}" in said.json["text"]
    assert (said.json["revision"], said.json["analysis"]["parts"][0]["map"][0]["role"]) == (2, "line")
    back = client.post(f"/api/songs/{song}/roles", json={**body, "based_on": 2, "role": None})
    assert "[Turn]\n" in back.json["text"]
    assert back.json["analysis"]["parts"][0]["map"][0]["role"] == "riff"
    wrong = client.post(f"/api/songs/{song}/roles", json={**body, "based_on": 3, "first_bar": 5})
    assert wrong.status_code == 422
    assert "section is 'bar 6'; expected the first bar of one: 1" in json.dumps(wrong.json)
