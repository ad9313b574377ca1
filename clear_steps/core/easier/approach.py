"""Ways to make a part easier: what is given up last."""

from dataclasses import dataclass
from enum import StrEnum

from clear_steps.core.easier.kept import WEIGHTS


class Approach(StrEnum):
    """What a teacher wants to keep above all."""

    SOUND = "sound"
    GROOVE = "groove"
    SHAPES = "shapes"
    STRUM = "strum"
    MELODY = "melody"


@dataclass(frozen=True, slots=True)
class ApproachRow:
    """What it is called, what the search weighs, which kinds of edit it leaves alone, and the layer it
    begins with."""

    words: str
    weights: dict[str, float]
    without: frozenset[str] = frozenset()
    layer: str = ""


APPROACHES: dict[Approach, ApproachRow] = {
    Approach.SOUND: ApproachRow("keep the sound: hand first, then texture", WEIGHTS),
    Approach.GROOVE: ApproachRow(
        "keep the groove: rhythm last", {"tune": 0.2, "bass": 0.1, "harmony": 0.15, "rhythm": 0.55}
    ),
    Approach.SHAPES: ApproachRow(
        "keep the shapes: positions and chords stay, notes thin out",
        WEIGHTS,
        frozenset({"place", "chord", "octave", "tap", "bend-fret", "bend-slide"}),
    ),
    Approach.STRUM: ApproachRow(
        "strum along: chords only", {"tune": 0.1, "bass": 0.2, "harmony": 0.5, "rhythm": 0.2}, layer="strum"
    ),
    Approach.MELODY: ApproachRow(
        "melody first: the tune stays longest", {"tune": 0.75, "bass": 0.05, "harmony": 0.05, "rhythm": 0.15}
    ),
}
