"""Where a teacher's own Step differs from the computed one, and the measure most likely behind it."""

from dataclasses import dataclass

from clear_steps.core.grade.measures import MEASURES
from clear_steps.core.grade.step import GradeRequest, Grading, song_step
from clear_steps.core.score import Part, Song

AGREEMENT = 0.25  # Steps apart that nobody would argue about


@dataclass(frozen=True, slots=True)
class Difference:
    """Computed minus own, and the measure that explains it best; empty where both agree."""

    own: float
    computed: float
    measure: str


def difference(
    song: Song, part: Part, grading: Grading, own: float, request: GradeRequest = GradeRequest()
) -> Difference:
    """Compare; a measure is behind it if the song without it comes nearest to the teacher's Step.

    Where the teacher's is the higher one, it is the measure the hardest bars have most of: raised,
    it would bring the Step up first.
    """
    if abs(grading.step - own) <= AGREEMENT:
        return Difference(own, grading.step, "")
    if grading.step > own:
        without = {
            name: song_step(song, part, [bar.step_without(name) for bar in grading.bars], grading, request)
            for name in MEASURES
        }
        measure = min(without, key=lambda name: abs(without[name] - own))
    else:
        peak = [grading.bars[index] for index in grading.peak_bars]
        measure = max(MEASURES, key=lambda name: sum(bar.findings[name].step for bar in peak))
    return Difference(own, grading.step, measure)
