"""Texts of hasty and hostile hands are read in bounded work, whatever stands in them."""

from collections import Counter
from fractions import Fraction

import pytest

from clear_steps.formats.tabtext import spacing
from clear_steps.formats.tabtext.reader import read_what_can_be
from clear_steps.formats.tabtext.spacing import MOST_HOLDS, SpacedBar, rhythms_from_spacing
from tests.formats.clumsy import clumsy


@pytest.mark.parametrize("first", range(0, 400, 50))
def test_clumsy_texts_are_read_or_told(first: int) -> None:
    read = 0
    for seed in range(first, first + 50):
        found = clumsy(seed)
        reading, problems = read_what_can_be(found.text)
        assert reading or problems, seed
        read += reading is not None
    assert read > 25  # the texts are tabs, not noise


@pytest.fixture
def holds(monkeypatch: pytest.MonkeyPatch) -> Counter[str]:
    """How often a column was held to a grid."""
    counted: Counter[str] = Counter()
    hold = spacing._Grid.hold

    def counting(self: spacing._Grid, column: int) -> tuple[int, int] | None:
        counted["holds"] += 1
        return hold(self, column)

    monkeypatch.setattr(spacing._Grid, "hold", counting)
    return counted


def slipping(notes: int) -> SpacedBar:
    """A bar that fits no grid but for its last notes, so that every grid is held to nearly all of it."""
    columns = tuple(range(2, 2 + 4 * notes, 4))
    return SpacedBar((*columns[:-1], columns[-1] + 1), 4 * notes + 5, Fraction(4))


@pytest.mark.parametrize("notes", [3, 8, 16, 32, 33, 200])
def test_a_bar_is_held_to_a_bounded_number_of_grids(holds: Counter[str], notes: int) -> None:
    rhythms_from_spacing([slipping(notes)])
    assert holds["holds"] <= MOST_HOLDS * notes


def test_the_bound_is_reached(holds: Counter[str]) -> None:
    worst = 0.0
    for notes in range(2, 33):
        for width in range(2 * notes, 6 * notes):
            holds.clear()
            columns = tuple(range(2, 2 + notes))
            rhythms_from_spacing([SpacedBar(columns, max(width, columns[-1] + 1), Fraction(4))])
            worst = max(worst, holds["holds"] / notes)
    assert MOST_HOLDS / 4 < worst <= MOST_HOLDS
