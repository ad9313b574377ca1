"""What is counted and beamed together."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from clear_steps.core.score import Metre, parse_length, spell_length, written_lengths


@pytest.mark.parametrize(
    ("metre", "groups"),
    [
        ("4/4", "1 1 1 1"),
        ("3/4", "1 1 1"),
        ("2/2", "2 2"),
        ("3/8", "3/2"),
        ("4/8", "1 1"),
        ("6/8", "3/2 3/2"),
        ("12/8", "3/2 3/2 3/2 3/2"),
        ("5/8", "1 3/2"),
        ("7/8", "1 1 3/2"),
        ("11/8", "1 1 1 1 3/2"),
        ("7/16", "1/2 1/2 3/4"),
        ("9/16", "3/4 3/4 3/4"),
    ],
)
def test_beats_or_twos_and_a_three(metre: str, groups: str) -> None:
    """Common practice, no source."""
    beats, unit = map(int, metre.split("/"))
    assert Metre(beats, unit).groups == tuple(Fraction(group) for group in groups.split())


@given(st.integers(1, 32), st.sampled_from([1, 2, 4, 8, 16, 32]))
def test_groups_fill_the_bar(beats: int, unit: int) -> None:
    assert sum(Metre(beats, unit).groups) == Metre(beats, unit).quarters


@given(st.fractions(Fraction(1, 32), 8, max_denominator=48))
def test_heads_last_as_long_as_the_length(length: Fraction) -> None:
    heads = written_lengths(length)
    assert sum(head.quarters for head in heads) == length
    if heads[0].value:
        spelled = "=".join(head.value + "." * head.dots + str(head.tuplet or "") for head in heads)
        assert (spelled, parse_length(spelled)) == (spell_length(length), length)
