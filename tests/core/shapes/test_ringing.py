"""What rings on: as written, or as the texture says."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.score import TUNINGS, Bar, Event, Metre, Note, Part, Picking, Technique
from clear_steps.core.shapes.ringing import Texture, ringing_notes


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


def test_nothing_is_guessed_on_a_bass() -> None:
    chord = events((4, 3), (3, 2), (2, 1), (3, 2))
    assert any(row.notes for row in ringing_notes(Part(bars=(Bar(events=chord),)))[0])
    bass = Part(bars=(Bar(events=chord),), tuning=TUNINGS["bass"])
    assert all(row.notes == () for row in ringing_notes(bass)[0])


def test_what_is_written_to_ring_is_no_guess() -> None:
    """A broken chord under `let ring` was told as not written."""
    chord = events((5, 3), (4, 2), (2, 1), (4, 2), how=frozenset({Technique.LET_RING}))
    rows = ringing_notes(Part(bars=(Bar(events=chord),)))[0]
    assert [note.string for note in rows[3].notes] == [5, 2]
    assert all(row.guessed == frozenset() for row in rows)


def test_a_chord_that_is_named_rings_whatever_bar_the_name_stands_in() -> None:
    chord = events((5, 3), (4, 2), (2, 1), (1, 0))
    named = (replace(chord[0], chord="C"), *chord[1:])
    alone = ringing_notes(Part(bars=(Bar(events=chord),)))
    both = ringing_notes(Part(bars=(Bar(events=named), Bar(events=chord))))
    assert not any(row.broken for row in alone[0]), "four notes that pass may be a tune"
    assert all(row.broken for row in (*both[0], *both[1]))
