"""A spread: fingers that lie far apart within a moment, with other notes between theirs, while the hand stays
where it is."""

from collections import deque
from dataclasses import dataclass
from functools import lru_cache
from math import inf
from typing import NamedTuple

from clear_steps.core.hand import Grip, Neck, passing_factor
from clear_steps.core.score import Finger

# From memory: within a quarter of a second the hand has to lie open over both; with more time it closes and
# opens again.
_OPEN_SECONDS, _LONGEST_SECONDS = 0.25, 0.6
_LEAST_SHARE = 0.5
_MOST_SHARE = passing_factor(inf)


@dataclass(frozen=True, slots=True)
class Spread:
    """From one finger to another, in mm along the neck and in the hand's own frame; between their frets, in
    so many seconds."""

    mm: float
    frets: tuple[int, int]
    seconds: float

    @property
    def counted_mm(self) -> float:
        """As a reach that is passed through, the less the more time the hand has in between; none beyond 0.6
        s."""
        return self.mm * _share(self.seconds)


@lru_cache(maxsize=4096)
def _share(seconds: float) -> float:
    if seconds > _LONGEST_SECONDS:
        return 0.0
    late = max(seconds - _OPEN_SECONDS, 0.0) / (_LONGEST_SECONDS - _OPEN_SECONDS)
    return passing_factor(1 / seconds) * (1 - (1 - _LEAST_SHARE) * late)


class _Lone(NamedTuple):
    """The one finger of a grip: where it presses, and how far from the hand's own place, in mm."""

    finger: Finger
    fret: int
    offset_mm: float


class Spreads:
    """Follows grips in time, and finds for each the spread that counts most, back over the one before it.

    Between grips of one note each, by different fingers; nothing else is a spread.
    """

    def __init__(self, neck: Neck, before: Grip | None) -> None:
        self._neck, self._at = neck, 0.0
        self._just_before = self._lone(before) if before else None  # from it leads a move; no spread
        self._just_before_at = 0.0
        self._recent: deque[tuple[float, _Lone]] = deque()  # before that

    def into(self, grip: Grip, seconds: float) -> Spread | None:
        """The widest spread into a grip that comes so many seconds after the one before."""
        self._at += seconds
        while self._recent and self._at - self._recent[0][0] > _LONGEST_SECONDS:
            self._recent.popleft()
        lone = self._lone(grip)
        widest = self._widest_into(lone) if lone else None
        if self._just_before:
            self._recent.append((self._just_before_at, self._just_before))
        self._just_before, self._just_before_at = lone, self._at
        return widest

    def _widest_into(self, lone: _Lone) -> Spread | None:
        most, widest = 0.0, None
        for then, old in self._recent:
            mm = abs(lone.offset_mm - old.offset_mm)
            if old.finger is not lone.finger and mm * _MOST_SHARE > most:
                time = round(self._at - then, 9)
                counted = mm * _share(time)
                if counted > most:
                    most, widest = counted, (mm, old.fret, time)
        if widest is None:
            return None
        mm, fret, time = widest
        return Spread(mm, (min(fret, lone.fret), max(fret, lone.fret)), time)

    def _lone(self, grip: Grip) -> _Lone | None:
        (finger, spot), *others = grip.presses
        if others or finger is Finger.THUMB:
            return None
        return _Lone(finger, spot.fret, self._neck.fret_mm(spot.fret) - self._neck.fret_mm(grip.position))
