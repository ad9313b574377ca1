"""Giving back: whatever the target leaves room for comes back, whole choices first, then notes."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.plans import Row, same
from clear_steps.core.easier.rewriting import struck_onsets
from clear_steps.core.easier.trials import FREE, Planned, Trials
from clear_steps.core.easier.ways.scene import Scope
from clear_steps.core.score import Role

_LEAST_GAIN = 0.01  # points of what is kept, for something to come back
_GIVEN_BACK_TRIES = 6  # choices of a group that are graded in full to be given back
_AN_EDGE = 1.0  # points that the end or peak of a phrase is worth, whatever else is kept
_MORE_NOTES = 4  # onsets a group may get back, one at a time
_IN_BOTH_HALVES = frozenset({Role.STRUM, Role.PICKED})  # of a bar alike


class GivingBack:
    """Gives back to groups of bars that choose together."""

    def __init__(self, trials: Trials, groups: Sequence[Sequence[int]], tell: Callable[[], None]) -> None:
        self._trials, self._groups, self._tell = trials, groups, tell

    def given_back(self, found: Planned, target: float) -> Planned:
        """Whole choices first, then the same for equal bars alone, then notes: whatever still meets the
        target."""
        for give in (self._choices_back, self._equal_bars_back, self._notes_back, self._edges_back):
            found = give(found, target)
        return found

    def _choices_back(self, found: Planned, target: float) -> Planned:
        """Groups by what they lost: a choice that keeps more."""
        for group in sorted(self._groups, key=lambda group: -self._trials.lost(found.version, group)):
            self._tell()
            now = found.plan[group[0]]
            if not any(now.options):
                continue
            start = Row(
                tuple(
                    own if choice.scope is Scope.SONG else 0
                    for own, choice in zip(now.options, self._trials.builder.choices[group[0]], strict=True)
                )
            )
            tries = 0
            self._trials.builder.settle(found.plan)
            for kept, row in self._trials.rows(found.plan, group, start):
                if kept < found.kept + _LEAST_GAIN or tries >= _GIVEN_BACK_TRIES:
                    break
                softer = same(found.plan, group, row)
                if self._trials.any_above(self._trials.builder.made(softer), group, target):
                    continue
                tries += 1
                tried = self._trials.judged(softer, target)
                if tried.reached and tried.kept > found.kept:
                    found = tried
                    break
        return found

    def _equal_bars_back(self, found: Planned, target: float) -> Planned:
        """In lines, bars that are easy enough without something."""
        for group in (own for own in self._groups if self._trials.builder.roles[own[0]] in FREE):
            for alike in self._trials.alike(group):
                for choice, own in enumerate(self._trials.builder.choices[group[0]]):
                    row = found.plan[alike[0]]
                    if own.scope is not Scope.RHYTHM or not row.options[choice]:
                        continue
                    for option in range(row.options[choice]):
                        tried = self._trials.judged(
                            same(found.plan, alike, row.with_option(choice, option)), target
                        )
                        if tried.reached and tried.kept >= found.kept:
                            found = tried
                            break
        return found

    def _notes_back(self, found: Planned, target: float) -> Planned:
        """Onsets that a thinner rhythm leaves out, the same in all bars of the group."""
        for group in self._groups:
            thins = [at for at, own in enumerate(self._trials.builder.choices[group[0]]) if own.thins]
            for _ in range(_MORE_NOTES if any(found.plan[group[0]].options[at] for at in thins) else 0):
                self._tell()
                better = self._one_more(found, group, target)
                if better is None:
                    break
                found = better
        return found

    def _one_more(self, found: Planned, group: Sequence[int], target: float) -> Planned | None:
        """The note given back that keeps most, if the target bears it."""
        role = self._trials.builder.roles[group[0]]
        struck: list[set[Fraction]] = [
            set(struck_onsets(self._trials.builder.part.bars[index])) for index in group
        ]
        now: list[set[Fraction]] = [set(struck_onsets(found.version.bars[index])) for index in group]
        missing = sorted(struck[0].intersection(*struck[1:]) - now[0].union(*now[1:]))
        half = self._trials.builder.part.bars[group[0]].metre.quarters / 2
        tried = []
        for onset in missing:
            more = {onset}
            if role in _IN_BOTH_HALVES:  # the same in both halves of the bar
                more |= {other for other in missing if abs(other - onset) == half}
                if len(more) < 2:
                    continue
            plan = found.plan
            for index in group:
                row = plan[index]
                plan = same(plan, [index], replace(row, more=row.more | more))
            made = self._trials.builder.made(plan)
            kept = self._trials.scores.overall(made)
            if kept >= found.kept + _LEAST_GAIN:
                tried.append((kept, -onset, plan, made))
        for _, _, plan, made in sorted(tried, key=lambda own: own[:2], reverse=True):
            if not self._trials.any_above(made, group, target):
                judged = self._trials.judged(plan, target)
                if judged.reached:
                    return judged
        return None

    def _edges_back(self, found: Planned, target: float) -> Planned:
        """In lines the ends and peaks of phrases, where another thinning of the bar has them and keeps nearly
        as much."""
        for edge in self._trials.scores.lost_edges(found.version):
            group = next((own for own in self._groups if edge.bar in own), ())
            alike = next((own for own in self._trials.alike(group) if edge.bar in own), [])
            tried = [
                each
                for each in self._thinned_otherwise(found, alike)
                if edge not in self._trials.scores.lost_edges(each.version)
            ]
            for each in sorted(tried, key=lambda own: -own.kept):
                if each.kept >= found.kept - _AN_EDGE and self._trials.is_reached(each.version, target):
                    found = each
                    break
        return found

    def _thinned_otherwise(self, found: Planned, bars: Sequence[int]) -> Iterator[Planned]:
        """Some bars with every other option of what thins their rhythm."""
        for at, choice in enumerate(self._trials.builder.choices[bars[0]] if bars else ()):
            for option in range(len(choice.options) + 1) if choice.thins else ():
                plan = found.plan
                for index in bars:
                    plan = same(plan, [index], plan[index].with_option(at, option))
                version = self._trials.builder.made(plan)
                kept = self._trials.scores.overall(version)
                yield replace(found, plan=plan, version=version, kept=kept)
