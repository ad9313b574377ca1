"""Bars that go beyond a student: their hand, their limits, what they know."""

from dataclasses import dataclass

from clear_steps.core.grade.limits import Ability, Beyond
from clear_steps.core.grade.step import Grading
from clear_steps.core.hand import Grip
from clear_steps.core.score import Part


@dataclass(frozen=True, slots=True)
class PastBar:
    """A bar (index) that is past a student, and by what, the furthest first."""

    index: int
    beyond: tuple[Beyond, ...]

    @property
    def words(self) -> str:
        """By what, in words."""
        return ", ".join(each.words for each in self.beyond)


def bars_past(part: Part, grading: Grading, ability: Ability) -> tuple[PastBar, ...]:
    """Every bar of a graded part that goes beyond the student, in written order."""
    grips: dict[int, list[Grip]] = {}
    for (index, _), grip in grading.grips.items():
        grips.setdefault(index, []).append(grip)
    found = (
        PastBar(grade.index, ability.beyond(grade, bar, grips.get(grade.index, ())))
        for grade, bar in zip(grading.bars, part.bars, strict=True)
    )
    return tuple(past for past in found if past.beyond)
