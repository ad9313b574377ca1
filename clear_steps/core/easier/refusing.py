"""The proof of a refusal: which bars block a target, by what, and the best that every kind of edit could
still do."""

from clear_steps.core.easier.answer import Blocking, Tried
from clear_steps.core.easier.heights import TOLERANCE, Height, Heights
from clear_steps.core.easier.proposals import Proposals
from clear_steps.core.score import Part


def blocking_bars(
    version: Part, target: float, heights: Heights, proposals: Proposals
) -> tuple[Blocking, ...]:
    """Bars above the target; where all bars meet it and only the song does not, the hardest bars and what
    comes on top of them."""
    bars, grading = heights.of(version), heights.graded(version)
    above = [bar for bar in bars if bar.level > target + TOLERANCE]
    if above:
        return tuple(
            Blocking(
                bar.grade.index, bar.measure, bar.step, _tried(version, bar, heights, proposals), bar.limit
            )
            for bar in above
        )
    on_top = "memory" if grading.memory >= grading.stamina else "stamina"
    return tuple(
        Blocking(index, on_top, bars[index].step, _tried(version, bars[index], heights, proposals))
        for index in grading.peak_bars
    )


def _tried(version: Part, bar: Height, heights: Heights, proposals: Proposals) -> tuple[Tried, ...]:
    tried = []
    for kind in proposals.kinds.values():
        versions = (proposed.version for proposed in proposals.of_kind(kind, version, bar.grade.index))
        lowest = min(
            (heights.at(version, bar.grade.index) for version in versions),
            key=lambda height: height.level,
            default=bar,
        )
        tried.append(
            Tried(kind.name, lowest.grade.findings[bar.measure].step if bar.limit else lowest.grade.step)
        )
    return tuple(tried)
