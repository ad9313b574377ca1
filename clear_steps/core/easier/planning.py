"""The search over plans: for every group of bars that choose together the options that keep most and still
meet the target; then whatever the target leaves room for comes back.

What is tried is bounded by count, never by the clock, and looks at no order but that of the bars.
"""

import itertools
from collections.abc import Callable, Iterator, Sequence

from clear_steps.core.easier.giving import GivingBack
from clear_steps.core.easier.heights import TOLERANCE
from clear_steps.core.easier.plans import Plan, same
from clear_steps.core.easier.rhythms import bars_that_choose_together
from clear_steps.core.easier.trials import Planned, Trials
from clear_steps.core.easier.ways.scene import Scope
from clear_steps.core.score import Part

_ROUNDS = 3  # over all groups, since fingers change with neighbours
_FEW = 3  # at most one bar in so many goes further than its group
_LOWERINGS = 12  # of the bars' limit, for the song's sake
_SHARE_OF_OVER = 0.5  # by which it is lowered at once
_LEAST_LOWERING = 0.1
_LEAST_GAIN = 0.01  # Steps or points, for one plan to be better


class Planner:
    """Searches the plans of one way."""

    def __init__(self, trials: Trials, tell: Callable[[], None]) -> None:
        self._trials, self._tell = trials, tell
        self._groups = bars_that_choose_together(trials.builder.part, trials.builder.roles)
        self._giving = GivingBack(trials, self._groups, tell)

    def lowered(self, begun: Plan, target: float) -> Planned:
        """The plan that keeps most at a target, no milder anywhere than the one it begins with."""
        best: Planned | None = None
        for whole in self._of_the_song(begun):
            bound = self._trials.scores.overall(self._trials.builder.made(whole))
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
            count = self._song_choices()[choice]
            own = (row for index, row in enumerate(begun) if self._chooses(index, choice))
            milder = max(row.options[choice] for row in own)  # other roles have other choices in that place
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
        kept = {id(plan): self._trials.scores.overall(self._trials.builder.made(plan)) for plan in plans}
        return sorted(plans, key=lambda plan: -kept[id(plan)])

    def _song_choices(self) -> dict[int, int]:
        """By place among the choices of its role: how many options the song chooses from as a whole."""
        return {
            at: len(choice.options)
            for own in self._trials.builder.choices
            for at, choice in enumerate(own)
            if choice.scope is Scope.SONG
        }

    def _chooses(self, index: int, choice: int) -> bool:
        own = self._trials.builder.choices[index]
        return choice < len(own) and own[choice].scope is Scope.SONG

    def _from(self, plan: Plan, target: float) -> Planned:
        """Down from a plan: bars first, then further for the song's sake, then back up."""
        limit, lowest = target, plan
        found = self._trials.judged(lowest, target)
        for _ in range(_LOWERINGS):
            self._tell()
            lowest = self._bars_down(plan, limit)
            tried = self._trials.judged(lowest, target)
            better = _is_better(tried, found)
            found = tried if better else found
            over = self._trials.heights.graded(tried.version).step - target
            if tried.reached or limit <= 1.0 or (over <= TOLERANCE and not better):
                break
            if over > TOLERANCE:
                stands = max(bar.level for bar in self._trials.heights.of(tried.version))
                limit = max(min(limit, stands) - max(over * _SHARE_OF_OVER, _LEAST_LOWERING), 1.0)
        return self._giving.given_back(found, target) if found.reached else found

    def _bars_down(self, plan: Plan, limit: float) -> Plan:
        """Every group that has a bar above the limit gets the choice that keeps most and is down there."""
        for _ in range(_ROUNDS):
            before = plan
            heights = self._trials.heights.of(self._trials.builder.made(plan))
            for group in self._groups:
                if any(self._trials.is_above(index, heights[index].level, limit) for index in group):
                    plan = self._group_down(plan, group, limit)
            if plan == before:
                break
        return plan

    def _group_down(self, plan: Plan, group: Sequence[int], limit: float) -> Plan:
        """The choice of a group that keeps most at the limit, a few of its bars going further at need; where
        none is down there, the lowest."""
        self._trials.builder.settle(plan)
        together = self._together(plan, group, limit)
        rows = [(kept, bars, row) for bars in together for kept, row in self._trials.rows(plan, bars)]
        rows.sort(key=lambda own: (-own[0], -len(own[1])))
        best: tuple[float, Plan] | None = None
        for kept, bars, row in rows:
            if best and kept <= best[0]:
                break
            made = self._trials.builder.made(same(plan, bars, row))
            if self._trials.breaks_pattern(plan, bars, made):
                continue
            most = len(bars) // _FEW
            failing = list(itertools.islice(self._trials.above(made, bars, limit), most + 1))
            if not failing:
                best = (kept, same(plan, bars, row))
            elif len(failing) <= most:
                alike = [own for own in self._trials.alike(bars) if not set(failing).isdisjoint(own)]
                further = sorted(itertools.chain.from_iterable(alike))
                best = self._further(same(plan, bars, row), further, limit, best)
        if best:
            return best[1]
        # Where nothing is down there all of the group goes on together.
        plans = [same(plan, bars, row) for _, bars, row in rows if len(bars) == len(group)]
        lowest = min(
            plans, key=lambda tried: self._trials.level(self._trials.builder.made(tried), group), default=plan
        )
        return self._each_down(lowest, group, limit)

    def _each_down(self, plan: Plan, group: Sequence[int], limit: float) -> Plan:
        """Where the whole group does not get down, equal bars by themselves as far as they go."""
        for alike in self._trials.alike(group):
            made = self._trials.builder.made(plan)
            if len(alike) == len(group) or not self._trials.any_above(made, alike, limit):
                continue
            plans = [same(plan, alike, row) for _, row in self._trials.rows(plan, alike)]
            versions = [(tried, self._trials.builder.made(tried)) for tried in plans]
            reaching = (tried for tried, made in versions if not self._trials.any_above(made, alike, limit))
            lowest = min(versions, key=lambda own: self._trials.level(own[1], alike), default=(plan, made))
            plan = next(reaching, lowest[0])
        return plan

    def _further(
        self, plan: Plan, bars: Sequence[int], limit: float, best: tuple[float, Plan] | None
    ) -> tuple[float, Plan] | None:
        """The plan with a few bars going further on top of what all do, if that keeps more than the best."""
        for kept, row in self._trials.rows(plan, bars):
            if best and kept <= best[0]:
                break
            tried = same(plan, bars, row)
            made = self._trials.builder.made(tried)
            if not self._trials.breaks_pattern(plan, bars, made) and not self._trials.any_above(
                made, bars, limit
            ):
                return kept, tried
        return best

    def _together(self, plan: Plan, group: Sequence[int], limit: float) -> list[Sequence[int]]:
        """The group, and by themselves the bars of it that stand above a limit with those that are written
        the same."""
        heights = self._trials.heights.of(self._trials.builder.made(plan))
        above = [
            alike
            for alike in self._trials.alike(group)
            if any(self._trials.is_above(index, heights[index].level, limit) for index in alike)
        ]
        few = sorted(itertools.chain.from_iterable(above))
        return [own for own in (group, few) if few] if len(few) < len(group) else [group]

    def one_more(self, plan: Plan, index: int) -> Iterator[tuple[str, Part]]:
        """By kind, what one more option, or a further one, makes of a bar."""
        for at, choice in enumerate(self._trials.builder.choices[index]):
            for number, option in enumerate(choice.options, start=1):
                if number > plan[index].options[at]:
                    yield (
                        option.kind,
                        self._trials.builder.made(same(plan, [index], plan[index].with_option(at, number))),
                    )

    def kinds(self, index: int) -> list[str]:
        """The kinds of all that can be chosen for a bar."""
        return [option.kind for choice in self._trials.builder.choices[index] for option in choice.options]


def _is_better(one: Planned, other: Planned) -> bool:
    """Reached before not reached; of those reached what keeps more, of the others what stands lower."""
    if one.reached != other.reached:
        return one.reached
    return one.kept > other.kept if one.reached else one.highest < other.highest - _LEAST_GAIN
