"""The ladder: every curve and every technique's Step, as data that a teacher can edit."""

from dataclasses import dataclass, field
from enum import StrEnum

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.hand import Curve, ShapeSteps
from clear_steps.core.score import Technique
from clear_steps.core.score.strumming import ChordShape, StrumPattern


class Modifier(StrEnum):
    """What makes a technique harder or easier; its row says by how much of a Step."""

    BEND_HELPED = "bend by the ring finger with two fingers behind it, from the 5th fret"
    BEND_NEAR_NUT = "bend at the 1st to 3rd fret"
    BEND_BY_INDEX = "bend by the index alone"
    BEND_BY_LITTLE = "bend by the little finger"
    BEND_BESIDE_HELD = "bend beside a note that is held"
    SLUR_WEAK = "slur between ring and little finger"
    SLUR_FROM_NOWHERE = "hammer-on from nowhere"
    SLIDE_LONG = "slide over more than four frets"
    HARMONIC_EASY = "harmonic over the 12th fret"
    HARMONIC_HARD = "harmonic over the 3rd, 4th or 9th fret"


TUNE_FLOOR = 60.0  # from memory


@dataclass(frozen=True)
class Ladder:
    """A named set of curves and Steps; sources of its rows are kept with the file."""

    name: str
    curves: dict[str, Curve]
    technique_steps: dict[Technique, float]
    shapes: ShapeSteps
    modifiers: dict[Modifier, float]
    own_techniques: dict[str, float] = field(default_factory=dict)  # the teacher's own, by name
    tune_floor: float = TUNE_FLOOR  # per cent of the tune below which a version is no longer the tune
    strum_patterns: tuple[StrumPattern, ...] = ()  # that easier versions may use, fullest first
    chord_shapes: tuple[ChordShape, ...] = ()  # the easier ones of a chord, best first

    def __post_init__(self) -> None:
        missing = [
            *(set(Technique) - set(self.technique_steps)),
            *(set(Modifier) - set(self.modifiers)),
        ]
        if missing:
            raise InvalidValueError("ladder", self.name, f"a row for each of {', '.join(sorted(missing))}")
