"""Local changes: where the best plan leaves a bar above the target, single notes and places give way, within
its pattern and its shapes."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace

from clear_steps.core.easier.beam import Beam, is_lower
from clear_steps.core.easier.heights import TOLERANCE, Height, Heights
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.planning import Planned
from clear_steps.core.easier.plans import Builder
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.easier.writing import Writing
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import bars_of_one_shape
from clear_steps.core.score import Part

_ROUNDS = 4


@dataclass(frozen=True, slots=True)
class _Taken:
    proposed: Proposed
    before: Height
    after: Height


class Local:
    """Goes over the bars that stand above a target, equal ones alike."""

    def __init__(
        self, builder: Builder, heights: Heights, scores: KeptSoFar, without: Collection[str]
    ) -> None:
        part = builder.part
        self._heights, self._scores, self._roles = heights, scores, builder.roles
        kinds = {name: kind for name, kind in KINDS.items() if name not in without}
        self.proposals = Proposals(part, kinds, scores, builder.roles)
        self._beam = Beam(part, heights, self.proposals, scores)
        self._shapes = bars_of_one_shape(part, coming_back(part))
        self._taken: list[_Taken] = []

    def lowered(self, planned: Planned, target: float) -> Planned:
        """What a plan made, with bars brought further down; as it was where that leads nowhere."""
        self._taken, version = [], self.proposals.known(planned.version)
        for _ in range(_ROUNDS):
            before = version
            version = self._once(version, target)
            if version is before or self._heights.reached(version, target):
                break
        highest = self._heights.highest(version)
        if highest > target + TOLERANCE:
            self._taken = []
            return planned
        return replace(
            planned, version=version, kept=self._scores.overall(version), reached=True, highest=highest
        )

    def _once(self, version: Part, target: float) -> Part:
        served: dict[int, tuple[int, Sequence[Proposed]]] = {}
        for bar in self._heights.of(version):
            index = bar.grade.index
            bar = self._heights.at(version, index)
            if bar.level <= target + TOLERANCE:
                continue
            first, _ = self._shapes[index]
            if first in served:
                version, bar = self._like(version, bar, target, *served[first])
            version, own = self._lower(version, bar, target)
            served.setdefault(first, (index, own))
        return version

    def _lower(self, version: Part, bar: Height, target: float) -> tuple[Part, Sequence[Proposed]]:
        way = next(self._beam.best_first(version, bar, target), None)
        if way is None:
            return version, ()
        for proposed in way.taken:
            version = self._take(version, proposed, bar.grade.index)
        return version, way.taken

    def _take(self, version: Part, proposed: Proposed, index: int) -> Part:
        before, after = self._heights.at(version, index), self._heights.at(proposed.version, index)
        self._taken.append(_Taken(proposed, before, after))
        return proposed.version

    def _like(
        self, version: Part, bar: Height, target: float, model: int, taken: Sequence[Proposed]
    ) -> tuple[Part, Height]:
        """The bar with what served one of its shape, as far as it fits and lowers it too."""
        index = bar.grade.index
        frets = self._shapes[index][1] - self._shapes[model][1]
        for proposed in taken:
            moved = [change.elsewhere(change.bar + index - model, frets) for change in proposed.changes]
            changes = tuple(change for change in moved if change)
            made = self.proposals.made(version, changes, index) if len(changes) == len(moved) else None
            after = self._heights.at(made, index) if made else bar
            if made is None or not is_lower(after.level, bar.level, target):
                break
            version = self._take(version, replace(proposed, changes=changes, version=made), index)
            bar = after
        return version, bar

    def write_down(self, writing: Writing, planned: Planned) -> None:
        """Add what was taken for this plan's version."""
        if writing.version.bars == planned.version.bars:
            return
        for taken in self._taken:
            writing.take_proposed(taken.proposed, taken.before, taken.after)
