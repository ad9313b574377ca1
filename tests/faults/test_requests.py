"""Requests that are no requests: each gets one clear message, none an error of ours."""

import json
import re
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from clear_steps.store import Database
from clear_steps.web.app import create_app
from tests.web.test_api import TAB, add

HUGE = 2**63


@pytest.fixture
def client(tmp_path: Path) -> FlaskClient:
    client = create_app(Database(tmp_path)).test_client()
    add(client)
    return client


@pytest.mark.parametrize(
    "path",
    [
        *("songs/{}", "songs/{}/revisions", "songs/{}/versions", "songs/{}/groups", "songs/{}/file.tab"),
        *("versions/{}", "versions/1/bars/{}", "groups/{}", "searches/{}"),
    ],
)
def test_a_number_beyond_the_databases_is_not_found(client: FlaskClient, path: str) -> None:
    answer = client.get("/api/" + path.format(HUGE))
    assert answer.status_code in (404, 405)
    assert set(answer.json) == {"code", "message", "place", "problems"}


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("/api/songs/1/versions", {"target": 4, "student_id": HUGE}),
        ("/api/songs/1/groups", {"name": "a", "seats": [{"who": "b", "version_id": HUGE}]}),
        ("/api/songs/1/revisions", {"based_on": HUGE, "text": TAB}),
        ("/api/songs/1/tempo", {"based_on": 10**400, "tempo": 100}),
    ],
)
def test_a_huge_number_in_a_body_is_the_requests_fault(
    client: FlaskClient, path: str, body: dict[str, object]
) -> None:
    answer = client.post(path, json=body)
    assert answer.status_code in (404, 409, 422)
    assert answer.json["message"]


@pytest.mark.parametrize(
    ("body", "status", "words"),
    [
        ("[" * 100_000, 400, "nested too deeply"),
        ('{"text": ' + "[" * 100_000, 400, "nested too deeply"),
        ('{"text": "\\ud800"}', 422, "half of a character"),
        ('{"text": "a', 400, "no JSON"),
        ('{"text": NaN}', 422, ""),
        (b'{"text": "\xff"}', 400, "no JSON"),
        ("", 400, "no JSON"),
        ("3", 422, ""),
    ],
    ids=range(8),
)
def test_a_body_that_is_none_is_told_at_the_door(
    client: FlaskClient, body: str | bytes, status: int, words: str
) -> None:
    for path in ("/api/songs", "/api/preview", "/api/students"):
        answer = client.post(path, data=body, content_type="application/json")
        assert (answer.status_code, words in answer.json["message"]) == (status, True), answer.json


@pytest.mark.parametrize("text", ["a\ud800b", "\udfff", TAB + "\ud83d"])
def test_half_a_character_is_told_wherever_it_stands(client: FlaskClient, text: str) -> None:
    for path, body in (
        ("/api/songs", {"text": text}),
        ("/api/students", {"name": text, "span_mm": 100}),
        ("/api/songs/1/groups", {"name": text, "seats": [{"who": text}]}),
        ("/api/songs/1/readings", {"based_on": 1, "bar": 0, "name": text}),
    ):
        answer = client.post(path, data=json.dumps(body), content_type="application/json")
        assert (answer.status_code, "half of a character" in answer.json["message"]) == (422, True)


BODIES = (
    ("application/json", b"[" * 20_000),
    ("application/json", b"{}"),
    ("application/json", b"[1, 2]"),
    ("application/json", b"null"),
    ("application/json", b'{"text": {"a": [1]}, "based_on": "x", "name": 3, "target": "four"}'),
    ("text/plain", b'{"a":' * 20_000 + b"1" + b"}" * 20_000),
    ("text/plain", b"hello"),
    ("application/x-www-form-urlencoded", b"text=hello&based_on=1"),
    ("multipart/form-data; boundary=x", b"--x\r\n\r\nhello\r\n--x--"),
    ("application/octet-stream", bytes(range(256)) * 40),
    ("nonsense", b"\xff\xfe"),
)


def test_every_route_takes_every_kind_of_body_without_an_error_of_ours(client: FlaskClient) -> None:
    paths = client.get("/api/openapi.json").json["paths"]
    tried = 0
    for path, methods in [*paths.items(), ("/api/library/backups", {"post": {}}), ("/static/x", {"get": {}})]:
        for method in methods:
            for kind, body in BODIES:
                address = re.sub(r"\{[^}]*\}", "1", path)
                answer = client.open(address, method=method.upper(), data=body, content_type=kind)
                assert answer.status_code < 500, (method, path, kind, body[:40], answer.json)
                tried += 1
    assert tried > 500


@pytest.mark.parametrize(
    ("origin", "status"),
    [("http://localhost", 201), ("https://localhost", 403), ("null", 403), ("http://localhost:81", 403)],
)
def test_an_origin_is_its_scheme_too(client: FlaskClient, origin: str, status: int) -> None:
    answer = client.post("/api/songs", json={"text": TAB}, headers={"Origin": origin})
    assert answer.status_code == status


def test_a_file_that_is_no_base64_is_told(client: FlaskClient) -> None:
    for content in ("é", "====", "a"):
        answer = client.post("/api/imports", json={"name": "a.tab", "content_base64": content})
        assert answer.status_code == 422, content
