"""Which figures lie within others, and in which order they are met."""

from collections.abc import Sequence

from clear_steps.core.figures.told import ComingBack, Figure


def is_within(figure: Figure, others: Sequence[Figure]) -> bool:
    """Whether every place of a figure lies in a place of one longer figure."""
    return any(_lies_in(figure, other) for other in others if other is not figure)


def as_met(found: ComingBack, played: Sequence[int]) -> tuple[Figure, ...]:
    """The figures in the order in which a player meets them; of those that begin together the longest
    first."""
    met = {bar: place for place, bar in reversed(list(enumerate(played)))}
    return tuple(
        sorted(found.figures, key=lambda figure: (_first_met(figure, met), -_bars(figure), -figure.times))
    )


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


def _first_met(figure: Figure, met: dict[int, int]) -> tuple[int, object]:
    return min((met.get(place.first.bar, len(met)), place.first.onset) for place in figure.places)


def _bars(figure: Figure) -> int:
    return figure.first.last.bar - figure.first.first.bar
