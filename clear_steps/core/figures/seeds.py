"""Neighbouring columns by what they have in common: what two places must share for anybody to compare
them."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from clear_steps.core.figures.columns import Column, Stream

Key = Callable[[Column, Column], object]


@dataclass(frozen=True, slots=True)
class Family:
    """One way of being alike: `numbers` for every one of its columns (`indexes`, but the last) one that is
    the same wherever it and the next are alike; `where` it comes, and where two of them come together."""

    indexes: Sequence[int]
    numbers: Sequence[int]
    place_of: dict[int, int]  # in `numbers`, by column
    where: dict[int, list[int]]
    where_two: dict[tuple[int, int], list[int]]


class Seeds:
    """The families of a stream."""

    def __init__(self, stream: Stream) -> None:
        every = range(len(stream.columns))
        fretted = [index for index in every if stream.columns[index].fretted]
        self.exact = _family(stream, every, _exact)
        self.moved = _family(stream, fretted, _moved)
        self.shifted = _family(stream, every, _shifted)
        self.strings = _family(stream, every, _restrung)
        self.sung = _family(stream, [index for index in every if stream.columns[index].pitches], _sung)

    @property
    def families(self) -> tuple[Family, ...]:
        """From the narrowest."""
        return (self.exact, self.moved, self.shifted, self.strings, self.sung)

    @property
    def widest(self) -> tuple[Family, ...]:
        """Those that hold all the others together."""
        return (self.moved, self.shifted, self.strings, self.sung)


def _family(stream: Stream, indexes: Iterable[int], key: Key) -> Family:
    numbers: dict[object, int] = {}
    columns = stream.columns
    own, found = list(indexes), []
    where: dict[int, list[int]] = defaultdict(list)
    where_two: dict[tuple[int, int], list[int]] = defaultdict(list)
    for index, after in pairwise(own):
        a, b = columns[index], columns[after]
        number = numbers.setdefault((b.at - a.at, key(a, b)), len(numbers))
        found.append(number)
        where[number].append(index)
    for index, two in zip(own, pairwise(found), strict=False):
        where_two[two].append(index)
    return Family(own, found, {index: place for place, index in enumerate(own[:-1])}, where, where_two)


def _exact(a: Column, b: Column) -> object:
    return (a.spots, b.spots)


def _moved(a: Column, b: Column) -> object:
    """Open strings stay where they are."""
    low = min([fret for _, fret in a.fretted + b.fretted])
    return tuple([tuple([(string, fret - low) for string, fret in row.fretted]) for row in (a, b)])


def _shifted(a: Column, b: Column) -> object:
    """Open strings move with the others, as under a capo."""
    low = min([fret for _, fret, _ in a.spots + b.spots])
    return tuple([tuple([(string, fret - low, dead) for string, fret, dead in row.spots]) for row in (a, b)])


def _restrung(a: Column, b: Column) -> object:
    low = a.strings[0]
    return tuple([tuple([(string - low, fret, dead) for string, fret, dead in row.spots]) for row in (a, b)])


def _sung(a: Column, b: Column) -> object:
    low = a.pitches[0]
    return (low % 12, tuple([tuple([pitch - low for pitch in row.pitches]) for row in (a, b)]))
