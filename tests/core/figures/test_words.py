"""What comes back, in words."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.figures import coming_back
from clear_steps.core.figures.words import told_lines
from clear_steps.core.score import Part, Technique
from tests.songs import line

QUARTER = Fraction(1)
TUNE = ("3.5", "3.7", "2.5", "2.8")


def told(part: Part) -> list[str]:
    return told_lines(part, coming_back(part))


@pytest.mark.parametrize(
    ("second", "words"),
    [
        (TUNE, "bar 2: the same"),
        (("3.5", "3.7", "2.5", "2.10"), "bar 2: the same but for beat 4"),
        (("3.3", "3.5", "2.3", "2.6"), "bar 2: two frets lower"),
        (("3.6", "3.8", "2.6", "2.9"), "bar 2: one fret higher"),
        (("5.5", "5.7", "4.5", "4.8"), "bar 2: two strings thicker"),
        (("2.13", "2.15", "1.12", "1.15"), "bar 2: an octave higher"),
        (("4.10", "4.12", "3.9", "3.12"), "bar 2: the same notes elsewhere on the neck"),
    ],
)
def test_a_bar_that_comes_back_is_said(second: tuple[str, ...], words: str) -> None:
    assert told(line(*TUNE, *second, length=QUARTER).parts[0]) == ["Bar 1, twice", f"  {words}"]


@pytest.mark.parametrize(
    ("moments", "first"),
    [
        (["3.5", "3.7", "2.5"] * 4 + ["r"] * 4, "Beats 1 to 2 of bar 1, four times"),
        (["3.5", "3.7", "2.5", "2.8", "1.5"] * 2 + ["r"] * 6, "Beats 1 to 3 of bar 1, twice"),
        (["r", *["3.5", "3.7", "2.5", "2.8"] * 2], "The & of beat 1 to beat 3 of bar 1, twice"),
    ],
)
def test_a_stretch_below_the_bar_is_said_by_its_beats(moments: list[str], first: str) -> None:
    assert told(line(*moments).parts[0])[0] == first


def test_many_differences_are_counted() -> None:
    tune = ["3.5", "3.7", "2.5", "2.8", "1.5", "1.8", "2.5", "3.5"]
    other = [*tune[:5], "1.9", "1.10", "1.12"]
    assert told(line(*tune, *other).parts[0])[1] == (
        "  bar 2: the same but for three moments from the & of beat 3 on"
    )


def test_an_ornament_more_is_a_difference_and_muting_all_through_is_none() -> None:
    part = line(*TUNE, *TUNE, length=QUARTER).parts[0]
    first, second = part.bars

    def played(which: slice, technique: Technique) -> Part:
        events = tuple(
            replace(event, techniques=frozenset({technique})) if index in range(4)[which] else event
            for index, event in enumerate(second.events)
        )
        return replace(part, bars=(first, replace(second, events=events)))

    assert told(played(slice(2, 3), Technique.STACCATO))[1] == "  bar 2: the same but for beat 3"
    assert told(played(slice(0, 4), Technique.PALM_MUTE))[1] == "  bar 2: the same"


def test_one_note_elsewhere_is_no_figure() -> None:
    rest = ["r"] * 3
    assert told(line("6.3", *rest, "6.5", *rest, "6.3", *rest, length=QUARTER).parts[0]) == []


def test_a_sequence_is_said_as_its_rule() -> None:
    fours = [f"3.{fret}" for start in (0, 2, 4, 5) for fret in _four_from(start)]
    lines = told(line(*fours, length=Fraction(1, 4)).parts[0])
    assert lines[-1] == "Bar 1: four notes, start again one note later, upwards."


def _four_from(start: int) -> list[int]:
    scale = [0, 2, 4, 5, 7, 9, 11]
    return scale[scale.index(start) : scale.index(start) + 4]
