"""The search over plans: for every group of bars that choose together the options that keep most and still
meet the target; then whatever the target leaves room for comes back.

What is tried is bounded by count, never by the clock, and looks at no order but that of the bars.
"""

import itertools
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.easier.heights import TOLERANCE, Heights
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.plans import Builder, Plan, Row, same
from clear_steps.core.easier.rewriting import struck_onsets
from clear_steps.core.easier.rhythms import bars_that_choose_together
from clear_steps.core.easier.ways.scene import Scope
from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import bars_of_one_shape
from clear_steps.core.score import Part, Role

_MOST_COMBINED = 240  # combinations of a group's options that are made, those first that seem to lose least
_ROUNDS = 3  # over all groups, since fingers change with neighbours
_FEW = 3  # at most one bar in so many goes further than its group
_LOWERINGS = 12  # of the bars' limit, for the song's sake
_SHARE_OF_OVER = 0.5  # by which it is lowered at once
_LEAST_LOWERING = 0.1
_SLACK = 1e-9
_LEAST_GAIN = 0.01  # points of what is kept, for something to come back
_GIVEN_BACK_TRIES = 6  # choices of a group that are graded in full to be given back
_MORE_NOTES = 4  # onsets a group may get back, one at a time


_PATTERNED = frozenset({Role.STRUM, Role.PICKED})
_FREE = frozenset({Role.LINE, Role.BASS, Role.CHORD_MELODY})  # a bar may be treated by itself


@dataclass(frozen=True, slots=True)
class Planned:
    """A plan, what it makes, what that keeps, and whether it meets the target."""

    plan: Plan
    version: Part
    kept: float
    reached: bool
    highest: float


class Planner:
    """Searches the plans of one way; `began` is how high every bar stood at first."""

    def __init__(
        self,
        builder: Builder,
        heights: Heights,
        scores: KeptSoFar,
        began: Sequence[float],
        tell: Callable[[], None],
    ) -> None:
        self._builder, self._heights, self._scores, self._tell = builder, heights, scores, tell
        self._groups = bars_that_choose_together(builder.part, builder.roles)
        # By bars and the row they begin with: what each choice loses by itself.
        self._alone: dict[tuple[tuple[int, ...], tuple[int, ...]], list[tuple[float, Row]]] = {}
        self._glimpses: dict[tuple[object, ...], float] = {}
        self._shapes = bars_of_one_shape(builder.part, coming_back(builder.part))
        self._heights_at_first = heights.of(builder.part)
        self._began, self.ceiling = began, 1.0  # nothing is made harder than it was, unless it stays below
        self.hand = heights.graded(builder.part).hand  # whose fingering is glimpsed at, whatever was tried

    def lowered(self, begun: Plan, target: float) -> Planned:
        """The plan that keeps most at a target, no milder anywhere than the one it begins with."""
        best: Planned | None = None
        for whole in self._of_the_song(begun):
            bound = self._scores.overall(self._builder.made(whole))
            if best and best.reached and best.kept >= bound:
                break  # what follows keeps less before anything else is given up
            found = self._from(whole, target)
            if best is None or _is_better(found, best):
                best = found
        assert best is not None  # the plan it began with is one
        return best

    def _of_the_song(self, begun: Plan) -> list[Plan]:
        """Plans with every combination of what the song chooses as a whole, what keeps most first."""
        axes = []
        for choice in sorted(self._song_choices()):
            count, milder = (
                self._song_choices()[choice],
                max(row.options[choice] for row in begun if self._has(row, choice)),
            )
            axes.append([(choice, option) for option in range(milder, count + 1)])
        plans = []
        for combination in itertools.product(*axes):
            plan = begun
            for choice, option in combination:
                plan = tuple(
                    row.with_option(choice, option) if self._chooses(index, choice) else row
                    for index, row in enumerate(plan)
                )
            plans.append(plan)
        kept = {id(plan): self._scores.overall(self._builder.made(plan)) for plan in plans}
        return sorted(plans, key=lambda plan: -kept[id(plan)])

    def _song_choices(self) -> dict[int, int]:
        """By place among the choices of its role: how many options the song chooses from as a whole."""
        return {
            at: len(choice.options)
            for own in self._builder.choices
            for at, choice in enumerate(own)
            if choice.scope is Scope.SONG
        }

    def _chooses(self, index: int, choice: int) -> bool:
        own = self._builder.choices[index]
        return choice < len(own) and own[choice].scope is Scope.SONG

    def _has(self, row: Row, choice: int) -> bool:
        return choice < len(row.options)

    def _from(self, plan: Plan, target: float) -> Planned:
        """Down from a plan: bars first, then further for the song's sake, then back up."""
        limit, lowest = target, plan
        found = self.judged(lowest, target)
        for _ in range(_LOWERINGS):
            self._tell()
            lowest = self._bars_down(plan, limit)
            tried = self.judged(lowest, target)
            better = _is_better(tried, found)
            found = tried if better else found
            over = self._heights.graded(tried.version).step - target
            if tried.reached or limit <= 1.0 or (over <= TOLERANCE and not better):
                break
            if over > TOLERANCE:
                stands = max(bar.level for bar in self._heights.of(tried.version))
                limit = max(min(limit, stands) - max(over * _SHARE_OF_OVER, _LEAST_LOWERING), 1.0)
        return self._given_back(found, target) if found.reached else found

    def judged(self, plan: Plan, target: float) -> Planned:
        """What a plan makes, and whether that meets a target."""
        version = self._builder.made(plan)
        reached, highest = self.is_reached(version, target), self._heights.highest(version)
        return Planned(plan, version, self._scores.overall(version), reached, highest)

    def is_reached(self, version: Part, target: float) -> bool:
        """Whether the song and every bar stand at a target, none higher than it may."""
        bars = enumerate(self._heights.of(version))
        return self._heights.graded(version).step <= target + TOLERANCE and not any(
            self._is_above(index, bar.level, target) for index, bar in bars
        )

    def _is_above(self, index: int, level: float, limit: float) -> bool:
        """Whether a bar stands above a limit, or above where it may stand at all."""
        most = max(self._began[index], self.ceiling + TOLERANCE) + _SLACK
        return level > min(limit + TOLERANCE, most)

    def _bars_down(self, plan: Plan, limit: float) -> Plan:
        """Every group that has a bar above the limit gets the choice that keeps most and is down there."""
        for _ in range(_ROUNDS):
            before = plan
            heights = self._heights.of(self._builder.made(plan))
            for group in self._groups:
                if any(self._is_above(index, heights[index].level, limit) for index in group):
                    plan = self._group_down(plan, group, limit)
            if plan == before:
                break
        return plan

    def _group_down(self, plan: Plan, group: Sequence[int], limit: float) -> Plan:
        """The choice of a group that keeps most at the limit, a few of its bars going further at need; where
        none is down there, the lowest."""
        self._builder.settle(plan)
        together = self._together(plan, group, limit)
        rows = [(kept, bars, row) for bars in together for kept, row in self._rows(plan, bars)]
        rows.sort(key=lambda own: (-own[0], -len(own[1])))
        best: tuple[float, Plan] | None = None
        for kept, bars, row in rows:
            if best and kept <= best[0]:
                break
            made = self._builder.made(same(plan, bars, row))
            if self._breaks_pattern(plan, bars, made):
                continue
            most = len(bars) // _FEW
            failing = list(itertools.islice(self._above(made, bars, limit), most + 1))
            if not failing:
                best = (kept, same(plan, bars, row))
            elif len(failing) <= most:
                alike = [own for own in self._alike(bars) if not set(failing).isdisjoint(own)]
                further = sorted(itertools.chain.from_iterable(alike))
                best = self._further(same(plan, bars, row), further, limit, best)
        if best:
            return best[1]
        # Where nothing is down there all of the group goes on together.
        plans = [same(plan, bars, row) for _, bars, row in rows if len(bars) == len(group)]
        lowest = min(plans, key=lambda tried: self._level(self._builder.made(tried), group), default=plan)
        return self._each_down(lowest, group, limit)

    def _each_down(self, plan: Plan, group: Sequence[int], limit: float) -> Plan:
        """Where the whole group does not get down, equal bars by themselves as far as they go."""
        for alike in self._alike(group):
            made = self._builder.made(plan)
            if len(alike) == len(group) or not self._any_above(made, alike, limit):
                continue
            plans = [same(plan, alike, row) for _, row in self._rows(plan, alike)]
            versions = [(tried, self._builder.made(tried)) for tried in plans]
            reaching = (tried for tried, made in versions if not self._any_above(made, alike, limit))
            lowest = min(versions, key=lambda own: self._level(own[1], alike), default=(plan, made))
            plan = next(reaching, lowest[0])
        return plan

    def _above(self, made: Part, bars: Sequence[int], limit: float) -> Iterator[int]:
        """The bars that stand above a limit, at a glimpse, those first that did in the song as it was."""
        began = self._heights_at_first
        for index in sorted(bars, key=lambda index: -began[index].level):
            if self._is_above(index, self._glimpsed(made, index), limit):
                yield index

    def _any_above(self, made: Part, bars: Sequence[int], limit: float) -> bool:
        return any(True for _ in self._above(made, bars, limit))

    def _further(
        self, plan: Plan, bars: Sequence[int], limit: float, best: tuple[float, Plan] | None
    ) -> tuple[float, Plan] | None:
        """The plan with a few bars going further on top of what all do, if that keeps more than the best."""
        for kept, row in self._rows(plan, bars):
            if best and kept <= best[0]:
                break
            tried = same(plan, bars, row)
            made = self._builder.made(tried)
            if not self._breaks_pattern(plan, bars, made) and not self._any_above(made, bars, limit):
                return kept, tried
        return best

    def _breaks_pattern(self, plan: Plan, bars: Sequence[int], made: Part) -> bool:
        """Whether bars that share a rhythm in a plan share it no longer; those of a line may."""
        if self._builder.roles[bars[0]] in _FREE:
            return False
        return self._scores.patterns_broken(made) > self._scores.patterns_broken(self._builder.made(plan))

    def _together(self, plan: Plan, group: Sequence[int], limit: float) -> list[Sequence[int]]:
        """The group, and by themselves the bars of it that stand above a limit with those that are written
        the same."""
        heights = self._heights.of(self._builder.made(plan))
        above = [
            alike
            for alike in self._alike(group)
            if any(self._is_above(index, heights[index].level, limit) for index in alike)
        ]
        few = sorted(itertools.chain.from_iterable(above))
        return [own for own in (group, few) if few] if len(few) < len(group) else [group]

    def _rows(
        self, plan: Plan, group: Sequence[int], milder: Row | None = None
    ) -> Iterator[tuple[float, Row]]:
        """All the choices of some bars that are no milder, each with what it keeps, what keeps most first."""
        milder = milder or Row(
            tuple(max(own) for own in zip(*(plan[at].options for at in group), strict=True))
        )
        key = (tuple(group), milder.options)
        if key not in self._alone:
            self._alone[key] = self._losses(group, milder)
        kept = self._scores.overall(self._builder.made(same(plan, group, milder)))
        for loss, row in self._alone[key]:
            yield kept - loss, row

    def _losses(self, group: Sequence[int], milder: Row) -> list[tuple[float, Row]]:
        """What each choice loses where all other bars are as they were: those that make the same bars once,
        none that makes several patterns of one."""
        plan = same(self._builder.nothing(), group, milder)
        before = self._builder.settled
        self._builder.settle(plan)
        axes = self._axes(plan, group, milder)
        begun = self._builder.made(plan)
        kept, broken = self._scores.overall(begun), self._scores.patterns_broken(begun)
        combined = sorted(itertools.product(*axes), key=lambda own: sum(loss for loss, _ in own))
        found: dict[tuple[int, ...], tuple[float, int, Row]] = {}
        for options in (tuple(option for _, option in own) for own in combined[:_MOST_COMBINED]):
            row = Row(options)
            made = self._builder.made(same(plan, group, row))
            if self._scores.patterns_broken(made) > broken and self._builder.roles[group[0]] not in _FREE:
                continue
            key = tuple(id(made.bars[index]) for index in _touched(group, made))
            chosen = sum(map(bool, options))
            loss = kept - self._scores.overall(made) if key not in found else found[key][0]
            if key not in found or chosen < found[key][1]:
                found[key] = (loss, chosen, row)
        self._builder.settle(before)
        return [(loss, row) for loss, _, row in sorted(found.values(), key=lambda own: own[:2])]

    def _axes(self, plan: Plan, group: Sequence[int], milder: Row) -> list[list[tuple[float, int]]]:
        """By choice the options that do something to the group, and what each loses by itself."""
        begun = same(plan, group, milder)
        kept = self._scores.overall(self._builder.made(begun))
        axes = []
        for at, choice in enumerate(self._builder.choices[group[0]]):
            options = [(0.0, milder.options[at])]
            if choice.scope is Scope.RHYTHM:
                seen = {self._bars_of(begun, group)}
                further = range(milder.options[at] + 1, len(choice.options) + 1)
                for option in further if choice.ordered or not milder.options[at] else ():
                    tried = same(plan, group, milder.with_option(at, option))
                    if (bars := self._bars_of(tried, group)) not in seen:
                        seen.add(bars)
                        options.append((kept - self._scores.overall(self._builder.made(tried)), option))
            axes.append(options)
        return axes

    def _bars_of(self, plan: Plan, group: Sequence[int]) -> tuple[int, ...]:
        made = self._builder.made(plan)
        return tuple(id(made.bars[index]) for index in _touched(group, made))

    def _level(self, made: Part, group: Sequence[int]) -> float:
        """How high the highest bar of a group stands, at a glimpse."""
        return max(self._glimpsed(made, index) for index in group)

    def _glimpsed(self, made: Part, index: int) -> float:
        key = (index, *map(id, made.bars[max(index - 1, 0) : index + 2]))
        if key not in self._glimpses:
            self._glimpses[key] = self._heights.glimpsed(made, index, self.hand).level
        return self._glimpses[key]

    def _given_back(self, found: Planned, target: float) -> Planned:
        """Whole choices first, then the same for equal bars alone, then notes: whatever still meets the
        target."""
        for give in (self._choices_back, self._equal_bars_back, self._notes_back):
            found = give(found, target)
        return found

    def _choices_back(self, found: Planned, target: float) -> Planned:
        """Groups by what they lost: a choice that keeps more."""
        for group in sorted(self._groups, key=lambda group: -self._lost(found.version, group)):
            self._tell()
            now = found.plan[group[0]]
            if not any(now.options):
                continue
            start = Row(
                tuple(
                    own if choice.scope is Scope.SONG else 0
                    for own, choice in zip(now.options, self._builder.choices[group[0]], strict=True)
                )
            )
            tries = 0
            self._builder.settle(found.plan)
            for kept, row in self._rows(found.plan, group, start):
                if kept < found.kept + _LEAST_GAIN or tries >= _GIVEN_BACK_TRIES:
                    break
                softer = same(found.plan, group, row)
                if self._any_above(self._builder.made(softer), group, target):
                    continue
                tries += 1
                tried = self.judged(softer, target)
                if tried.reached and tried.kept > found.kept:
                    found = tried
                    break
        return found

    def _equal_bars_back(self, found: Planned, target: float) -> Planned:
        """In lines, bars that are easy enough without something."""
        for group in (own for own in self._groups if self._builder.roles[own[0]] in _FREE):
            for alike in self._alike(group):
                for choice, own in enumerate(self._builder.choices[group[0]]):
                    row = found.plan[alike[0]]
                    if own.scope is not Scope.RHYTHM or not row.options[choice]:
                        continue
                    for option in range(row.options[choice]):
                        tried = self.judged(same(found.plan, alike, row.with_option(choice, option)), target)
                        if tried.reached and tried.kept >= found.kept:
                            found = tried
                            break
        return found

    def _notes_back(self, found: Planned, target: float) -> Planned:
        """Onsets that a thinner rhythm leaves out, the same in all bars of the group."""
        for group in self._groups:
            thins = [at for at, own in enumerate(self._builder.choices[group[0]]) if own.thins]
            for _ in range(_MORE_NOTES if any(found.plan[group[0]].options[at] for at in thins) else 0):
                self._tell()
                better = self._one_more(found, group, target)
                if better is None:
                    break
                found = better
        return found

    def _one_more(self, found: Planned, group: Sequence[int], target: float) -> Planned | None:
        """The note given back that keeps most, if the target bears it."""
        role = self._builder.roles[group[0]]
        struck: list[set[Fraction]] = [set(struck_onsets(self._builder.part.bars[index])) for index in group]
        now: list[set[Fraction]] = [set(struck_onsets(found.version.bars[index])) for index in group]
        missing = sorted(struck[0].intersection(*struck[1:]) - now[0].union(*now[1:]))
        half = self._builder.part.bars[group[0]].metre.quarters / 2
        tried = []
        for onset in missing:
            more = {onset}
            if role in _PATTERNED:  # the same in both halves of the bar
                more |= {other for other in missing if abs(other - onset) == half}
                if len(more) < 2:
                    continue
            plan = found.plan
            for index in group:
                row = plan[index]
                plan = same(plan, [index], replace(row, more=row.more | more))
            made = self._builder.made(plan)
            kept = self._scores.overall(made)
            if kept >= found.kept + _LEAST_GAIN:
                tried.append((kept, -onset, plan, made))
        for _, _, plan, made in sorted(tried, key=lambda own: own[:2], reverse=True):
            if not self._any_above(made, group, target):
                judged = self.judged(plan, target)
                if judged.reached:
                    return judged
        return None

    def one_more(self, plan: Plan, index: int) -> Iterator[tuple[str, Part]]:
        """By kind, what one more option, or a further one, makes of a bar."""
        for at, choice in enumerate(self._builder.choices[index]):
            for number, option in enumerate(choice.options, start=1):
                if number > plan[index].options[at]:
                    yield (
                        option.kind,
                        self._builder.made(same(plan, [index], plan[index].with_option(at, number))),
                    )

    def kinds(self, index: int) -> list[str]:
        """The kinds of all that can be chosen for a bar."""
        return [option.kind for choice in self._builder.choices[index] for option in choice.options]

    def _alike(self, group: Sequence[int]) -> list[list[int]]:
        """The bars of a group that are the same, or the same moved along the neck, together."""
        found: dict[int, list[int]] = {}
        for index in group:
            found.setdefault(self._shapes[index][0], []).append(index)
        return list(found.values())

    def _lost(self, version: Part, group: Sequence[int]) -> float:
        whole = self._builder.part
        return sum(
            self._scores.points_of(whole, index) - self._scores.points_of(version, index) for index in group
        )


def _is_better(one: Planned, other: Planned) -> bool:
    """Reached before not reached; of those reached what keeps more, of the others what stands lower."""
    if one.reached != other.reached:
        return one.reached
    return one.kept > other.kept if one.reached else one.highest < other.highest - _LEAST_GAIN


def _touched(group: Sequence[int], made: Part) -> Iterator[int]:
    """The bars of a group and those after them, which may have to be struck anew."""
    yield from sorted({at for index in group for at in (index, index + 1) if at < len(made.bars)})
