"""The ways to bring one bar down: a beam over proposals on top of one another."""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from clear_steps.core.easier.heights import TOLERANCE, Height, Heights
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.kinds import Kind
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.easier.rhythms import bars_of_one_rhythm, rhythm_of
from clear_steps.core.score import Part, Role

_MOST_EDITS = 6  # on top of one another before a bar is given up at a stair
_BEAM = 3  # ways kept at every depth
_WORTHLESS = 0.05  # a proposal that lowers a bar by less is none, unless that is all there is to go
_LOSS_FLOOR = 0.5
_SLACK = 1e-9


@dataclass(frozen=True, slots=True)
class Lowering:
    """Proposals taken for a bar, one on top of another, what they make, and the bar's height then, at a
    glimpse."""

    taken: tuple[Proposed, ...]
    version: Part
    kept: float
    height: Height

    @property
    def level(self) -> float:
        """How high the bar stands then."""
        return self.height.level


class Beam:
    """Finds ways for the bars of versions of one part; those of a pattern keep their rhythm."""

    def __init__(self, part: Part, heights: Heights, proposals: Proposals, scores: KeptSoFar) -> None:
        self._heights, self._proposals, self._scores = heights, proposals, scores
        groups = bars_of_one_rhythm(part, proposals.roles)
        steady = (group for group in groups if proposals.roles[group[0]] not in (Role.LINE, Role.BASS))
        self._steady = frozenset(index for group in steady for index in group)
        self._glimpses: dict[
            tuple[int, ...], Height
        ] = {}  # of a bar between its neighbours, each by its identity, at its tempo

    def best_first(self, version: Part, bar: Height, limit: float) -> Iterator[Lowering]:
        """Beam that bring a bar down, graded in full: to the limit, what keeps most first; where none leads
        there, what wins most for its loss."""
        kept = self._scores.overall(version)
        ways = self._ways(version, kept, bar, limit, (bar.grade.index,))
        good = [way for way in ways if way.level <= limit + TOLERANCE]
        if not good and _is_hard_to_enter(bar):
            ways = self._ways(version, kept, bar, limit, (bar.grade.index, bar.grade.index - 1))
            good = [way for way in ways if way.level <= limit + TOLERANCE]
        worth = partial(_worth, bar.level, kept)
        for way in (
            sorted(good, key=lambda way: (-way.kept, way.level))
            if good
            else sorted(ways, key=worth, reverse=True)
        ):
            if is_lower(self._heights.at(way.version, bar.grade.index).level, bar.level, limit):
                yield way

    def _ways(
        self, version: Part, kept: float, bar: Height, limit: float, changed: Sequence[int]
    ) -> list[Lowering]:
        """The ways of the first depth at which one reaches the limit, else of the last; the bars (indexes)
        that are changed for it are the bar itself and the one that leads into it."""
        index, worth = bar.grade.index, partial(_worth, bar.level, kept)
        hand = self._heights.graded(version).hand
        ways = [Lowering((), version, kept, bar)]
        for _ in range(_MOST_EDITS):
            grown: dict[tuple[int, ...], Lowering] = {}
            for way, at in itertools.product(ways, changed):
                for made in self._grown(way, index, at, hand, limit):
                    grown.setdefault(_surroundings(made.version, index), made)  # the smaller edits first
            if not grown:
                break
            ways = list(grown.values())
            if any(way.level <= limit + TOLERANCE for way in ways):
                break
            ways = sorted(ways, key=worth, reverse=True)[:_BEAM]
        return [way for way in ways if way.taken]

    def _grown(self, way: Lowering, index: int, changed: int, hand: int, limit: float) -> list[Lowering]:
        """Proposals for a changed bar on top of a way that lower the bar itself and hang together, least loss
        first, until dearer ones cannot be chosen."""
        grown: list[Lowering] = []
        for proposed in sorted(
            self._proposals.of(way.version, changed, partial(_can_lower, way.height)),
            key=lambda proposed: -proposed.kept,
        ):
            if any(made.level <= limit + TOLERANCE and made.kept > proposed.kept for made in grown):
                break
            if proposed.kept > way.kept + _SLACK:
                continue  # what gives nothing up is no step down: along a staircase nothing comes back
            if changed in self._steady and rhythm_of(proposed.version.bars[changed]) != rhythm_of(
                way.version.bars[changed]
            ):
                continue
            key = (hand, index, *_surroundings(proposed.version, index))
            if key not in self._glimpses:
                self._glimpses[key] = self._heights.glimpsed(proposed.version, index, hand)
            height = self._glimpses[key]
            if is_lower(height.level, way.level, limit):
                grown.append(Lowering((*way.taken, proposed), proposed.version, proposed.kept, height))
        return grown


def _is_hard_to_enter(bar: Height) -> bool:
    """Whether what holds it up comes with its first note, so that the bar before bears on it."""
    place = bar.grade.findings[bar.measure].place
    return bar.grade.index > 0 and place is not None and place.onset == 0


def is_lower(level: float, before: float, limit: float) -> bool:
    """Whether a bar is brought down by enough to be worth an edit, or to the limit."""
    return level <= before - _WORTHLESS or level <= limit + TOLERANCE < before


def _surroundings(version: Part, index: int) -> tuple[int, ...]:
    """A bar between its neighbours, by the identity of each."""
    return tuple(map(id, version.bars[max(index - 1, 0) : index + 2]))


def _can_lower(bar: Height, kind: Kind) -> bool:
    """Whether what a kind leaves as it is does not hold the bar up by itself."""
    return (
        bar.measure not in kind.leaves
        if bar.limit
        else bar.grade.step_of(kind.leaves) <= bar.level - _WORTHLESS
    )


def _worth(start: float, kept: float, way: Lowering) -> float:
    """Steps won for what is lost; a little loss is never worth endless much."""
    return (start - way.level) / (kept - way.kept + _LOSS_FLOOR)
