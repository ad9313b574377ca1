"""Lines: what is played within the reach of one place of the hand after another."""

from collections.abc import Iterator, Sequence

from clear_steps.core.shapes.moments import HAND_FRETS, Moment
from clear_steps.core.shapes.naming import position_name
from clear_steps.core.shapes.stretch import Kind, Stretch


def lines(moments: Sequence[Moment], first: int, last: int) -> Iterator[Stretch]:
    """Lines, each within the reach of one place of the hand."""
    begin, frets = first, list[int]()
    for at in range(first, last + 1):
        more = list(moments[at].frets.values())
        stopped = [fret for fret in (*frets, *more) if fret]
        if frets and stopped and max(stopped) - min(stopped) > HAND_FRETS:
            yield _position(begin, at - 1, frets)
            begin, frets = at, []
        frets = frets + more
    yield _position(begin, last, frets)


def _position(first: int, last: int, frets: list[int]) -> Stretch:
    name = position_name(frets)
    return Stretch(first, last, Kind.POSITION if name else Kind.OPEN, name)
