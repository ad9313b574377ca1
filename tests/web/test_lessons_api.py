"""The API about lessons: chunks as proposed, cut by the teacher, carried over a revision, and their words."""

from typing import Any

from flask.testing import FlaskClient

from clear_steps.demo import demo_texts

TEXT = demo_texts()[1]
STUDENT = {"name": "Ilka", "span_mm": 90, "comfortable_step": 2.5}


def add(client: FlaskClient, text: str = TEXT) -> int:
    return int(client.post("/api/songs", json={"text": text}).json["id"])


def lesson(client: FlaskClient, song: int, **query: object) -> Any:
    return client.get(f"/api/songs/{song}/lesson", query_string=query).json


def cut(client: FlaskClient, song: int, starts: list[dict[str, object]], **more: object) -> Any:
    body = {"based_on": 0, "revision": 1, "starts": starts, **more}
    return client.put(f"/api/songs/{song}/chunks", json=body)


def starts_of(found: Any) -> list[dict[str, object]]:
    return [{**chunk["first"], "name": chunk["name"]} for chunk in found["chunks"]]


def test_a_lesson_holds_the_chunks_with_all_that_is_said_of_them(client: FlaskClient) -> None:
    found = lesson(client, add(client))
    first, again = found["chunks"][:2]
    assert first["called"] == "Riff a"
    assert first["first"] == {"bar": 0, "event": 0}
    assert first["words"][0].startswith(
        "Power chords on the 6th, accented, open strings muted: open 6th twice, 3"
    )
    assert (again["called"], again["like"], again["words"]) == ("Riff b", 0, ["The same as Riff a."])
    assert found["number"] == 0
    assert sorted(found["orders"]) == ["hardest", "layers", "riffs", "top", "used"]
    assert all(sorted(order) == list(range(len(found["chunks"]))) for order in found["orders"].values())


def test_a_student_begins_at_the_tempo_that_is_comfortable_for_them(client: FlaskClient) -> None:
    song = add(client)
    student = client.post("/api/students", json=STUDENT).json["id"]
    anybody, own = lesson(client, song), lesson(client, song, student_id=student)
    assert own["chunks"][0]["tempo"] is None or own["chunks"][0]["tempo"] < anybody["chunks"][0]["tempo"]


def test_words_come_in_spanish_with_do_re_mi(client: FlaskClient) -> None:
    found = lesson(client, add(client, demo_texts()[3]), language="es", names="solfege")
    assert found["chunks"][0]["words"][0].startswith("Mantén do: 5 y 2 a la vez")


def test_a_cut_is_kept_and_can_be_given_back(client: FlaskClient) -> None:
    song = add(client)
    starts = [*starts_of(lesson(client, song))[:1], {"bar": 1, "event": 3, "name": "the turn"}]
    saved = cut(client, song, starts)
    assert saved.status_code == 200
    assert [chunk["name"] for chunk in saved.json["chunks"]] == ["", "the turn"]
    assert saved.json["chunks"][0]["last"] == {"bar": 1, "event": 2}
    assert lesson(client, song) == saved.json
    stale = cut(client, song, starts)
    assert stale.status_code == 409
    back = cut(client, song, [], based_on=1)
    assert [chunk["called"] for chunk in back.json["chunks"]][:2] == ["Riff a", "Riff b"]


def test_a_cut_goes_with_its_notes_and_says_what_it_lost(client: FlaskClient) -> None:
    song = add(client)
    names = [{"bar": bar, "event": 0, "name": f"bar {bar + 1}"} for bar in range(9)]
    cut(client, song, names)
    lines = TEXT.split("\n")
    system = next(at for at, line in enumerate(lines) if line.startswith("[Lift]"))
    shorter = "\n".join(lines[:system])
    revised = client.post(f"/api/songs/{song}/revisions", json={"based_on": 1, "text": shorter})
    assert revised.status_code == 201
    found = lesson(client, song)
    assert [chunk["name"] for chunk in found["chunks"]] == [f"bar {number}" for number in range(1, 6)]
    assert found["lost"] == [f"bar {number}" for number in range(6, 10)]
    assert cut(client, song, names[:5], based_on=1).status_code == 409  # made on the text before


def test_a_cut_that_cannot_be_is_said(client: FlaskClient) -> None:
    song = add(client)
    for starts in (
        [{"bar": 400, "event": 0}],
        [{"bar": 0, "event": 99}],
        [{"bar": 1, "event": 0}, {"bar": 0, "event": 0}],
        [{"bar": 0, "event": 0, "name": "x" * 99}],
    ):
        refused = cut(client, song, starts)
        assert refused.status_code == 422, starts
        assert refused.json["message"]
    assert client.get(f"/api/songs/{song}/lesson?part_index=7").status_code == 422
    assert lesson(client, song)["number"] == 0


def test_any_notes_are_graded_and_told(client: FlaskClient) -> None:
    song = add(client)
    stretch = {"first": {"bar": 3, "event": 5}, "last": {"bar": 4, "event": 1}}
    found = client.post(f"/api/songs/{song}/stretch", json=stretch).json
    assert found["where"] == "the & of beat 3 of bar 4 to the & of beat 1 of bar 5"
    assert found["step"] >= 1
    assert found["words"][0].startswith(
        "Power chords on the 6th, accented, open strings muted: 7 on the & of 3"
    )
    nothing = {"first": {"bar": 90, "event": 0}, "last": {"bar": 91, "event": 1}}
    assert client.post(f"/api/songs/{song}/stretch", json=nothing).status_code == 422


def test_what_stands_on_a_sheet_is_kept_with_the_song_and_the_student(client: FlaskClient) -> None:
    song = add(client)
    student = client.post("/api/students", json=STUDENT).json["id"]
    usual = client.get(f"/api/songs/{song}/sheet").json
    assert usual["number"] == 0
    assert usual["blocks"][0] == "hard"
    blocks = usual["blocks"][::-1]
    body = {"based_on": 0, "student_id": student, "blocks": blocks, "off": ["care"], "language": "es"}
    assert client.put(f"/api/songs/{song}/sheet", json=body).status_code == 200
    own = client.get(f"/api/songs/{song}/sheet?student_id={student}").json
    assert (own["blocks"], own["off"], own["language"], own["number"]) == (blocks, ["care"], "es", 1)
    assert client.get(f"/api/songs/{song}/sheet").json == usual
    assert client.put(f"/api/songs/{song}/sheet", json=body).status_code == 409
    twice = {"based_on": 1, "student_id": student, "blocks": ["tab", "tab"], "off": []}
    assert client.put(f"/api/songs/{song}/sheet", json=twice).status_code == 422


def setting_up(client: FlaskClient, song: int, **query: object) -> Any:
    return client.get(f"/api/songs/{song}/setting-up", query_string=query).json


def test_any_tuning_goes_to_any_other_as_people_say_them(client: FlaskClient) -> None:
    song = add(client)
    made = setting_up(client, song, tuned_to="Eb standard", to="C G C F A D")["asked"]
    assert (made["tuning"], made["capo"]) == ("drop C", 0)
    assert made["turns"][0] == "6th string down three half tones to C, by a reference tone."
    assert [row["pitch"] for row in made["strings"]] == [62, 57, 53, 48, 43, 36]
    assert all(row["turned"] for row in made["strings"])
    refused = setting_up(client, song, to="banjo")
    assert refused["message"].startswith("tuning is 'banjo'")


def test_a_capo_that_saves_the_turning_is_proposed_and_cents_are_told(client: FlaskClient) -> None:
    text = TEXT.replace("Tempo:", "Cents: -20\nTempo:", 1)
    song = add(client, text)
    found = setting_up(client, song, tuned_to="D standard")
    assert (found["fewer"]["capo"], found["fewer"]["turns"]) == (2, [])
    assert found["fewer"]["own"] == "D2 G2 C3 F3 A3 D4"
    assert found["fewer"]["record"] == found["asked"]["record"] == "E2 A2 D3 G3 B3 E4"
    assert found["cents"] == -20
    assert "20 cents lower" in found["cents_words"]
    assert "20 cents lower" in lesson(client, song)["setting_up"][-1]


def test_a_students_tuning_and_language_are_where_their_sheet_begins(client: FlaskClient) -> None:
    song = add(client)
    own = {**STUDENT, "tuning": "tuned down 1/2 step", "language": "es", "names": "solfege"}
    student = client.post("/api/students", json=own).json
    assert student["tuning"] == "half step down"
    sheet = client.get(f"/api/songs/{song}/sheet", query_string={"student_id": student["id"]}).json
    assert (sheet["language"], sheet["names"]) == ("es", "solfege")
    assert setting_up(client, song, student_id=student["id"])["tuned_to"] == "half step down"
    turned = lesson(client, song, student_id=student["id"], language="es")["setting_up"]
    assert turned[0].startswith("6.ª cuerda: sube un semitono")
    bad = client.post("/api/students", json={**own, "name": "Odo", "tuning": "banjo"})
    assert bad.status_code == 422


def test_a_version_is_taught_where_its_original_is_cut(client: FlaskClient) -> None:
    song = add(client)
    starts = [*starts_of(lesson(client, song))[:1], {"bar": 1, "event": 0, "name": "the turn"}]
    assert cut(client, song, starts).status_code == 200
    offers = client.get(f"/api/songs/{song}/changes", query_string={"first": 0, "last": 0}).json["changes"]
    wish = {"first": 0, "last": 0, "kind": offers[0]["kind"], "says": offers[0]["says"]}
    version = client.post(f"/api/songs/{song}/changes", json=wish).json["id"]
    found = client.get(f"/api/versions/{version}/lesson").json
    assert [chunk["name"] for chunk in found["chunks"]] == ["", "the turn"]
    assert found["chunks"][0]["words"] != lesson(client, song)["chunks"][0]["words"]
    assert found["chunks"][1]["spoken"][0]["bar"] == 1


def test_a_sheet_keeps_which_versions_stand_under_one_another(client: FlaskClient) -> None:
    song = add(client)
    sheet = client.get(f"/api/songs/{song}/sheet").json
    number = sheet.pop("number")
    body = {**sheet, "beside": [3, 4], "with_original": True, "based_on": number}
    assert client.put(f"/api/songs/{song}/sheet", json=body).status_code == 200
    kept = client.get(f"/api/songs/{song}/sheet").json
    assert (kept["beside"], kept["with_original"]) == ([3, 4], True)
    many = {**body, "based_on": kept["number"], "beside": list(range(1, 8))}
    assert client.put(f"/api/songs/{song}/sheet", json=many).status_code == 422
