"""The hand that plucks: as it is written, else the one that the music asks for."""

from itertools import pairwise

from clear_steps.core.score import Bar, Part

_FAR = 2  # strings apart, over which a pick goes through; beyond it only fingers strike at once
_ASKED = 0.5  # of the bars hold such a pinch: from here on it is told


def asks_for_fingers(part: Part) -> bool:
    """Whether nothing is written and strings far apart are struck at once again and again (tenths,
    pinches)."""
    return part.picking is None and PickingHands().plucked(part) >= _ASKED


class PickingHands:
    """Looks at each bar once, also in other parts that hold it."""

    def __init__(self) -> None:
        self._bars: dict[int, tuple[Bar, int]] = {}  # by the bar's identity

    def plucked(self, part: Part) -> float:
        """How surely fingers pluck, 0 to 1: as written, else by how many pinches there are to a bar."""
        if part.picking is not None:
            return float(part.picking.plucked)
        for bar in part.bars:
            if id(bar) not in self._bars:
                self._bars[id(bar)] = (bar, _pinches(bar))
        sounding = sum([not bar.silent for bar in part.bars])
        pinches = sum([self._bars[id(bar)][1] for bar in part.bars])
        return min(pinches / sounding, 1.0) if sounding else 0.0


def _pinches(bar: Bar) -> int:
    """Events that strike strings far apart and none between."""
    strings = [sorted(note.string for note in event.struck if not note.dead) for event in bar.events]
    return sum([any(b - a > _FAR for a, b in pairwise(own)) for own in strings])
