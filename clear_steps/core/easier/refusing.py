"""The proof of a refusal: which bars block a target, by what, and the best that every way and every kind of
edit could still do."""

from collections.abc import Iterable, Iterator

from clear_steps.core.easier.answer import Blocking, Tried
from clear_steps.core.easier.heights import TOLERANCE, Height
from clear_steps.core.easier.planning import Planner
from clear_steps.core.easier.proposals import Proposals
from clear_steps.core.easier.trials import Planned, Trials
from clear_steps.core.score import Part


def blocking_bars(
    lowest: Planned, target: float, trials: Trials, planner: Planner, proposals: Proposals
) -> tuple[Blocking, ...]:
    """Of the lowest version there is the bars above the target; where all bars meet it and only the song does
    not, the hardest bars and what comes on top of them."""
    version = lowest.version
    bars, grading = trials.heights.of(version), trials.heights.graded(version)
    above = [bar for bar in bars if bar.level > target + TOLERANCE]
    if above:
        rows = [(bar, bar.measure, bar.step, bar.limit) for bar in above]
    else:
        rows = [(bars[index], "stamina", bars[index].step, "") for index in grading.peak_bars]
    found = [
        Blocking(
            bar.grade.index, measure, step, tuple(_tried(lowest, bar, trials, planner, proposals)), limit
        )
        for bar, measure, step, limit in rows
    ]
    # What a single change would bring down is not what is in the way.
    proven = [row for row in found if all(tried.step > target + TOLERANCE for tried in row.tried)]
    return tuple(proven if above and proven else found)


def _tried(
    lowest: Planned, bar: Height, trials: Trials, planner: Planner, proposals: Proposals
) -> Iterator[Tried]:
    """By kind, options of ways first, the lowest that one more of it makes the bar."""
    index, found = bar.grade.index, dict[str, float]()
    versions: Iterable[tuple[str, Part]] = (
        *planner.one_more(lowest.plan, index),
        *((made.kind.name, made.version) for made in proposals.of(proposals.known(lowest.version), index)),
    )
    for kind, version in versions:
        height = trials.heights.glimpsed(version, index, trials.hand)
        step = height.grade.findings[bar.measure].step if bar.limit else height.grade.step
        found[kind] = min(step, found.get(kind, step))
    own = bar.grade.findings[bar.measure].step if bar.limit else bar.grade.step
    for kind in dict.fromkeys((*planner.kinds(index), *proposals.kinds_for(index))):
        yield Tried(kind, min(found.get(kind, own), own))
