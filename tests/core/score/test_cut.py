"""Short bars that a repeat cuts one bar into."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from clear_steps.core.score import Bar, BarLength, Event, Part, cut_bars

WHOLE = Fraction(4)


def bars(*rows: str) -> list[BarLength]:
    """`|:1` begins a repeat, `3:|` ends one, a bare number is a bar of so many quarters."""
    return [
        BarLength(Fraction(row.strip("|:")), WHOLE, row.startswith("|:"), row.endswith(":|")) for row in rows
    ]


@pytest.mark.parametrize(
    ("rows", "cut"),
    [
        (("1", "4", "3:|", "|:1", "4", "3:|"), {0, 2, 3, 5}),
        (("1", "4", "3"), {0, 2}),
        (("4", "3:|", "|:1", "4"), {1, 2}),
        (("4", "3:|", "|:2", "4"), set()),
        (("4", "3", "1", "4"), set()),
        (("1", "4", "4"), set()),
        (("4", "2", "4:|"), set()),
    ],
    ids=[
        "a tune in two parts",
        "the last bar makes up the pickup",
        "only across the repeat",
        "not enough",
        "no bar line",
        "a pickup alone",
        "in the middle",
    ],
)
def test_two_short_bars_across_a_repeat_make_a_whole_one(rows: tuple[str, ...], cut: set[int]) -> None:
    assert cut_bars(bars(*rows)) == cut


@given(st.lists(st.tuples(st.integers(1, 4), st.booleans(), st.booleans()), max_size=8))
def test_what_is_cut_is_short_and_has_its_other_half(rows: list[tuple[int, bool, bool]]) -> None:
    lengths = [BarLength(Fraction(quarters), WHOLE, begins, ends) for quarters, begins, ends in rows]
    cut = cut_bars(lengths)
    assert all(lengths[at].short for at in cut)
    assert all(
        any(lengths[at].quarters + lengths[other].quarters == WHOLE for other in cut if other != at)
        for at in cut
    )


def test_a_pickup_ends_with_its_metre_and_a_second_ending_begins_with_it() -> None:
    one, three = (Event(Fraction(1)),), (Event(Fraction(3)),)
    pickup, whole = Bar(events=one, pickup=True), Bar(events=(Event(WHOLE),))
    first = Bar(events=three, repeat_times=2, endings=(1,), pickup=True)
    second = Bar(events=three, endings=(2,), double_bar=True, pickup=True)
    part = Part(bars=(pickup, whole, first, second, pickup, whole))
    assert [part.starts_at(index) for index in range(6)] == [3, 0, 0, 0, 3, 0]
