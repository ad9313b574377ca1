"""The peak: the hardest two stretches of a bar's length, one after the other, wherever their bar lines stand.

S(t) is the Step of the stretch of one bar's length that begins on beat t, graded as a bar is. The peak is
the highest (S(t) + S(t + one bar)) / 2, and at least the highest S(t) - 0.5: the same lick begun half a bar
later has the same peak.
"""

import itertools
from collections.abc import Callable, Iterator, Mapping, Sequence
from operator import add
from typing import Any, NamedTuple

from clear_steps.core.grade.adding import norm
from clear_steps.core.grade.additions import ADDITIONS, MOST_ADDED, second_demand
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures import MEASURES, Found, Window, window_of
from clear_steps.core.grade.played import PlayedBar
from clear_steps.core.score import Bar

ALONE_LESS = 0.5  # what a single hard stretch counts less than two of them
_SURELY = 1e-9  # by so much a stretch over a bar line must be harder to be told instead of a bar

Founds = dict[str, Found[Any]]
"""By measure or addition: what was found in a bar."""


class JudgedBar(NamedTuple):
    """A bar as played, what the measures found in it, its Step, and where it lies past the hand (onsets in
    quarters)."""

    bar: PlayedBar
    founds: Founds
    step: float
    past_hand: tuple[float, ...]


class Peak(NamedTuple):
    """Its Step, and the indexes of the written bars behind it."""

    step: float
    bars: tuple[int, ...]


def as_hard_as_at_first(steps: Sequence[float], bars: Sequence[Bar]) -> list[float]:
    """Steps of bars as played: a bar that is played again at once is no easier than before, nor it than the
    bar played again."""
    found = list(steps)
    for run in _runs_of_one_bar(bars):
        highest = max(found[at] for at in run)
        for at in run:
            found[at] = highest
    return found


def _runs_of_one_bar(bars: Sequence[Bar]) -> Iterator[list[int]]:
    for _, group in itertools.groupby(enumerate(bars), key=lambda entry: entry[1].events):
        run = [at for at, _ in group]
        if len(run) > 1:
            yield run


def peak_of_bars(steps: Sequence[float], indexes: Sequence[int], least: float) -> Peak:
    """Of whole bars alone, as played, those that hold nothing left out; `least` where nothing is played."""
    if not steps:
        return Peak(least, ())
    if len(steps) == 1:
        return Peak(steps[0], (indexes[0],))
    means = [(a + b) / 2 for a, b in itertools.pairwise(steps)]
    at = max(range(len(means)), key=lambda index: means[index])
    alone = max(range(len(steps)), key=lambda index: steps[index])
    if steps[alone] - ALONE_LESS > means[at]:
        return Peak(steps[alone] - ALONE_LESS, (indexes[alone],))
    return Peak(means[at], (indexes[at], indexes[at + 1]))


def peak_over_bar_lines(
    bars: Sequence[JudgedBar], whole: Peak, steps_over: Callable[[JudgedBar, JudgedBar], tuple[float, ...]]
) -> Peak:
    """The same with stretches that begin on any beat; `bars` as played, `whole` their peak by bars alone.

    `steps_over` gives the Steps of the stretches that begin on the 2nd, 3rd ... beat of a bar and go on into
    the next.
    """
    best, members = whole.step + _SURELY, whole.bars
    before: tuple[float, ...] = ()
    last: JudgedBar | None = None
    for first, second in itertools.pairwise(bars):
        steps = steps_over(first, second)
        alone = max(steps, default=0.0) - ALONE_LESS
        if alone > best:
            best, members = alone, (first.bar.index, second.bar.index)
        if last is not None:
            two = max(map(add, before, steps), default=0.0) / 2
            if two > best:
                best, members = two, (last.bar.index, first.bar.index, second.bar.index)
        before, last = steps, first
    return whole if members is whole.bars else Peak(best, tuple(dict.fromkeys(members)))


def is_past_hand(first: JudgedBar, second: JudgedBar, beat: int) -> bool:
    """Whether something from a beat of one bar to the same beat of the next lies past the hand."""
    start = beat * float(first.bar.bar.metre.beat_quarters)
    return any(at >= start for at in first.past_hand) or any(at < start for at in second.past_hand)


def founds_over(first: JudgedBar, second: JudgedBar, beat: int) -> tuple[Founds, Window]:
    """What was found from a beat of one bar to the same beat of the next."""
    window = window_of(first.bar)
    start = beat * window.beat_quarters
    onward = window.quarters - start
    founds: Founds = {}
    for name in (*MEASURES, *ADDITIONS):
        head, tail = first.founds.get(name, ()), second.founds.get(name, ())
        found = [(at - start, item) for at, item in head if at >= start]
        found += [(at + onward, item) for at, item in tail if at < start]
        if found:
            founds[name] = found
    return founds, window


def stretch_step(founds: Founds, window: Window, ladder: Ladder, past_hand: bool) -> float:
    """The Step of all that was found in a window."""
    steps = {
        name: measure.weigh(founds[name], window, ladder)
        for name, measure in MEASURES.items()
        if founds.get(name)
    }
    return norm(steps.values(), past_hand, sum(added(founds, steps).values()))


def added(founds: Founds, steps: Mapping[str, float]) -> dict[str, float]:
    """By its words what is added after the norm to measures of these Steps, all together no more than there
    may be."""
    more, name = second_demand(steps, founds)
    rows = {f"{MEASURES[name].spoken} at the same time": more} if more else {}
    rows |= {row.words: row.step for name, row in ADDITIONS.items() if founds.get(name)}
    total = sum(rows.values())
    share = min(MOST_ADDED / total, 1.0) if total else 1.0
    return {words: step * share for words, step in rows.items()}
