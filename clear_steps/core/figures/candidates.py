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
    coming_again = {row for row in _runs(stream, seeds) if chance.could_come_back(row)}
    found = {*bars(stream), *phrases(stream), *_cells(stream, seeds), *coming_again}
    firsts = {_where_first(stream, seeds.exact, row) for row in found}
    return sorted(firsts, key=lambda row: (row.first, row.last, row.length))


def _where_first(stream: Stream, exact: Family, stretch: Stretch) -> Stretch:
    """The same stretch where the same is struck first; bars where a bar begins."""
    own = exact.numbers[stretch.first : stretch.last]
    for place in exact.where[own[0]] if own else ():
        begins = stream.columns[place].first_of_bar or not stretch.bars
        if begins and exact.numbers[place : place + len(own)] == own:
            return replace(stretch, first=place, last=place + len(own))
    return stretch


def _cells(stream: Stream, seeds: Seeds) -> Iterator[Stretch]:
    """Cells that come again at once, the same or moved, two times or more."""
    for family in (seeds.exact, seeds.moved, seeds.strings):
        for period in range(2, _LONGEST_CELL + 1):
            for start, run in periodic(family.numbers, period):
                if run >= period - 1:
                    yield _first_cell(stream, family, start, run, period)


def periodic(numbers: Sequence[int], period: int) -> Iterator[tuple[int, int]]:
    """Every run of numbers that are the same a period later, as (where, how many)."""
    run = 0
    for place, same in enumerate([*map(int.__eq__, numbers, numbers[period:]), False]):
        if same:
            run += 1
        elif run:
            yield place - run, run
            run = 0


def _first_cell(stream: Stream, family: Family, start: int, run: int, period: int) -> Stretch:
    """The cell of a run that begins where most begins."""
    indexes = family.indexes
    free = min(run - (period - 1), period - 1)
    best = max(range(start, start + free + 1), key=lambda place: (stream.starts[indexes[place]], -place))
    after = best + period
    last = indexes[after] - 1 if after < len(indexes) else indexes[-1]
    return between(stream, indexes[best], last)


def _runs(stream: Stream, seeds: Seeds) -> Iterator[Stretch]:
    """Stretches that are the same, or the same moved, as far as they go, cut to begin and end where
    something does."""
    for family in seeds.families:
        for size in _SEED_SIZES:
            for earlier, length in _repeats(family.numbers, size):
                last = family.indexes[min(earlier + length, len(family.indexes) - 1)]
                yield from _snapped(stream, family.indexes[earlier], last)


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
    starts = range(max(first - 1, 0), min(first + room, last - 1) + 1)
    ends = range(max(last - room, first + 1), min(last + 1, len(stream.columns) - 1) + 1)

    def by_distance(strength: int, apart: int) -> tuple[int, int]:
        return strength - _PER_COLUMN * abs(apart), -abs(apart)

    start = max(starts, key=lambda index: by_distance(stream.starts[index], index - first))
    end = max(ends, key=lambda index: by_distance(stream.starts_after(index), index - last))
    if end > start:
        yield between(stream, start, end)
