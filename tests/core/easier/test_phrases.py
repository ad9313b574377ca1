"""Kinds that make lines and phrases simpler, on hand-made bars."""

from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.easier.edit import applied
from clear_steps.core.easier.kinds.phrases import (
    another_octave,
    breath_before,
    like_before,
    octaves_to_line,
    percussion_out,
    root_on_strong_beats,
    straightened,
)  # fmt: skip
from clear_steps.core.easier.kinds.technique import bend_to_fret, bend_to_slide, smaller_bend
from clear_steps.core.easier.kinds.texture import muddy_out
from clear_steps.core.score import Bar, Bend, Event, Instrument, Note, Part, Section, Technique
from tests.songs import line

Kind = Callable[[Part, int], object]


def made(kind: Kind, part: Part, index: int = 0, which: int = 0) -> list[list[str]]:
    proposals = list(kind(part, index))  # type: ignore[call-overload]
    version = applied(part, proposals[which])
    assert version is not None
    assert all(bar.quarters == own.quarters for bar, own in zip(version.bars, part.bars, strict=True))
    return [
        ["+".join(f"{n.string}.{n.fret}" for n in reversed(event.notes)) or "r" for event in bar.events]
        for bar in version.bars
    ]


def none_of(kind: Kind, part: Part, index: int = 0) -> bool:
    return list(kind(part, index)) == []  # type: ignore[call-overload]


def test_a_bar_high_on_the_neck_goes_down_an_octave_as_a_whole_or_not_at_all() -> None:
    assert made(another_octave, line("1.12", "1.15", "2.13", "2.15", length=Fraction(1)).parts[0]) == [
        ["1.0", "1.3", "2.1", "2.3"]
    ]
    assert none_of(another_octave, line("1.12", "1.0").parts[0])


def test_a_bar_low_on_the_neck_goes_up_an_octave_where_the_frets_are_narrower() -> None:
    low = replace(
        line("6.1", "6.5", "5.3", "5.5", length=Fraction(1)).parts[0], instrument=Instrument.ELECTRIC
    )
    assert made(another_octave, low) == [["6.13", "6.17", "5.15", "5.17"]]
    assert none_of(another_octave, replace(low, instrument=Instrument.ACOUSTIC)), (
        "the body of the guitar is in the way"
    )
    assert none_of(another_octave, line("6.1", "6.0").parts[0])


def test_octaves_become_a_single_line_and_other_chords_stay() -> None:
    assert made(octaves_to_line, line("6.3+4.5", "5.3+3.5", "6.3+5.5", "r", length=Fraction(1)).parts[0]) == [
        ["4.5", "3.5", "6.3+5.5", "r"]
    ]


def test_an_alternating_bass_becomes_its_root_on_the_strong_beats() -> None:
    part = line("5.3+1.0", "4.2", "6.3+2.1", "4.2", length=Fraction(1)).parts[0]
    assert made(root_on_strong_beats, part) == [["5.3+1.0", "r", "5.3+2.1", "r"]]
    assert none_of(root_on_strong_beats, line("1.0", "2.1").parts[0])


def test_percussive_hits_are_left_out() -> None:
    dead = Note(4, 0, frozenset({Technique.DEAD}))
    part = Part(bars=(Bar(events=(Event(Fraction(2), (Note(1, 3),)), Event(Fraction(2), (dead,)))),))
    assert made(percussion_out, part) == [["1.3", "r"]]


def test_a_variation_becomes_the_ordinary_bar_but_a_phrase_keeps_its_end() -> None:
    ordinary = ("1.0", "1.3", "2.1", "2.3")
    part = line(*ordinary, "1.0", "1.3", "2.1", "1.7", *ordinary, length=Fraction(1)).parts[0]
    assert made(like_before, part, 1)[1] == list(ordinary)
    closing = line(*ordinary, "1.0", "1.3", "2.1", "1.7", length=Fraction(1)).parts[0]
    assert none_of(like_before, closing, 1)
    assert none_of(like_before, replace(part, sections=(Section("verse", 0), Section("chorus", 2))), 1)
    inside = line(*ordinary, "1.0", "1.5", "2.1", "2.3", length=Fraction(1)).parts[0]
    assert made(like_before, inside, 1)[1] == list(ordinary)
    assert none_of(
        like_before, line(*ordinary, "3.5", "3.7", "4.5", "4.7", *ordinary, length=Fraction(1)).parts[0], 1
    )


def test_more_notes_to_the_beat_become_four_quarters_of_it() -> None:
    events = tuple(Event(Fraction(1, 6), (Note(1, fret),)) for fret in range(6))
    rest = Event(Fraction(3))
    assert made(straightened, Part(bars=(Bar(events=(*events, rest)),))) == [
        ["1.0", "1.2", "1.3", "1.4", "r"]
    ]


def test_low_close_notes_are_left_out_over_the_bass_and_clear_ones_stay() -> None:
    assert made(
        muddy_out, line("6.3+5.2+2.3", "6.3+5.5", "5.3+4.5", "3.0+2.1", length=Fraction(1)).parts[0]
    ) == [["6.3+2.3", "6.3+5.5", "5.3+4.5", "3.0+2.1"]]


def test_triplets_are_straightened_beat_by_beat() -> None:
    third = Fraction(1, 3)
    events = (*tuple(Event(third, (Note(1, fret),)) for fret in (1, 2, 3)), Event(Fraction(3), (Note(2, 5),)))
    assert made(straightened, Part(bars=(Bar(events=events),))) == [["1.1", "1.3", "2.5"]]


@pytest.mark.parametrize(("which", "bend", "fret"), [(0, Bend(Fraction(4)), 5), (1, Bend(Fraction(2)), 7)])
def test_a_wide_bend_loses_its_release_and_then_its_width_but_not_its_target(
    which: int, bend: Bend, fret: int
) -> None:
    part = Part(
        bars=(Bar(events=(Event(Fraction(4), (Note(2, 5, bend=Bend(Fraction(4), released=True)),)),)),)
    )
    version = applied(part, list(smaller_bend(part, 0))[which])
    assert version is not None
    note = version.bars[0].events[0].notes[0]
    assert (note.bend, note.fret) == (bend, fret)


def test_the_hand_gets_time_before_a_bar() -> None:
    part = line("1.0", "1.3", "2.1", "2.3", "1.12", "1.12", "1.12", "1.12", length=Fraction(1)).parts[0]
    assert made(breath_before, part, 1)[0] == ["1.0", "1.3", "2.1", "r"]
    assert none_of(breath_before, part, 0)
    pickup = replace(part.bars[0], events=part.bars[0].events[:2], pickup=True)
    assert made(breath_before, replace(part, bars=(pickup, part.bars[1])), 1)[0] == ["1.0", "r"]
    tied = replace(
        part.bars[1],
        events=(replace(part.bars[1].events[0], notes=(Note(2, 3, tied=True),)), *part.bars[1].events[1:]),
    )
    assert none_of(breath_before, replace(part, bars=(part.bars[0], tied)), 1)


def test_no_bend_is_fretted_beyond_the_neck() -> None:
    note = Note(1, 21, bend=Bend(Fraction(2)))
    part = Part(bars=(Bar(events=(Event(Fraction(4), (note,)),)),), frets=22)
    assert list(bend_to_slide(part, 0)) == []
    assert made(bend_to_fret, part) == [["1.21"]]
    assert made(bend_to_fret, replace(part, frets=24)) == [["1.23"]]
