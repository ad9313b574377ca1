"""All places of a stretch."""

from bisect import bisect_right
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from clear_steps.core.figures.chance import Chance
from clear_steps.core.figures.columns import Stream
from clear_steps.core.figures.likeness import As, Comparer, Likeness
from clear_steps.core.figures.seeds import Family, Seeds
from clear_steps.core.figures.stretches import Stretch

_ENOUGH_SEEDS, _ENOUGH_OF_MUCH, _ENOUGH_OF_ALL = (
    0.4,
    0.15,
    0.3,
)  # the share of its neighbours that a place must have
_MUCH = 7  # neighbours
_ALIKE, _ALIKE_MOVED = 0.6, 0.8  # the share of columns that must be the same
_LEAST = 2  # columns
_FEW, _CHAIN = 3, 3  # columns that must be the same where others differ, but in a chain of so many
WORTH = {As.EQUAL: 1.0, As.MOVED: 0.95, As.STRINGS: 0.9, As.PLACE: 0.85, As.OCTAVE: 0.85, As.RHYTHM: 0.4}
_OTHER_COSTS = 1.25  # columns that are alike


@dataclass(frozen=True, slots=True)
class Found:
    """A place: its first column, and how it is like the stretch."""

    first: int
    likeness: Likeness

    @property
    def worth(self) -> float:
        """What it spares the one who learns it, in columns."""
        return WORTH[self.likeness.how] * (self.likeness.matched - _OTHER_COSTS * self.likeness.other)


class Places:
    """Finds where stretches of one stream come back."""

    def __init__(self, stream: Stream, seeds: Seeds, chance: Chance) -> None:
        self._stream, self._seeds, self._chance = stream, seeds, chance
        self._comparer = Comparer(stream)
        self._known: dict[object, Likeness | None] = {}  # by the content of both

    def of(self, stretch: Stretch) -> list[Found]:
        """Later places of a stretch, none over another, that no chance explains."""
        if not stretch.bars and self._is_one_chord(stretch):
            return []
        found = [place for first in self._starts(stretch) if (place := self.at(stretch, first))]
        return self._apart(stretch, self._beyond_chance(stretch, found))

    def at(self, stretch: Stretch, first: int) -> Found | None:
        """The way in which it is most like what begins at a column, if it is at all."""
        contents = [self._stream.content(column, stretch.length) for column in (stretch.first, first)]
        key = (*contents, stretch.length)
        if key not in self._known:
            self._known[key] = _best(self._comparer.likenesses(stretch.first, first, stretch.length))
        likeness = self._known[key]
        return Found(first, likeness) if likeness else None

    def _starts(self, stretch: Stretch) -> list[int]:
        """Columns after the stretch from which on it may come."""
        columns = self._stream.columns
        start, found = columns[stretch.first].at, set()
        for family in self._seeds.widest:
            places = [
                family.place_of[index]
                for index in range(stretch.first, stretch.last)
                if index in family.place_of
            ]
            votes, most = self._votes(family, places)
            need = max(1.0, most)
            found |= {apart for apart, count in votes.items() if count >= need and apart >= stretch.length}
        index_at = self._stream.index_at
        return sorted(index_at[start + apart] for apart in found if start + apart in index_at)

    def _votes(self, family: Family, places: Sequence[int]) -> tuple[Counter[int], float]:
        """How often what stands at some places of a family comes again, by how many ticks later; and how
        often it must. Of much only what has two neighbours in common is looked at."""
        columns, numbers = self._stream.columns, family.numbers
        votes: Counter[int] = Counter()
        much = len(places) >= _MUCH
        for place in places[:-1] if much else places:
            index = family.indexes[place]
            two = (numbers[place], numbers[place + 1]) if much else (0, 0)
            where = family.where_two[two] if much else family.where[numbers[place]]
            at = columns[index].at
            votes.update([columns[other].at - at for other in where[bisect_right(where, index) :]])
        enough = _ENOUGH_OF_MUCH if much else _ENOUGH_SEEDS
        return votes, (_ENOUGH_OF_ALL if len(places) >= 2 * _MUCH else enough) * len(places)

    def _is_one_chord(self, stretch: Stretch) -> bool:
        own = self._stream.columns[stretch.first : stretch.last + 1]
        return len({column.spots for column in own}) == 1

    def _apart(self, stretch: Stretch, found: Sequence[Found]) -> list[Found]:
        """Without those that lie over a better one."""
        taken: list[int] = []
        kept = []
        for row in sorted(found, key=lambda row: (-row.worth, row.first)):
            start = self._stream.columns[row.first].at
            if all(abs(start - other) >= stretch.length for other in taken):
                taken.append(start)
                kept.append(row)
        return sorted(kept, key=lambda row: row.first)

    def _beyond_chance(self, stretch: Stretch, found: Sequence[Found]) -> list[Found]:
        """What follows its like at once, three times or more, needs less; so does what comes besides a
        place that is sure."""
        columns = self._stream.columns
        exact = {columns[row.first].at for row in found if not row.likeness.other}
        starts, period = {columns[stretch.first].at, *exact}, self._period(stretch)
        copies = {row.first: _copies(columns[row.first].at, starts, period) for row in found}

        def is_sure(row: Found, known: bool) -> bool:
            count = copies[row.first]
            if row.likeness.other and row.likeness.matched < _FEW and count < _CHAIN:
                return False
            return self._chance.bits(stretch, row.likeness) >= self._chance.needed(
                stretch, row.first, count, known
            )

        known = any(is_sure(row, known=False) for row in found if not row.likeness.other)
        return [row for row in found if is_sure(row, known)]

    def _period(self, stretch: Stretch) -> int:
        """Ticks after which it could begin anew at once; 0 at the end."""
        columns = self._stream.columns
        if stretch.bars:
            _, start, end = self._stream.bar_at(columns[stretch.first].at)
            return end - start
        after = stretch.last + 1
        return columns[after].at - columns[stretch.first].at if after < len(columns) else 0


def _copies(at: int, starts: set[int], period: int) -> int:
    """How many places follow one another at once around a tick."""
    if not period:
        return 1
    low = high = at
    while low - period in starts:
        low -= period
    while high + period in starts:
        high += period
    return (high - low) // period + 1


def _best(rows: Iterable[Likeness]) -> Likeness | None:
    """The one that differs least; the first of equals."""
    best = None
    for row in filter(_is_alike, rows):
        if best is None or row.other < best.other:
            best = row
        if not row.other:
            break
    return best


def _is_alike(row: Likeness) -> bool:
    share = _ALIKE if row.how is As.EQUAL else _ALIKE_MOVED
    moves = row.how not in (As.MOVED, As.STRINGS) or row.moving >= _LEAST
    return moves and row.matched >= max(_LEAST, share * row.columns)
