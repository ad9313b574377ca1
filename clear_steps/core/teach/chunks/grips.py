"""The grips that a part is strummed or picked on: a chunk of them goes on into the next, for a change is
what is hard (common practice, no source)."""

from bisect import bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from clear_steps.core.score import Part
from clear_steps.core.shapes import Kind, Shapes, Stretch, read_shapes
from clear_steps.core.teach.chunks.chunk import Struck

_RUN = "run"
_FEWEST_STRINGS = 3
_CUT_BARS = 3  # apart: what lasts longer may be cut
_LONG_BARS = 2  # apart: what lasts longer is led into by its first bar


@dataclass(frozen=True, slots=True)
class Gripped:
    """By moment: where its grip, or place of a grip, begins (`starts`, sorted, every moment in one); whether
    it is `held`; where in a long grip a bar begins (`bars`)."""

    starts: tuple[int, ...]
    held: tuple[bool, ...]  # of each of them
    bars: frozenset[int]
    between: frozenset[int]  # open strings and dead strokes between the places of an interval that is moved

    def _at(self, moment: int) -> int:
        return bisect_right(self.starts, moment) - 1

    def is_held(self, moment: int) -> bool:
        """Whether a moment is of a grip, or of a run between two."""
        return self.held[self._at(moment)]

    def are_held(self, start: int, after: int) -> bool:
        """Whether all of some moments are."""
        return all(self.held[self._at(start) : self._at(after - 1) + 1])

    def begins(self, moment: int) -> bool:
        """Whether a grip begins at a moment."""
        return moment in self.starts and self.is_held(moment)

    def is_inside(self, moment: int) -> bool:
        """Whether no chunk may begin there: a grip's pattern goes on, and no bar begins."""
        return self.is_held(moment) and moment not in self.starts and moment not in self.bars

    def count(self, start: int, after: int) -> int:
        """How many grips some moments are of."""
        return self._at(after - 1) - self._at(start) + 1

    def end_of(self, moment: int) -> int:
        """The moment after the last of the grip that a moment is of; no end to the last of all."""
        after = self._at(moment) + 1
        return self.starts[after] if after < len(self.starts) else 1_000_000


def gripped(part: Part) -> Gripped:
    """The grips of a part."""
    seen = read_shapes(part)
    starts, held = [], []
    for stretch in seen.stretches:
        own = _is_a_grip(seen, stretch)
        places = [place.first for place in stretch.places] if own and stretch.places else [stretch.first]
        starts += places
        held += [own] * len(places)
    for at in range(1, len(held) - 1):  # a run between two grips leads from one to the other
        run = any(stretch.first == starts[at] and stretch.name == _RUN for stretch in seen.stretches)
        held[at] = held[at] or (run and held[at - 1] and held[at + 1])
    moments = seen.moments
    bars = {
        at
        for first, after in pairwise([*starts, len(moments)])
        if moments[after - 1].bar - moments[first].bar >= _CUT_BARS
        for at in range(first + 1, after)
        if moments[at].bar != moments[at - 1].bar
    }
    return Gripped(tuple(starts), tuple(held), frozenset(bars), frozenset(_between(seen)))


def _between(seen: Shapes) -> Iterator[int]:
    for stretch in seen.stretches:
        if stretch.kind is Kind.CARRIED:
            places = range(stretch.first, stretch.last + 1)
            yield from (at for at in places if seen.moments[at].passes)


def _is_a_grip(seen: Shapes, stretch: Stretch) -> bool:
    """Whether a stretch is strummed or picked on a grip of three strings or more."""
    if stretch.grip is None or len(stretch.grip.frets) < _FEWEST_STRINGS:
        return False
    if stretch.kind is Kind.CARRIED:
        return seen.moments[stretch.first].chord != "" or len(stretch.grip.frets) > _FEWEST_STRINGS
    return True


def begins_anew(part: Part, rows: Sequence[Struck], index: int) -> bool:
    """Whether a section, a repeat or an ending begins before a moment and after the one before it."""
    between = range(rows[index - 1].at.bar + 1, rows[index].at.bar + 1) if index else ()
    return any(_something_new_begins(part, bar) for bar in between)


def _something_new_begins(part: Part, index: int) -> bool:
    bar, before = part.bars[index], part.bars[index - 1]
    return (
        bar.repeat_start
        or before.repeat_times != 0
        or before.double_bar
        or bar.endings != before.endings
        or any(section.first_bar == index for section in part.sections)
    )


def into_next(part: Part, rows: Sequence[Struck], grips: Gripped, first: int, after: int) -> int:
    """Where a chunk ends whose own moments are these: with the first bar of the grip that follows, if it is
    one of grips and nothing new begins there."""
    if after >= len(rows) or not grips.begins(after) or not grips.are_held(first, after):
        return after
    if begins_anew(part, rows, after):
        return after
    ends = min(grips.end_of(after), len(rows))
    if rows[ends - 1].at.bar - rows[after].at.bar < _LONG_BARS:
        return ends
    return next((at for at in range(after + 1, ends) if at in grips.bars), ends)
