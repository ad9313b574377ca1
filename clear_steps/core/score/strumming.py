"""Strum patterns and chord shapes as a teacher writes them down: rows of a table that can be added to."""

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.rhythm import Metre

EVERY_BEAT = "beats"  # instead of counts
ANY_METRE = "*"
_HALF = "&"
_MUTED = "x"


@dataclass(frozen=True, slots=True)
class StrumPattern:
    """What is struck in a bar, counted in the metre's unit: `1 2& 3`; by metre, or for any (`*`)."""

    name: str
    says: str  # to a student
    counts: Mapping[str, str]
    off_the_beat: bool = False  # for music that is struck between the beats

    def __post_init__(self) -> None:
        for metre, counts in self.counts.items():
            if counts != EVERY_BEAT and not all(_is_count(count) for count in counts.split()):
                raise InvalidValueError(f"pattern in {metre}", counts, "counts such as 1 2& 3")

    def onsets(self, metre: Metre) -> tuple[Fraction, ...]:
        """Where it strikes, in quarters from the bar's start; empty in a metre it is not for."""
        counts = self.counts.get(str(metre), self.counts.get(ANY_METRE, ""))
        if counts == EVERY_BEAT:
            beat = metre.beat_quarters
            return tuple(number * beat for number in range(int(metre.quarters / beat)))
        unit = Fraction(4, metre.unit)
        return tuple(
            (int(count.rstrip(_HALF)) - 1) * unit + (unit / 2 if count.endswith(_HALF) else 0)
            for count in counts.split()
        )


def _is_count(text: str) -> bool:
    return text.removesuffix(_HALF).isdigit() and int(text.removesuffix(_HALF)) > 0


@dataclass(frozen=True, slots=True)
class ChordShape:
    """A shape in standard tuning: the chord it stands for, its frets from the 6th string to the 1st (x: not
    played), and the chord it really is where that is a stated substitute."""

    chord: str
    frets: str
    substitute: str = ""

    def __post_init__(self) -> None:
        if len(self.frets) != 6 or not all(sign == _MUTED or sign.isdigit() for sign in self.frets):
            raise InvalidValueError(f"shape of {self.chord}", self.frets, "six frets or x, such as xx3211")

    @property
    def by_string(self) -> dict[int, int]:
        """Frets by string, 1 the thinnest."""
        return {6 - at: int(sign) for at, sign in enumerate(self.frets) if sign != _MUTED}
