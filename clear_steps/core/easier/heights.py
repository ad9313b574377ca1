"""How high the bars of a version stand for the search: their Step, or a student's limits gone beyond."""

from collections.abc import Sequence
from dataclasses import dataclass

from clear_steps.core.grade import Ability, BarGrade, Grader, Grading
from clear_steps.core.hand import Grip
from clear_steps.core.score import Bar, Part

TOLERANCE = 0.05  # reached means at most this above the target


@dataclass(frozen=True, slots=True)
class Height:
    """A bar's grade, the level the search sees it at, the measure behind that, and the student's limit it
    goes past, in words."""

    grade: BarGrade
    level: float
    measure: str
    limit: str = ""

    @property
    def step(self) -> float:
        """The Step to be told: the measure's where a limit counts, else the bar's."""
        return self.grade.findings[self.measure].step if self.limit else self.grade.step


def heights_of(grading: Grading, part: Part, target: float, ability: Ability | None) -> tuple[Height, ...]:
    """The height of every bar; one that goes beyond a student stands as far above the target, if not higher
    by its Step."""
    rows = zip(grading.bars, part.bars, grading.fingered.hands[grading.hand], strict=True)
    return tuple(_height(bar, written, grips, target, ability) for bar, written, grips in rows)


def _height(
    bar: BarGrade, written: Bar, grips: Sequence[Grip], target: float, ability: Ability | None
) -> Height:
    furthest = next(iter(ability.beyond(bar, written, grips)), None) if ability else None
    if furthest is None or bar.step > target + furthest.steps:
        return Height(bar, bar.step, bar.hardest_measure)
    # Past the tolerance, however little it is: a limit is met or it is not.
    return Height(bar, target + TOLERANCE + furthest.steps, furthest.measure, furthest.limit)


def is_reached(grading: Grading, part: Part, target: float, ability: Ability | None = None) -> bool:
    """Whether every bar and the song stand at the target, and nothing goes beyond the student."""
    return (
        max([grading.step, *(bar.level for bar in heights_of(grading, part, target, ability))])
        <= target + TOLERANCE
    )


class Heights:
    """The heights of versions of one part, each graded by the same code as the original."""

    def __init__(self, grader: Grader, lowest: float, ability: Ability | None) -> None:
        self._grader, self._lowest, self._ability = grader, lowest, ability
        self._latest: tuple[Part, Grading] | None = None

    def graded(self, version: Part) -> Grading:
        """The whole version's grade; asked for again in a row, the same one."""
        if self._latest is None or self._latest[0] is not version:
            self._latest = (version, self._grader.grade(version))
        return self._latest[1]

    def of(self, version: Part) -> tuple[Height, ...]:
        """The height of every bar."""
        return heights_of(self.graded(version), version, self._lowest, self._ability)

    def at(self, version: Part, index: int) -> Height:
        """The height of one bar."""
        grading = self.graded(version)
        return _height(
            grading.bars[index],
            version.bars[index],
            grading.fingered.hands[grading.hand][index],
            self._lowest,
            self._ability,
        )

    def glimpsed(self, version: Part, index: int, hand: int) -> Height:
        """The height of one bar with one hand's fingering, the one chosen for a version that it was made
        of: quicker, nearly always the same."""
        bar, grips = self._grader.glimpse(version, index, hand)
        return _height(bar, version.bars[index], grips, self._lowest, self._ability)

    def highest(self, version: Part) -> float:
        """The song's Step or its highest bar's level, whichever is higher."""
        return max([self.graded(version).step, *(bar.level for bar in self.of(version))])

    def reached(self, version: Part, target: float) -> bool:
        """Whether the song and every bar stand at a target."""
        return self.highest(version) <= target + TOLERANCE
