"""Where a figure may begin and end: bars, phrases, cells that follow one another, and what comes
again."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from clear_steps.core.figures.chance import Chance
from clear_steps.core.figures.columns import Stream
from clear_steps.core.figures.seeds import Family, Seeds
from clear_steps.core.figures.stretches import Stretch, bars, between, phrases

_SEED_SIZES = (3, 6, 12)  # pairs of columns that bring two places together: the longest finds the likest
_LONGEST_CELL = 16  # columns
_SNAP = 0.25  # of its columns a stretch may be cut by to begin and end where something does
_PER_COLUMN = 2  # a column away costs so much of what begins there


def candidates(stream: Stream, seeds: Seeds, chance: Chance) -> list[Stretch]:
    """By where they begin; each where it is played first."""
    again = {row for row in _runs(stream, seeds) if chance.could_come_back(row)}
    cells = {row for row, copies in _cells(stream, seeds) if chance.could_come_back(row, copies)}
    firsts = {
        _where_first(stream, seeds.exact, row) for row in {*bars(stream), *phrases(stream), *cells, *again}
    }
    return sorted(firsts, key=lambda row: (row.first, row.last, row.length))


def _where_first(stream: Stream, exact: Family, stretch: Stretch) -> Stretch:
    """The same stretch where the same is struck first; bars where a bar begins."""
    own = exact.numbers[stretch.first : stretch.last]
    for place in exact.where[own[0]] if own else ():
        begins = stream.columns[place].first_of_bar or not stretch.bars
        if begins and exact.numbers[place : place + len(own)] == own:
            return replace(stretch, first=place, last=place + len(own))
    return stretch


def _cells(stream: Stream, seeds: Seeds) -> Iterator[tuple[Stretch, int]]:
    """Cells that come again at once, the same or moved, and how often they follow one another."""
    for family in (seeds.exact, seeds.moved, seeds.strings):
        for period in range(2, _LONGEST_CELL + 1):
            for start, run in periodic(family.numbers, period):
                if run >= period - 1:
                    yield _first_cell(stream, family, start, run, period), (run + 1) // period + 1


def periodic(numbers: Sequence[int], period: int) -> Iterator[tuple[int, int]]:
    """Every run of numbers that are the same a period later, as (where, how many)."""
    same = [place for place, (a, b) in enumerate(zip(numbers, numbers[period:], strict=False)) if a == b]
    if not same:
        return
    first = before = same[0]
    for place in same[1:]:
        if place != before + 1:
            yield first, before - first + 1
            first = place
        before = place
    yield first, before - first + 1


def _first_cell(stream: Stream, family: Family, start: int, run: int, period: int) -> Stretch:
    """The cell of a run that begins where most begins."""
    indexes = family.indexes
    free = min(run - (period - 1), period - 1)
    best = max(range(start, start + free + 1), key=lambda place: (stream.starts[indexes[place]], -place))
    after = best + period
    last = indexes[after] - 1 if after < len(indexes) else indexes[-1]
    return between(stream, indexes[best], last)


def _runs(stream: Stream, seeds: Seeds) -> Iterator[Stretch]:
    """Stretches that are the same, or the same moved, as far as they go, cut to begin and end where something
    does."""
    found = set()
    for family in seeds.families:
        for earlier, length in {row for size in _SEED_SIZES for row in _repeats(family.numbers, size)}:
            last = family.indexes[min(earlier + length, len(family.indexes) - 1)]
            found.add((family.indexes[earlier], last))
    for first, last in found:
        yield from _snapped(stream, first, last)


def _repeats(numbers: Sequence[int], size: int) -> Iterator[tuple[int, int]]:
    """Every stretch of `size` numbers or more that comes again after its end, as (where, how many)."""
    before: dict[tuple[int, ...], int] = {}
    reached: dict[int, int] = {}  # by distance, where the last ended
    for place in range(len(numbers) - size + 1):
        seed = tuple(numbers[place : place + size])
        earlier = before.get(seed)
        before[seed] = place
        if earlier is None or reached.get(place - earlier, -1) > place:
            continue
        length = size
        while place + length < len(numbers) and numbers[earlier + length] == numbers[place + length]:
            length += 1
        reached[place - earlier] = place + length
        length = min(length, place - earlier - 1)
        if length >= size:
            yield earlier, length


def _snapped(stream: Stream, first: int, last: int) -> Iterator[Stretch]:
    room = max(1, int(_SNAP * (last - first + 1)))
    start, strongest = first, stream.starts[first]
    for index in range(max(first - 1, 0), min(first + room, last - 1) + 1):
        strength = stream.starts[index] - _PER_COLUMN * abs(index - first)
        if strength > strongest:
            start, strongest = index, strength
    end, strongest = last, stream.starts_after(last)
    for index in range(max(last - room, first + 1), min(last + 1, len(stream.columns) - 1) + 1):
        strength = stream.starts_after(index) - _PER_COLUMN * abs(index - last)
        if strength > strongest:
            end, strongest = index, strength
    if end > start:
        yield between(stream, start, end)
