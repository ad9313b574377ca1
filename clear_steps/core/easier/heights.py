"""How high the bars of a version stand for the search: their Step, or a student's limits gone beyond."""

from dataclasses import dataclass

from clear_steps.core.grade import Ability, BarGrade, Grader, Grading
from clear_steps.core.score import Part

TOLERANCE = 0.05  # reached means at most this above the target


@dataclass(frozen=True, slots=True)
class Height:
    """A bar's grade, the level the search sees it at, the measure behind that, and the student's limit it goes past, in words."""

    grade: BarGrade
    level: float
    measure: str
    limit: str = ""

    @property
    def step(self) -> float:
        """The Step to be told: the measure's where a limit counts, else the bar's."""
        return self.grade.findings[self.measure].step if self.limit else self.grade.step


def heights_of(grading: Grading, part: Part, target: float, ability: Ability | None) -> tuple[Height, ...]:
    """The height of every bar; one that goes beyond a student stands as far above the target, if not higher by its Step."""
    if ability is None:
        return tuple(Height(bar, bar.step, bar.hardest_measure) for bar in grading.bars)
    return tuple(_height(grading, part, bar, target, ability) for bar in grading.bars)


def _height(grading: Grading, part: Part, bar: BarGrade, target: float, ability: Ability) -> Height:
    furthest = next(iter(ability.beyond(grading, part, bar.index)), None)
    if furthest is None or bar.step > target + furthest.steps:
        return Height(bar, bar.step, bar.hardest_measure)
    # Past the tolerance, however little it is: a limit is met or it is not.
    return Height(bar, target + TOLERANCE + furthest.steps, furthest.measure, furthest.limit)


def is_reached(grading: Grading, part: Part, target: float, ability: Ability | None = None) -> bool:
    """Whether every bar and the song stand at the target, and nothing goes beyond the student."""
    return max([grading.step, *(bar.level for bar in heights_of(grading, part, target, ability))]) <= target + TOLERANCE


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
        return self._at(self.graded(version), version, index)

    def glimpsed(self, version: Part, index: int, hand: int) -> Height:
        """The height of one bar with one hand's fingering, the one chosen for a version that it was made of: quicker, nearly always the same."""
        return self._at(self._grader.grade(version, hand), version, index)

    def _at(self, grading: Grading, version: Part, index: int) -> Height:
        bar = grading.bars[index]
        return Height(bar, bar.step, bar.hardest_measure) if self._ability is None else _height(grading, version, bar, self._lowest, self._ability)

    def highest(self, version: Part) -> float:
        """The song's Step or its highest bar's level, whichever is higher."""
        return max([self.graded(version).step, *(bar.level for bar in self.of(version))])

    def reached(self, version: Part, target: float) -> bool:
        """Whether the song and every bar stand at a target."""
        return self.highest(version) <= target + TOLERANCE
