"""The hand that plays, and how it likes to move."""

from dataclasses import dataclass
from enum import StrEnum

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Finger

REACH_OVER_SPAN = 1.4  # the most a hand can reach over its comfortable span (from memory)


class LittleFinger(StrEnum):
    """How willingly a player uses the little finger."""

    AVOIDED = "avoided"
    USUAL = "usual"
    PREFERRED = "preferred"


@dataclass(frozen=True, slots=True)
class Habits:
    """What a hand is used to, whatever its size."""

    little_finger: LittleFinger = LittleFinger.USUAL
    thumb_over: bool = False  # the thumb may fret the thickest string
    spared: frozenset[Finger] = frozenset()  # fingers that it does without wherever it can


@dataclass(frozen=True, slots=True)
class Player:
    """Comfortable span from index to little finger in mm; a child's may be 60, a large hand's 130."""

    span_mm: float = 100.0
    habits: Habits = Habits()

    def __post_init__(self) -> None:
        if not 40 <= self.span_mm <= 200:
            raise InvalidValueError("hand span", self.span_mm, "40 to 200 mm from index to little finger")

    @property
    def reach_mm(self) -> float:
        """The most this hand can reach, mm."""
        return self.span_mm * REACH_OVER_SPAN


# Comfortable spans, mm (from memory).
PRESET_SPANS_MM: dict[str, float] = {"child": 75.0, "small": 90.0, "medium": 100.0, "large": 115.0}


class School(StrEnum):
    """Two ways to finger, both right for someone: keep fingers down, or move the whole hand."""

    HOLD = "hold"
    BALANCED = "balanced"
    MOVE = "move"


@dataclass(frozen=True, slots=True)
class SchoolWeights:
    """Factors on what a reach and a move of the hand cost the path."""

    reach: float
    move: float


SCHOOLS: dict[School, SchoolWeights] = {
    School.HOLD: SchoolWeights(reach=0.4, move=2.5),
    School.BALANCED: SchoolWeights(reach=1.0, move=1.0),
    School.MOVE: SchoolWeights(reach=2.5, move=0.4),
}
