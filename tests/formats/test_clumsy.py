"""Texts of hasty and hostile hands are read in bounded work, whatever stands in them."""

from collections import Counter
from fractions import Fraction
from typing import Any

import pytest

from clear_steps.formats.tabtext import spacing
from clear_steps.formats.tabtext.reader import read_what_can_be
from clear_steps.formats.tabtext.spacing import MOST_GRIDS, SpacedBar, rhythms_from_spacing
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
def laid(monkeypatch: pytest.MonkeyPatch) -> Counter[str]:
    """How many grids were laid, and how many columns held to them."""
    counted: Counter[str] = Counter()
    lay, hold = spacing._Grid.__init__, spacing._Grid.hold

    def laying(self: spacing._Grid, *values: Any) -> None:
        counted["grids"] += 1
        lay(self, *values)

    def holding(self: spacing._Grid, column: int) -> tuple[int, int] | None:
        counted["holds"] += 1
        return hold(self, column)

    monkeypatch.setattr(spacing._Grid, "__init__", laying)
    monkeypatch.setattr(spacing._Grid, "hold", holding)
    return counted


def slipping(notes: int) -> SpacedBar:
    """A bar that fits no grid but for its last notes, so that every grid is held to nearly all of it."""
    columns = tuple(range(2, 2 + 4 * notes, 4))
    return SpacedBar((*columns[:-1], columns[-1] + 1), 4 * notes + 5, Fraction(4))


@pytest.mark.parametrize("notes", [3, 8, 16, 32, 33, 200])
def test_a_bounded_number_of_grids_is_laid_over_a_bar(laid: Counter[str], notes: int) -> None:
    rhythms_from_spacing([slipping(notes)])
    assert laid["grids"] <= MOST_GRIDS
    assert laid["holds"] <= 2 * notes * laid["grids"]


def test_the_bound_is_reached_and_never_passed(laid: Counter[str]) -> None:
    worst = 0
    for notes in range(2, 33):
        for width in range(2 * notes, 6 * notes):
            laid.clear()
            columns = tuple(range(2, 2 + notes))
            rhythms_from_spacing([SpacedBar(columns, max(width, columns[-1] + 1), Fraction(4))])
            worst = max(worst, laid["grids"])
    assert worst == MOST_GRIDS
