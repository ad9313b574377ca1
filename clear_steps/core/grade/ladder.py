"""The ladder: every curve and every technique's Step, as data that a teacher can edit."""

from dataclasses import dataclass, field

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.hand import Curve, ShapeSteps
from clear_steps.core.score import Technique

CURVE_NAMES = (
    "stretch",
    "shift",
    "fretting_speed",
    "picking_speed",
    "shape_changes",
    "picking",
    "damping",
    "rhythm",
    "independence",
)
TUNE_FLOOR = 60.0  # from memory


@dataclass(frozen=True)
class Ladder:
    """A named set of curves and Steps; sources of its rows are kept with the file."""

    name: str
    curves: dict[str, Curve]
    technique_steps: dict[Technique, float]
    shapes: ShapeSteps
    own_techniques: dict[str, float] = field(default_factory=dict)  # the teacher's own, by name
    tune_floor: float = TUNE_FLOOR  # per cent of the tune below which a version is no longer the tune

    def __post_init__(self) -> None:
        missing = [*(set(CURVE_NAMES) - set(self.curves)), *(set(Technique) - set(self.technique_steps))]
        if missing:
            raise InvalidValueError("ladder", self.name, f"a row for each of {', '.join(sorted(missing))}")
