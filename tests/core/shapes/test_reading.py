"""What a player sees of a part: against passages that a teacher read, and what must hold of any part."""

import json
import re
from fractions import Fraction
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import NOT_HELD, STANDARD, Part, with_chord
from clear_steps.core.shapes import Kind, read_shapes
from clear_steps.core.shapes.familiar import familiar_grips
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from clear_steps.report import shapes_report
from tests.songs import songs

FOLDER = Path(__file__).parents[2] / "data/calibration/shapes"
Row = dict[str, Any]
PASSAGES: dict[str, Row] = json.loads((FOLDER / "shapes.json").read_text())


def read(text: str) -> Part:
    return read_tab(text).song.parts[0]


def stretches_told(name: str) -> list[Row]:
    song = read_tab((FOLDER / f"{name}.tab").read_text()).song
    return list(shapes_report(song, default_ladder())["parts"][0]["stretches"])


def place(row: Row) -> tuple[int, Fraction]:
    return int(row["bar"]), Fraction(row["onset"])


def is_as(told: Row, wanted: Row) -> bool:
    """Whether a stretch is as a teacher sees it; what the reference leaves out is not judged."""
    froms = [place(row) for row in (wanted["from"], *wanted.get("from_any", []))]
    ends = [place(row) for row in (wanted["to"], *wanted.get("to_any", []))]
    if place(told["from"]) not in froms or place(told["to"]) not in ends:
        return False
    is_kind = told["kind"] in wanted["kinds"]
    return is_kind and _is_called(told["name"], wanted) and _is_held(told["grip"], wanted)


def _is_called(name: str | None, wanted: Row) -> bool:
    names = wanted.get("names", [name])
    patterns = [each[1:-1] for each in names if each and each.startswith("/")]
    return name in names or any(re.search(pattern, name or "", re.I) for pattern in patterns)


def _is_held(grip: str | None, wanted: Row) -> bool:
    accepted = {re.sub("-", "", each) for each in wanted.get("grips", [grip or ""])}
    cells = list(re.sub("-", "", grip or ""))
    may_miss = wanted.get("may_x", [])
    return any(
        len(each) == len(cells)
        and all(
            sign == own or (own == "x" and len(each) - at in may_miss)
            for at, (sign, own) in enumerate(zip(each, cells, strict=False))
        )
        for each in accepted
    )


@pytest.mark.parametrize("name", PASSAGES)
def test_a_passage_is_read_as_a_teacher_reads_it(name: str) -> None:
    told = stretches_told(name)
    for item in PASSAGES[name]["stretches"]:
        ways = item.get("ways") or [[item]]
        assert any(
            all(any(is_as(own, row) for own in told) for row in way if not row.get("optional"))
            for way in ways
        ), item


@given(songs())
def test_every_struck_moment_is_in_exactly_one_stretch(song) -> None:  # type: ignore[no-untyped-def]
    for part in song.parts:
        shapes = read_shapes(part)
        at = 0
        for stretch in shapes.stretches:
            assert stretch.first == at
            at = stretch.last + 1
        assert at == len(shapes.moments)


PICKED = """Title: Gate latch
Picking: fingers

len|e e e e e e e e |e e e e e e e e |
  e|----------0-----|----------2-----|
  B|------1-------1-|------3-------3-|
  G|----0-----0-----|----2-----2-----|
  D|--2-----2---2---|0-------0---0---|
  A|3-------3-------|--0-----0-------|
  E|----------------|----------------|
"""


def test_a_bass_of_its_own_is_named_and_never_a_string_held_for_nothing() -> None:
    """Found on fresh music: an open 5th string under a D was taken for D/F#."""
    stretches = read_shapes(read(PICKED)).stretches
    assert [stretch.name for stretch in stretches] == ["C", "D/A"]
    assert stretches[1].grip
    assert dict(stretches[1].grip.frets) == {1: 2, 2: 3, 3: 2, 4: 0, 5: 0}


def test_two_strings_of_a_picked_chord_are_no_power_chord() -> None:
    """Found on fresh music: pinched strings a fifth apart, one between them."""
    text = PICKED.replace("A|3-------3", "A|0-------0").replace("G|----0-----0", "G|----2-----2")
    assert [stretch.kind for stretch in read_shapes(read(text)).stretches] == [Kind.HELD, Kind.HELD]


def test_a_name_over_a_rest_is_that_of_what_comes() -> None:
    text = """Title: Tide wall
Picking: pick

chd|Gm       |Cm       |
len|Rq q Rq q|Rq q Rq q|
  e|---3----3|---3----3|
  B|---3----3|---4----4|
  G|---3----3|---5----5|
  D|---5----5|---5----5|
  A|---------|---------|
  E|---------|---------|
"""
    stretches = read_shapes(read(text)).stretches
    assert [(stretch.name, stretch.written) for stretch in stretches] == [("Gm", "Gm"), ("Cm", "Cm")]


def test_names_over_a_line_do_not_make_it_a_grip() -> None:
    text = """Title: River post
Picking: pick

chd|Am              |G               |
len|e e e e e e e e |e e e e e e e e |
  e|----------------|----------------|
  B|----1-0---------|3-1-0-----------|
  G|0-2-----2-0-----|------2-0-------|
  D|------------2---|----------3-2-0-|
  A|--------------3-|----------------|
  E|----------------|----------------|
"""
    assert [stretch.kind for stretch in read_shapes(read(text)).stretches] == [Kind.POSITION]


def test_harmonics_need_no_finger() -> None:
    text = """Title: Bell
Picking: pick

len|h    h    |
  e|-----<12>-|
  B|<12>------|
  G|----------|
  D|----------|
  A|----------|
  E|----------|
"""
    (stretch,) = read_shapes(read(text)).stretches
    assert (stretch.kind, stretch.name) == (Kind.OPEN, "harmonics at 12")


def test_where_nothing_is_said_to_be_held_it_is_a_line_until_the_next_name() -> None:
    part = read(PICKED)
    assert [stretch.kind for stretch in read_shapes(part).stretches] == [Kind.HELD, Kind.HELD]
    said = with_chord(part, 0, 0, NOT_HELD)
    assert [stretch.kind for stretch in read_shapes(said).stretches] == [Kind.POSITION]
    again = with_chord(said, 1, 0, "D/A")
    assert [stretch.name for stretch in read_shapes(again).stretches][1] == "D/A"
    assert with_chord(said, 0, 0, "") == part


def test_a_name_has_no_spaces_and_a_place() -> None:
    with pytest.raises(InvalidValueError, match="chord"):
        with_chord(read(PICKED), 0, 0, "G or so")
    with pytest.raises(InvalidValueError, match="place"):
        with_chord(read(PICKED), 0, 99, "G")


def test_two_voices_in_one_place_are_said() -> None:
    voices = read(
        "Tempo: 80\nTime: 4/4\n\nlen|q   q   q   q   |\n  E|5---7---8---5---|\n  B|----------------|\n"
        "  G|----------------|\n  D|----------------|\n  A|7-------7-------|\n  E|----------------|\n"
    )
    assert [stretch.voices for stretch in read_shapes(voices).stretches] == [True]


def test_over_a_capo_the_sounding_chord_stands_beside_the_one_that_is_held() -> None:
    capo = read_tab(PICKED.replace("Picking", "Capo: 2\nPicking", 1)).song
    rows = shapes_report(capo, default_ladder())["parts"][0]["stretches"]
    assert [(row["name"], row["sounding"]) for row in rows] == [("C", "D"), ("D/A", "E/B")]


def test_a_grip_for_which_no_fingers_are_taught_has_those_of_the_path() -> None:
    told = {row["grip"]: row["fingers"] for row in stretches_told("open-d-picked") if row["grip"]}
    assert "1xx111" in told.values()
    assert "x2x130" in told.values()


def test_no_school_of_the_table_asks_one_finger_to_be_in_two_places() -> None:
    """Found by reading it again: D/F# had the second finger on the 6th and the 1st string."""
    for row in familiar_grips(STANDARD):
        frets = row.by_string
        for school in row.schools:
            taken: dict[str, list[int]] = {}
            for string, finger in school:
                assert (finger == "0") == (frets[string] == 0), row
                taken.setdefault(finger, []).append(string)
            taken.pop("0", None)
            for strings in taken.values():
                under = [frets[at] for at in range(min(strings), max(strings) + 1) if at in frets]
                assert len({frets[string] for string in strings}) == 1, row
                assert min(under) >= frets[strings[0]], row


def test_a_picked_chord_that_begins_with_two_strings_is_no_run() -> None:
    """Found on the lesson sheet of a demo song: all but the first moment of every bar was a run."""
    named = "chd|Am              |\nlen|e e e e e e e e |\n"
    text = (
        PICKED.split("len|")[0]
        + named
        + (
            "  E|0-----------0---|\n  B|------1---------|\n  G|--2-----------2-|\n"
            "  D|----2-----2-----|\n  A|0---------------|\n  E|--------0-------|\n"
        )
    )
    assert [(each.kind, each.name) for each in read_shapes(read(text)).stretches] == [(Kind.HELD, "Am")]
