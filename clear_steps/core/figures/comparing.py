"""How one stretch of a part, as written, is like another."""

from clear_steps.core.figures.chance import Chance
from clear_steps.core.figures.columns import stream_of
from clear_steps.core.figures.finding import Places
from clear_steps.core.figures.likeness import As
from clear_steps.core.figures.seeds import Seeds
from clear_steps.core.figures.stretches import between
from clear_steps.core.figures.told import At, Place, moment_at
from clear_steps.core.score import Part


class Compared:
    """Compares stretches of one part, every bar taken once."""

    def __init__(self, part: Part) -> None:
        self._stream = stream_of(part)
        self._places = Places(self._stream, Seeds(self._stream), Chance(self._stream))
        self._index = {At(column.bar, column.onset): at for at, column in enumerate(self._stream.columns)}

    def place(self, first: tuple[At, At], later: tuple[At, At]) -> Place | None:
        """The later stretch as a place of the first, of as many columns; None where it is another."""
        a, a_last, b, b_last = (self._index[at] for at in (*first, *later))
        ats = self._stream.ats
        if a_last - a != b_last - b or ats[a_last] - ats[a] != ats[b_last] - ats[b]:
            return None
        found = self._places.at(between(self._stream, a, a_last), b)
        if not found or found.likeness.how is As.RHYTHM:
            return None
        likeness, start = found.likeness, ats[b]
        ticks = sorted({start + tick for tick in (*likeness.but, *likeness.otherwise)})
        but = tuple(moment_at(self._stream, tick) for tick in ticks)
        return Place(*later, likeness.how, likeness.by, but)
