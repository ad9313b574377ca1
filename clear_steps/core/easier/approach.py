"""Ways to make a part easier: what is given up last."""

from dataclasses import dataclass
from enum import StrEnum


class Approach(StrEnum):
    """What a teacher wants to keep above all."""

    SOUND = "sound"
    GROOVE = "groove"
    SHAPES = "shapes"
    STRUM = "strum"
    MELODY = "melody"


@dataclass(frozen=True, slots=True)
class ApproachRow:
    """What it is called, what the search weighs, which choices and kinds of edit it leaves alone, and the
    layer it begins with."""

    words: str
    lean: dict[str, float]  # what is worth more than usual, as a factor by score
    without: frozenset[str] = frozenset()
    layer: str = ""


APPROACHES: dict[Approach, ApproachRow] = {
    Approach.SOUND: ApproachRow("keep the sound: hand first, then texture", {}),
    Approach.GROOVE: ApproachRow("keep the groove: rhythm last", {"rhythm": 3.0}),
    Approach.SHAPES: ApproachRow(
        "keep the shapes: positions and chords stay, notes thin out",
        {},
        frozenset({"place", "shapes", "bends", "unusual", "tap", "bend-fret", "bend-slide", "octave"}),
    ),
    Approach.STRUM: ApproachRow("strum along: chords only", {"harmony": 2.0}, layer="strum"),
    Approach.MELODY: ApproachRow("melody first: the tune stays longest", {"tune": 3.0}),
}
