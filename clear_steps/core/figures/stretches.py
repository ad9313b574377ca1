"""A stretch of columns, and the ones that bars and phrases give."""

from collections.abc import Iterator
from dataclasses import dataclass

from clear_steps.core.figures.columns import Stream

_LONGEST_PHRASE = 48  # columns


@dataclass(frozen=True, slots=True)
class Stretch:
    """From a column to another, both inclusive; `length` in ticks, at least to after where the last
    begins."""

    first: int
    last: int
    length: int
    bars: int = 0  # whole ones

    @property
    def columns(self) -> int:
        """How many."""
        return self.last - self.first + 1


def between(stream: Stream, first: int, last: int) -> Stretch:
    """From a column to another."""
    return Stretch(first, last, stream.columns[last].at + 1 - stream.columns[first].at)


def bars(stream: Stream) -> Iterator[Stretch]:
    """Every bar, from its first note to its end."""
    first = 0
    for _, _, end in stream.bars:
        after = stream.column_after(end, first)
        if after > first:
            yield Stretch(first, after - 1, end - stream.columns[first].at, 1)
        first = after


def phrases(stream: Stream) -> Iterator[Stretch]:
    """What lies between silences and long notes, and two of it together."""
    starts = [index for index, begins in enumerate(stream.phrase_starts) if begins]
    ends = [*[index - 1 for index in starts[1:]], len(stream.columns) - 1]
    for number, first in enumerate(starts):
        for last in ends[number : number + 2]:
            if last - first < _LONGEST_PHRASE:
                yield between(stream, first, last)
