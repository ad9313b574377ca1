"""Which figures lie within others, and in which order they are met."""

from collections.abc import Sequence
from fractions import Fraction

from clear_steps.core.figures.told import ComingBack, Figure


def is_within(figure: Figure, others: Sequence[Figure]) -> bool:
    """Whether every place of a figure lies in a place of one longer figure."""
    return any(_lies_in(figure, other) for other in others if other is not figure)


def as_met(found: ComingBack, played: Sequence[int]) -> tuple[Figure, ...]:
    """The figures in the order in which a player meets them; of those that begin together the longest
    first."""
    met = {bar: place for place, bar in reversed(list(enumerate(played)))}

    def when(figure: Figure) -> tuple[int, Fraction, int, Fraction]:
        first, last = figure.first.first, figure.first.last
        return met.get(first.bar, len(met)), first.onset, -last.bar, -last.onset

    return tuple(sorted(found.figures, key=when))


def _lies_in(figure: Figure, other: Figure) -> bool:
    return all(
        any(
            place.first >= around.first
            and place.last <= around.last
            and (place.first, place.last) != (around.first, around.last)
            for around in other.places
        )
        for place in figure.places
    )
