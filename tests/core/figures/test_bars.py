"""Bars of one shape, what is known before, and how much there is to learn."""

from dataclasses import replace
from fractions import Fraction
from itertools import chain

import pytest

from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import bars_known_before, bars_of_one_shape, moments_of_figures
from clear_steps.core.figures.columns import stream_of
from clear_steps.core.figures.learning import Learning
from clear_steps.core.score import Part, Technique
from tests.songs import line

QUARTER = Fraction(1)
TUNE, LOWER, OTHER = (
    ["3.5", "3.7", "2.5", "2.8"],
    ["3.3", "3.5", "2.3", "2.6"],
    ["1.0", "4.2", "1.3", "5.3"],
)


def part_of(*bars: list[str]) -> Part:
    return line(*chain.from_iterable(bars), length=QUARTER).parts[0]


def to_learn(*bars: list[str]) -> float:
    part = part_of(*bars)
    return Learning().bars_to_learn(part, range(len(part.bars)))


def test_bars_of_one_shape_know_by_how_many_frets_they_are_moved() -> None:
    part = part_of(TUNE, OTHER, LOWER, TUNE)
    assert bars_of_one_shape(part, coming_back(part)) == {0: (0, 0), 1: (1, 0), 2: (0, -2), 3: (0, 0)}
    assert bars_known_before(part, coming_back(part)) == {2, 3}


def test_notes_of_a_figure_are_those_of_all_its_places() -> None:
    part = part_of(TUNE, OTHER, TUNE)
    expected = {(bar, event) for bar in (0, 2) for event in range(4)}
    assert moments_of_figures(part, coming_back(part)) == expected


@pytest.mark.parametrize(
    ("bars", "count"),
    [
        ([TUNE], 1),
        ([TUNE, TUNE], 1),
        ([TUNE, LOWER], 1),
        ([TUNE, OTHER], 2),
        ([TUNE, ["4.5", "4.7", "3.5", "3.8"]], 1),  # a string thicker
        ([TUNE, ["2.13", "2.15", "1.12", "1.15"]], 1),  # an octave higher
        ([["r"] * 4, TUNE], 1),
    ],
)
def test_what_came_before_the_same_or_moved_need_not_be_learnt(bars: list[list[str]], count: int) -> None:
    assert to_learn(*bars) == count


def test_of_a_bar_that_differs_at_its_end_only_the_end_is_to_learn() -> None:
    tune = ["3.5", "3.7", "2.5", "2.8", "1.5", "1.8", "2.5", "3.5"]
    part = line(*tune, *tune[:6], "4.7", "5.7").parts[0]
    assert Learning().bars_to_learn(part, [0, 1]) == pytest.approx(1 + 2 / 8)


def test_what_begins_elsewhere_in_its_bar_is_half_to_learn() -> None:
    tune = ["3.5", "3.7", "2.5", "2.8", "1.5", "1.8", "2.5", "3.5"]
    part = line(*tune, "6.1", *tune[:7]).parts[0]
    assert Learning().bars_to_learn(part, [0, 1]) == pytest.approx(1 + 1 / 8 + 0.5 * 7 / 8)


def test_a_harmonic_is_another_note_than_the_fret_it_is_touched_over() -> None:
    part = part_of(["3.7", "3.7", "2.5", "3.7"])
    (bar,) = part.bars
    touched = replace(bar.events[1].notes[0], techniques=frozenset({Technique.NATURAL_HARMONIC}))
    events = (bar.events[0], replace(bar.events[1], notes=(touched,)), *bar.events[2:])
    plain, harmonic, _, again = stream_of(replace(part, bars=(replace(bar, events=events),))).kinds
    assert plain == again != harmonic
