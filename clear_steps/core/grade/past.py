"""Bars that go beyond a student: their hand, their limits, what they know."""

from dataclasses import dataclass

from clear_steps.core.grade.limits import Ability, Beyond
from clear_steps.core.grade.step import Grading
from clear_steps.core.grade.way import SAME_STEP
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


@dataclass(frozen=True, slots=True)
class Reach:
    """Whether a graded part lies within a student's reach, by all limits there are of them: the bars that
    go past one, and the part's own Step where it is past the Step they are comfortable with."""

    bars: tuple[PastBar, ...]
    song_words: str = ""  # `Step 4.0 past a comfortable Step 2.5`; empty where it is not

    @property
    def within(self) -> bool:
        """Whether nothing is past anything."""
        return not self.bars and not self.song_words


def reach_of(part: Part, grading: Grading, ability: Ability) -> Reach:
    """Whether somebody can play a part. Whatever is handed out, seated or proposed is judged by this."""
    comfortable = ability.comfortable_step
    over = comfortable is not None and grading.step > comfortable + SAME_STEP
    words = f"Step {grading.step:.1f} past a comfortable Step {comfortable:g}" if over else ""
    return Reach(bars_past(part, grading, ability), words)


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
