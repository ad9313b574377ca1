"""A spread: fingers that lie far apart within a moment, with other notes between theirs, while the hand stays where it is."""

from collections import deque
from dataclasses import dataclass
from functools import lru_cache

from clear_steps.core.hand import Grip, Neck, passing_factor
from clear_steps.core.score import Finger

# From memory: within a quarter of a second the hand has to lie open over both; with more time it closes and opens again.
_OPEN_SECONDS, _LONGEST_SECONDS = 0.25, 0.6
_LEAST_SHARE = 0.5


@dataclass(frozen=True, slots=True)
class Spread:
    """From one finger to another, in mm along the neck and in the hand's own frame; between their frets, in so many seconds."""

    mm: float
    frets: tuple[int, int]
    seconds: float

    @property
    def counted_mm(self) -> float:
        """As a reach that is passed through, the less the more time the hand has in between; none beyond 0.6 s."""
        if self.seconds > _LONGEST_SECONDS:
            return 0.0
        late = max(self.seconds - _OPEN_SECONDS, 0.0) / (_LONGEST_SECONDS - _OPEN_SECONDS)
        return self.mm * passing_factor(1 / self.seconds) * (1 - (1 - _LEAST_SHARE) * late)


class Spreads:
    """Follows grips in time, and finds for each the spread that counts most, back over the one before it."""

    def __init__(self, neck: Neck, before: Grip | None) -> None:
        self._neck, self._at = neck, 0.0
        self._recent: deque[tuple[float, Grip]] = deque([(0.0, before)] if before else ())

    def into(self, grip: Grip, seconds: float) -> Spread | None:
        """The widest spread into a grip that comes so many seconds after the one before."""
        self._at += seconds
        while self._recent and self._at - self._recent[0][0] > _LONGEST_SECONDS:
            self._recent.popleft()
        earlier = list(self._recent)[:-1]  # into the grip from the one just before it leads a move
        self._recent.append((self._at, grip))
        found = ((self._at - then, _apart(old, grip, self._neck)) for then, old in earlier if then < self._at)
        spreads = (Spread(*apart, round(time, 9)) for time, apart in found if apart)
        return max(spreads, key=lambda spread: spread.counted_mm, default=None)


@lru_cache(maxsize=20_000)
def _apart(old: Grip, new: Grip, neck: Neck) -> tuple[float, tuple[int, int]] | None:
    """Between two grips of one note each, by different fingers: mm in the hand's own frame, and the frets; nothing else is a spread."""
    if len(old.presses) != 1 or len(new.presses) != 1:
        return None
    (finger, a), (other, b) = old.presses[0], new.presses[0]
    if finger is other or Finger.THUMB in (finger, other):
        return None
    moved = neck.fret_mm(new.position) - neck.fret_mm(old.position)
    return abs(neck.fret_mm(b.fret) - neck.fret_mm(a.fret) - moved), (min(a.fret, b.fret), max(a.fret, b.fret))
