"""What a student can do cleanly now, measure by measure, and where a bar goes beyond it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures import MEASURES
from clear_steps.core.grade.step import BarGrade
from clear_steps.core.hand import FULL_BARRE_STRINGS, Grip, Player
from clear_steps.core.score import TECHNIQUES, Bar, Technique, with_harder

# Steps beyond that each thing not known yet counts: any amount above the tolerance of a target would do
_AN_UNKNOWN = 0.5
_WORTH_SAYING = 0.01


class HardestShape(StrEnum):
    """The hardest kind of shape a student knows."""

    NO_BARRE = "no barre"
    SMALL_BARRE = "small barre"
    FULL_BARRE = "full barre"


@dataclass(frozen=True, slots=True)
class Limits:
    """A student's own limits; what nobody has said limits nothing, but the hand's comfortable span always
    does."""

    notes_per_second: float | None = None  # the fastest that come out clean
    unknown_techniques: frozenset[Technique] = frozenset()  # what needs one of them is not known either
    hardest_shape: HardestShape = HardestShape.FULL_BARRE
    steps: tuple[tuple[str, float], ...] = ()  # the comfortable Step of a measure, by its name

    def __post_init__(self) -> None:
        if self.notes_per_second is not None and not 0.5 <= self.notes_per_second <= 20:
            raise InvalidValueError("notes a second", self.notes_per_second, "0.5 to 20")
        for name, step in self.steps:
            if name not in MEASURES or not 1 <= step <= 10:
                raise InvalidValueError(
                    "limit of a measure",
                    f"{name} {step:g}",
                    f"one of {', '.join(MEASURES)}, with a Step from 1 to 10",
                )


@dataclass(frozen=True, slots=True)
class Beyond:
    """A measure of a bar that goes beyond a student, by how many Steps, and past what, in words."""

    measure: str
    steps: float
    limit: str
    unknown: bool = False  # the limit is what they have not learnt yet

    @property
    def words(self) -> str:
        """`stretch past a comfortable 75 mm`, `trills not known yet`."""
        return self.limit if self.unknown else f"{self.measure} past {self.limit}"


@dataclass(frozen=True, slots=True)
class Ability:
    """A student's hand and limits, ready to be held against bars graded by one ladder."""

    player: Player
    limits: Limits
    ladder: Ladder
    comfortable_step: float | None = None  # of a whole song

    def beyond(self, bar: BarGrade, written: Bar, grips: Sequence[Grip]) -> tuple[Beyond, ...]:
        """Where a graded bar goes beyond the student, the furthest first."""
        found = [*self._too_high(bar), *self._unknown(written), *self._too_wide(grips)]
        return tuple(sorted(found, key=lambda each: -each.steps))

    def _too_high(self, bar: BarGrade) -> Iterator[Beyond]:
        for name, step in self.limits.steps:
            over = bar.findings[name].step - step
            if over > _WORTH_SAYING:
                yield Beyond(name, over, f"Step {step:g}")
        over = bar.findings["stretch"].step - self.ladder.curves["stretch"].step(1.0)
        if over > _WORTH_SAYING:
            yield Beyond("stretch", over, f"a comfortable {self.player.span_mm:.0f} mm")
        yield from self._too_fast(bar)

    def _too_fast(self, bar: BarGrade) -> Iterator[Beyond]:
        """Of the hand that has the harder time: its rate is the one that is measured."""
        rate, found = self.limits.notes_per_second, bar.findings["speed"]
        if rate is not None and found.value is not None and found.value > rate + _WORTH_SAYING:
            easier = min(self.ladder.curves[f"{hand}_speed"].step(rate) for hand in ("fretting", "picking"))
            yield Beyond("speed", max(found.step - easier, _AN_UNKNOWN / 5), f"{rate:g} notes a second")

    def _unknown(self, bar: Bar) -> Iterator[Beyond]:
        unknown = with_harder(self.limits.unknown_techniques)
        used = (
            [
                technique
                for event in bar.events
                for note in event.notes
                for technique in event.techniques_of(note) & unknown
            ]
            if unknown
            else []
        )
        if used:
            names = sorted({TECHNIQUES[technique].plural for technique in used})
            yield Beyond("technique", _AN_UNKNOWN * len(used), f"{', '.join(names)} not known yet", True)

    def _too_wide(self, grips: Sequence[Grip]) -> Iterator[Beyond]:
        most = _MOST_STRINGS[self.limits.hardest_shape]
        over = sum(grip.barre_strings > most for grip in grips)
        if over:
            limit = "no barre known yet" if most == 0 else "no full barre known yet"
            yield Beyond("shapes", _AN_UNKNOWN * over, limit, True)


# Strings that one finger may stop.
_MOST_STRINGS = {
    HardestShape.NO_BARRE: 0,
    HardestShape.SMALL_BARRE: FULL_BARRE_STRINGS - 1,
    HardestShape.FULL_BARRE: 99,
}
