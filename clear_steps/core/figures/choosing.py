"""Which of all that comes back a teacher would name."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from clear_steps.core.figures.columns import Stream
from clear_steps.core.figures.finding import Found
from clear_steps.core.figures.likeness import As
from clear_steps.core.figures.stretches import Stretch, between

# From memory, set on tests/data/figures.
_MOSTLY, _LITTLE_LONGER = 0.8, 1.2  # shares of a stretch that lie over another, and of its length
_PLAIN, _PER_EDGE, _STRONGEST_EDGE = 0.5, 0.0625, 4  # what is worth more for where it begins and ends
_WHOLE_BAR = 1.15


@dataclass(frozen=True, slots=True)
class Coming:
    """A stretch and where it comes back; `starts`: ticks at which the places begin, the first one too;
    `sung` those with more than the same rhythm."""

    stretch: Stretch
    places: tuple[Found, ...]
    starts: tuple[int, ...]
    sung: frozenset[int]

    @property
    def same_elsewhere(self) -> set[tuple[int, int]]:
        """First and last column of the places that are the very same, or the same moved along the neck."""
        longer = self.stretch.last - self.stretch.first
        return {
            (place.first, place.first + longer)
            for place in self.places
            if not place.likeness.other and place.likeness.how in (As.EQUAL, As.MOVED)
        }


def coming(stream: Stream, stretch: Stretch, places: Sequence[Found]) -> Coming:
    """A stretch with its places."""
    start = stream.columns[stretch.first].at
    rows = [(stream.columns[place.first].at, place.likeness.how) for place in places]
    sung = frozenset([start, *(at for at, how in rows if how is not As.RHYTHM)])
    return Coming(stretch, tuple(places), (start, *(at for at, _ in rows)), sung)


def worth(stream: Stream, one: Coming) -> float:
    """How much is told by naming it: what need not be learnt again, and where it begins and ends."""
    stretch = one.stretch
    edges = (stream.starts[stretch.first], stream.starts_after(stretch.last))
    strength = sum(min(edge, _STRONGEST_EDGE) for edge in edges)
    told = sum(place.worth for place in one.places)
    return told * (_PLAIN + _PER_EDGE * strength) * (_WHOLE_BAR if stretch.bars else 1.0)


def ended(stream: Stream, one: Coming) -> Stretch:
    """Without its last bars where they differ in every place."""
    columns, stretch = stream.columns, one.stretch
    start = columns[stretch.first].at
    last = stretch.last
    alike_until = max(place.likeness.reach for place in one.places)
    while (
        last > stretch.first
        and columns[last].at - start > alike_until
        and any(c.first_of_bar for c in columns[stretch.first + 1 : last + 1])
    ):
        last = max(i for i in range(stretch.first, last + 1) if columns[i].first_of_bar) - 1
    return stretch if last == stretch.last else between(stream, stretch.first, last)


def chosen(stream: Stream, all_coming: Sequence[Coming]) -> list[Coming]:
    """From what is worth most on, each that tells something new; then without what is only a part of another,
    a cell over and over, or another cut."""
    kept: list[Coming] = []
    for one in sorted(all_coming, key=lambda row: -worth(stream, row)):
        if not any(says_the_same(stream, one, other) for other in kept):
            kept += _without_places_of(stream, one, kept)
    for one in sorted(kept, key=lambda row: row.stretch.columns):
        if any(one is not other and says_the_same(stream, one, other) for other in kept):
            kept.remove(one)
    kept = [row for row in kept if not any(_is_many_times(stream, row, other) for other in kept)]
    kept = [
        row for row in kept if stream.starts[row.stretch.first] or not _is_told_already(stream, row, kept)
    ]
    return sorted(kept, key=lambda row: (row.stretch.first, -row.stretch.last))


def _without_places_of(stream: Stream, one: Coming, kept: Sequence[Coming]) -> list[Coming]:
    """Itself without the places that are told already, by way of others as long, to be like its first; none
    where nothing is left."""
    told, size = {one.starts[0]}, 0
    while len(told) > size:
        size = len(told)
        for other in kept:
            if other.stretch.columns == one.stretch.columns and not told.isdisjoint(other.sung):
                told |= other.sung
    places = [place for place in one.places if stream.columns[place.first].at not in told]
    return [coming(stream, one.stretch, places)] if places else []


def says_the_same(stream: Stream, one: Coming, other: Coming) -> bool:
    """Whether every two places of one lie over two of the other at the same distance."""
    if len(one.starts) > len(other.sung):
        return False
    first, length, whole = one.starts[0], one.stretch.length, other.stretch.length
    for begin in other.sung:
        if begin - length < first < begin + whole:
            overlap = stream.columns_between(max(first, begin), min(first + length, begin + whole))
            if _is_enough(stream, one, other, overlap) and all(
                start - first + begin in other.sung for start in one.starts
            ):
                return True
    return False


def _is_enough(stream: Stream, one: Coming, other: Coming, overlap: int) -> bool:
    size, begin = one.stretch.columns, other.starts[0]
    theirs = stream.columns_between(begin, begin + other.stretch.length)
    return overlap >= _MOSTLY * size or (2 * overlap >= size and size <= _LITTLE_LONGER * theirs)


def _is_many_times(stream: Stream, one: Coming, cell: Coming) -> bool:
    """Whether it is a cell over and over, and no bar."""
    if one.stretch.bars or one is cell or cell.stretch.length * 2 > one.stretch.length + stream.beat:
        return False
    columns = stream.columns
    equal: dict[int, tuple[As, int, tuple[int, ...]]] = {cell.stretch.first: (As.EQUAL, 0, ())}
    equal |= {
        place.first: (place.likeness.how, place.likeness.by, place.likeness.but) for place in cell.places
    }
    index, copies, ways = one.stretch.first, 0, set()
    while index in equal and index <= one.stretch.last:
        ways.add(equal[index])
        copies += 1
        end = columns[index].at + cell.stretch.length
        while index < len(columns) and columns[index].at < end:
            index += 1
    return copies > 1 and len(ways) == 1 and index > one.stretch.last


def _is_told_already(stream: Stream, one: Coming, kept: Sequence[Coming]) -> bool:
    """Whether other figures lie over all of its places; what begins off the beat is then only another cut."""
    told = {tick for other in kept if other is not one for tick in _ticks(stream, other)}
    return all(tick in told for tick in _ticks(stream, one))


def _ticks(stream: Stream, one: Coming) -> Iterator[int]:
    """Where its places have columns."""
    for start in one.starts:
        first = stream.index_at[start]
        for index in range(first, stream.column_after(start + one.stretch.length, first)):
            yield stream.columns[index].at
