"""Rhythm, tunings, played order and what rings on."""

from dataclasses import replace
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
    Note,
    Part,
    Picking,
    Section,
    Technique,
    parse_length,
    parse_tuning,
    played_order,
    spell_length,
)
from clear_steps.core.score.ringing import Texture, bass_from, ringing_notes


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


def events(*notes: tuple[int, int] | None, how: frozenset[Technique] = frozenset()) -> tuple[Event, ...]:
    return tuple(Event(Fraction(1), (Note(*note),) if note else (), how) for note in notes)


def held_strings(written: tuple[Event, ...], guess: bool = True) -> list[list[int]]:
    return [
        [note.string for note in row.notes]
        for row in ringing_notes(Part(bars=(Bar(events=written),)), guess)[0]
    ]


def test_let_ring_lasts_to_the_next_note_on_its_own_string() -> None:
    ringing = frozenset({Technique.LET_RING})
    assert held_strings(events((3, 2), (2, 1), (3, 4), (1, 0), how=ringing)) == [[], [3], [2], [2, 3]]


def test_a_bass_under_far_strings_rings_to_the_next_bass_if_the_bar_does_so_twice() -> None:
    alternating = events((5, 3), (2, 1), (4, 2), (2, 3))
    assert held_strings(alternating) == [[], [5], [], [4]]
    assert held_strings(alternating, guess=False) == [[], [], [], []]
    assert held_strings(events((5, 3), (2, 1), (3, 2), (2, 3))) == [[], [], [], []]


def test_a_broken_chord_rings_to_the_change_of_grip_and_its_grip_is_down_from_the_first() -> None:
    chord = events((5, 3), (4, 2), (2, 1), (4, 2))
    assert held_strings(chord) == [[], [5], [5, 4], [5, 2]]
    row = ringing_notes(Part(bars=(Bar(events=chord),)))[0][0]
    assert [note.string for note in row.grip] == [4, 2]
    assert row.guessed == frozenset()
    two = chord + events((6, 3), (5, 2), (1, 3), (5, 2))
    bar = Bar(events=tuple(replace(event, quarters=Fraction(1, 2)) for event in two))
    rows = ringing_notes(Part(bars=(bar,)))[0]
    assert [note.string for note in rows[4].notes] == [], (
        "the 5th is stopped elsewhere: from the beat before on it is a new grip"
    )
    assert rows[7].guessed == {Texture.BROKEN_CHORD}


@pytest.mark.parametrize(
    "notes",
    [
        ((5, 3), (5, 5), (4, 2), (4, 5)),  # strings are stopped anew
        ((5, 3), (4, 8), (2, 1), (4, 8)),  # no hand is so wide
        ((5, 3), (4, 2), (5, 3), (4, 2)),  # two strings are no chord
    ],
)
def test_what_is_no_broken_chord_does_not_ring(notes: tuple[tuple[int, int], ...]) -> None:
    assert held_strings(events(*notes)) == [[], [], [], []]


def test_a_drone_rings_under_a_voice_that_moves_unless_a_pick_plays_a_line() -> None:
    line = events((4, 0), (3, 2), (4, 0), (3, 4), (4, 0), (3, 5), (4, 0), (3, 4))
    bar = Bar(events=line, metre=Metre(8, 4))
    strings = [[note.string for note in row.notes] for row in ringing_notes(Part(bars=(bar,)))[0]]
    assert strings[1::2] == [[4]] * 4
    picked = ringing_notes(Part(bars=(bar,), picking=Picking.PICK))[0]
    assert all(row.notes == () for row in picked)


def test_nothing_is_guessed_on_a_bass_and_the_lower_half_depends_on_the_strings() -> None:
    chord = events((4, 3), (3, 2), (2, 1), (3, 2))
    assert any(row.notes for row in ringing_notes(Part(bars=(Bar(events=chord),)))[0])
    bass = Part(bars=(Bar(events=chord),), tuning=TUNINGS["bass"])
    assert all(row.notes == () for row in ringing_notes(bass)[0])
    assert [bass_from(strings) for strings in (4, 5, 6, 7, 8)] == [3, 3, 4, 4, 5]


def test_what_is_written_to_ring_is_no_guess() -> None:
    """A broken chord under `let ring` was told as not written."""
    chord = events((5, 3), (4, 2), (2, 1), (4, 2), how=frozenset({Technique.LET_RING}))
    rows = ringing_notes(Part(bars=(Bar(events=chord),)))[0]
    assert [note.string for note in rows[3].notes] == [5, 2]
    assert all(row.guessed == frozenset() for row in rows)
