"""Rhythm, tunings and played order."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import (
    TUNINGS,
    Bar,
    Event,
    Metre,
    Part,
    Section,
    parse_length,
    parse_tuning,
    played_order,
    spell_length,
)
from clear_steps.core.score.tuning import bass_from


@given(st.fractions(min_value=Fraction(1, 96), max_value=8, max_denominator=96))
def test_a_spelled_length_reads_back(length: Fraction) -> None:
    assert parse_length(spell_length(length)) == length


@pytest.mark.parametrize(
    ("text", "quarters"),
    [
        ("q", "1"),
        ("e.", "3/4"),
        ("e3", "1/3"),
        ("s6", "1/6"),
        ("s5", "1/5"),
        ("q=e", "3/2"),
        ("h..", "7/2"),
        ("(5/7)", "5/7"),
    ],
)
def test_lengths_have_their_quarters(text: str, quarters: str) -> None:
    assert parse_length(text) == Fraction(quarters)


@pytest.mark.parametrize("name", TUNINGS)
def test_a_tuning_is_found_by_its_name_and_by_its_pitches(name: str) -> None:
    assert parse_tuning(name.upper()) == TUNINGS[name] == parse_tuning(TUNINGS[name].spelled)


@pytest.mark.parametrize("text", ["", "E2 A2", "E2 A2 D3 G3 B3 H4", "nonsense", "C9 C9 C9 C9"])
def test_a_tuning_that_is_none_is_refused(text: str) -> None:
    with pytest.raises(InvalidValueError, match="expected"):
        parse_tuning(text)


@pytest.mark.parametrize(("beats", "unit"), [(5, 0), (0, 4), (4, 3), (33, 4)])
def test_a_metre_that_is_none_is_refused(beats: int, unit: int) -> None:
    with pytest.raises(InvalidValueError, match="metre"):
        Metre(beats, unit)


def bar(**signs: object) -> Bar:
    return Bar(events=(Event(Fraction(4)),), **signs)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("bars", "played"),
    [
        ([bar(), bar()], (0, 1)),
        ([bar(repeat_start=True), bar(repeat_times=2), bar()], (0, 1, 0, 1, 2)),
        ([bar(), bar(repeat_times=3)], (0, 1, 0, 1, 0, 1)),
        (
            [bar(repeat_start=True), bar(endings=(1,), repeat_times=2), bar(endings=(2,)), bar()],
            (0, 1, 0, 2, 3),
        ),
        ([bar(), bar(repeat_start=True, repeat_times=2), bar(repeat_times=2)], (0, 1, 1, 2, 2)),
    ],
    ids=["straight", "repeat", "three times", "endings", "two repeats"],
)
def test_repeats_are_played_as_signed(bars: list[Bar], played: tuple[int, ...]) -> None:
    assert played_order(Part(bars=tuple(bars))) == played


def test_sections_are_played_as_counted_or_in_their_order() -> None:
    part = Part(bars=(bar(), bar(), bar()), sections=(Section("Verse", 0, 2), Section("Chorus", 2, None)))
    assert played_order(part) == (0, 1, 0, 1, 2)
    assert played_order(part, ("Chorus", "verse", "nowhere")) == (2, 0, 1, 0, 1)
    assert played_order(part, ("Chorus", "verse x1")) == (2, 0, 1)


def test_the_lower_half_depends_on_the_strings() -> None:
    assert [bass_from(strings) for strings in (4, 5, 6, 7, 8)] == [3, 3, 4, 4, 5]
