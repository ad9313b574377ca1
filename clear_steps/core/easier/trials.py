"""What is tried of plans and what is known of it: how high bars stand, what each choice keeps, each found
out once."""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from clear_steps.core.easier.heights import TOLERANCE, Heights
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.plans import Builder, Plan, Row, same
from clear_steps.core.easier.ways.scene import Scope
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import bars_of_one_shape
from clear_steps.core.score import Part, Role

_MOST_COMBINED = 240  # combinations of a group's options that are made, those first that seem to lose least
_SLACK = 1e-9
FREE = frozenset({Role.LINE, Role.BASS, Role.CHORD_MELODY})  # a bar may be treated by itself


@dataclass(frozen=True, slots=True)
class Planned:
    """A plan, what it makes, what that keeps, and whether it meets the target."""

    plan: Plan
    version: Part
    kept: float
    reached: bool
    highest: float


class Trials:
    """Tries the plans of one way; `began` is how high every bar stood at first, and nothing is made harder
    than it was, unless it stays below the ceiling."""

    def __init__(self, builder: Builder, heights: Heights, scores: KeptSoFar, began: Sequence[float]) -> None:
        self.builder, self.heights, self.scores = builder, heights, scores
        # By bars and the row they begin with: what each choice loses by itself.
        self._alone: dict[tuple[tuple[int, ...], tuple[int, ...]], list[tuple[float, Row]]] = {}
        self._glimpses: dict[tuple[object, ...], float] = {}
        self._shapes = bars_of_one_shape(builder.part, coming_back(builder.part))
        self._heights_at_first = heights.of(builder.part)
        self._began, self.ceiling = began, 1.0
        whole = heights.graded(builder.part)
        self.hand = whole.hand  # whose fingering is glimpsed at, whatever was tried
        self._song_at_first = whole.step

    def judged(self, plan: Plan, target: float) -> Planned:
        """What a plan makes, and whether that meets a target."""
        version = self.builder.made(plan)
        reached, highest = self.is_reached(version, target), self.heights.highest(version)
        return Planned(plan, version, self.scores.overall(version), reached, highest)

    def is_reached(self, version: Part, target: float) -> bool:
        """Whether the song and every bar stand at a target, none higher than it may nor the song than it
        did."""
        bars = enumerate(self.heights.of(version))
        most = min(target + TOLERANCE, self._song_at_first + _SLACK)
        return self.heights.graded(version).step <= most and not any(
            self.is_above(index, bar.level, target) for index, bar in bars
        )

    def is_above(self, index: int, level: float, limit: float) -> bool:
        """Whether a bar stands above a limit, or above where it may stand at all."""
        most = max(self._began[index], self.ceiling + TOLERANCE) + _SLACK
        return level > min(limit + TOLERANCE, most)

    def above(self, made: Part, bars: Sequence[int], limit: float) -> Iterator[int]:
        """The bars that stand above a limit, at a glimpse, those first that did in the song as it was."""
        began = self._heights_at_first
        for index in sorted(bars, key=lambda index: -began[index].level):
            if self.is_above(index, self._glimpsed(made, index), limit):
                yield index

    def any_above(self, made: Part, bars: Sequence[int], limit: float) -> bool:
        return any(True for _ in self.above(made, bars, limit))

    def level(self, made: Part, group: Sequence[int]) -> float:
        """How high the highest bar of a group stands, at a glimpse."""
        return max(self._glimpsed(made, index) for index in group)

    def _glimpsed(self, made: Part, index: int) -> float:
        key = (index, *map(id, made.bars[max(index - 1, 0) : index + 2]))
        if key not in self._glimpses:
            self._glimpses[key] = self.heights.glimpsed(made, index, self.hand).level
        return self._glimpses[key]

    def breaks_pattern(self, plan: Plan, bars: Sequence[int], made: Part) -> bool:
        """Whether bars that share a rhythm in a plan share it no longer; those of a line may."""
        if self.builder.roles[bars[0]] in FREE:
            return False
        return self.scores.patterns_broken(made) > self.scores.patterns_broken(self.builder.made(plan))

    def rows(
        self, plan: Plan, group: Sequence[int], milder: Row | None = None
    ) -> Iterator[tuple[float, Row]]:
        """All the choices of some bars that are no milder, each with what it keeps, what keeps most first."""
        milder = milder or Row(
            tuple(max(own) for own in zip(*(plan[at].options for at in group), strict=True))
        )
        key = (tuple(group), milder.options)
        if key not in self._alone:
            self._alone[key] = self._losses(group, milder)
        kept = self.scores.overall(self.builder.made(same(plan, group, milder)))
        for loss, row in self._alone[key]:
            yield kept - loss, row

    def _losses(self, group: Sequence[int], milder: Row) -> list[tuple[float, Row]]:
        """What each choice loses where all other bars are as they were: those that make the same bars once,
        none that makes several patterns of one."""
        plan = same(self.builder.nothing(), group, milder)
        before = self.builder.settled
        self.builder.settle(plan)
        axes = self._axes(plan, group, milder)
        begun = self.builder.made(plan)
        kept, broken = self.scores.overall(begun), self.scores.patterns_broken(begun)
        combined = sorted(itertools.product(*axes), key=lambda own: sum(loss for loss, _ in own))
        found: dict[tuple[int, ...], tuple[float, int, Row]] = {}
        for options in (tuple(option for _, option in own) for own in combined[:_MOST_COMBINED]):
            row = Row(options)
            made = self.builder.made(same(plan, group, row))
            if self.scores.patterns_broken(made) > broken and self.builder.roles[group[0]] not in FREE:
                continue
            key = tuple(id(made.bars[index]) for index in _touched(group, made))
            chosen = sum(map(bool, options))
            loss = kept - self.scores.overall(made) if key not in found else found[key][0]
            if key not in found or chosen < found[key][1]:
                found[key] = (loss, chosen, row)
        self.builder.settle(before)
        return [(loss, row) for loss, _, row in sorted(found.values(), key=lambda own: own[:2])]

    def _axes(self, plan: Plan, group: Sequence[int], milder: Row) -> list[list[tuple[float, int]]]:
        """By choice the options that do something to the group, and what each loses by itself."""
        begun = same(plan, group, milder)
        kept = self.scores.overall(self.builder.made(begun))
        axes = []
        for at, choice in enumerate(self.builder.choices[group[0]]):
            options = [(0.0, milder.options[at])]
            if choice.scope is Scope.RHYTHM:
                seen = {self._bars_of(begun, group)}
                further = range(milder.options[at] + 1, len(choice.options) + 1)
                for option in further if choice.ordered or not milder.options[at] else ():
                    tried = same(plan, group, milder.with_option(at, option))
                    if (bars := self._bars_of(tried, group)) not in seen:
                        seen.add(bars)
                        options.append((kept - self.scores.overall(self.builder.made(tried)), option))
            axes.append(options)
        return axes

    def _bars_of(self, plan: Plan, group: Sequence[int]) -> tuple[int, ...]:
        made = self.builder.made(plan)
        return tuple(id(made.bars[index]) for index in _touched(group, made))

    def alike(self, group: Sequence[int]) -> list[list[int]]:
        """The bars of a group that are the same, or the same moved along the neck, together."""
        found: dict[int, list[int]] = {}
        for index in group:
            found.setdefault(self._shapes[index][0], []).append(index)
        return list(found.values())

    def lost(self, version: Part, group: Sequence[int]) -> float:
        whole = self.builder.part
        return sum(
            self.scores.points_of(whole, index) - self.scores.points_of(version, index) for index in group
        )


def _touched(group: Sequence[int], made: Part) -> Iterator[int]:
    """The bars of a group and those after them, which may have to be struck anew."""
    yield from sorted({at for index in group for at in (index, index + 1) if at < len(made.bars)})
