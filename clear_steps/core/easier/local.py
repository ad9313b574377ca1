"""Local changes: where the best plan leaves a bar above the target, single notes and places give way, within
its pattern and its shapes."""

import itertools
from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace

from clear_steps.core.easier.beam import Beam
from clear_steps.core.easier.heights import TOLERANCE, Height
from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.proposals import Proposals, Proposed
from clear_steps.core.easier.trials import Planned, Trials
from clear_steps.core.easier.writing import Writing
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import bars_of_one_shape
from clear_steps.core.score import Part

_ROUNDS = 4
_MOST_WAYS = 3  # that are tried for bars that are the same


@dataclass(frozen=True, slots=True)
class _Taken:
    proposed: Proposed
    before: Height
    after: Height


class Local:
    """Goes over the bars that stand above a target, equal ones alike."""

    def __init__(
        self, trials: Trials, without: Collection[str], refused: Collection[tuple[int, str]]
    ) -> None:
        part, self._trials = trials.builder.part, trials
        self._heights, self._scores = trials.heights, trials.scores
        kinds = {name: kind for name, kind in KINDS.items() if name not in without}
        self.proposals = Proposals(part, kinds, trials.scores, trials.builder.roles, refused)
        self._beam = Beam(part, trials.heights, self.proposals, trials.scores)
        self._shapes = bars_of_one_shape(part, coming_back(part))
        self._taken: list[_Taken] = []

    def lowered(self, begun: Sequence[Planned], target: float) -> Planned:
        """What one of some plans made, the one from which that keeps most, with bars brought further down;
        the last of the plans as it was where none leads there."""
        best, taken = begun[-1], list[_Taken]()
        for planned in begun:
            made = self._lowered(planned, target)
            if made is not None and (not best.reached or made.kept > best.kept):
                best, taken = made, self._taken
        self._taken = taken
        return best

    def _lowered(self, planned: Planned, target: float) -> Planned | None:
        self._taken, version = [], self.proposals.known(planned.version)
        for _ in range(_ROUNDS):
            before = version
            version = self._once(version, target)
            if version is before or self._heights.reached(version, target):
                break
        if not self._trials.is_reached(version, target):
            return None
        kept, highest = self._scores.overall(version), self._heights.highest(version)
        return replace(planned, version=version, kept=kept, reached=True, highest=highest)

    def _once(self, version: Part, target: float) -> Part:
        """Of bars that are the same the highest is lowered, and what serves it serves the others, or nothing
        is done."""
        for alike in self._alike():
            heights = self._heights.of(version)
            model = max(alike, key=lambda index: heights[index].level)
            if heights[model].level <= target + TOLERANCE:
                continue
            ways = itertools.islice(self._beam.best_first(version, heights[model], target), _MOST_WAYS)
            for way in ways:
                taken = self._taken_alike(version, way.taken, alike, model)
                if taken:
                    self._taken += taken
                    version = taken[-1].proposed.version
                    break
        return version

    def _taken_alike(
        self, version: Part, taken: Sequence[Proposed], alike: Sequence[int], model: int
    ) -> list["_Taken"]:
        """What serves a bar done to it and to all it is like; nothing where one written the same cannot
        follow."""
        found: list[_Taken] = []
        for proposed in taken:
            found.append(self._take(version, proposed, model))
            version = proposed.version
        for index in (own for own in alike if own != model):
            own = self._as(version, index, model, taken)
            if len(own) < len(taken) and self._shapes[index] == self._shapes[model]:
                return []
            found += own
            version = own[-1].proposed.version if own else version
        return found

    def _alike(self) -> list[list[int]]:
        found: dict[int, list[int]] = {}
        for index, (first, _) in self._shapes.items():
            found.setdefault(first, []).append(index)
        return list(found.values())

    def _take(self, version: Part, proposed: Proposed, index: int) -> "_Taken":
        return _Taken(proposed, self._heights.at(version, index), self._heights.at(proposed.version, index))

    def _as(self, version: Part, index: int, model: int, taken: Sequence[Proposed]) -> list["_Taken"]:
        """What served the bar it is like done to a bar, as far as it fits."""
        frets = self._shapes[index][1] - self._shapes[model][1]
        found: list[_Taken] = []
        for proposed in taken:
            moved = [change.elsewhere(change.bar + index - model, frets) for change in proposed.changes]
            changes = tuple(change for change in moved if change)
            made = self.proposals.made(version, changes, index) if len(changes) == len(moved) else None
            if made is None:
                break
            found.append(self._take(version, replace(proposed, changes=changes, version=made), index))
            version = made
        return found

    def write_down(self, writing: Writing, planned: Planned) -> None:
        """Add what was taken for this plan's version."""
        if writing.version.bars == planned.version.bars:
            return
        for taken in self._taken:
            writing.take_proposed(taken.proposed, taken.before, taken.after)
