"""Where beats become seconds: written time of every bar and event."""

from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score.song import Part


@dataclass(frozen=True, slots=True)
class BarTime:
    """A written bar in seconds from the part's start, and its seconds per quarter."""

    start: float
    seconds: float
    quarter_seconds: float

    def at(self, onset_quarters: float) -> float:
        """Seconds of an onset in the bar, from the part's start."""
        return self.start + onset_quarters * self.quarter_seconds


_FREE_TIME = 1.5  # in free time the hands take as much more as they need (from memory)


def taken_times(
    part: Part, marked_tempo: Fraction, practice_tempo: Fraction | None = None
) -> tuple[BarTime, ...]:
    """The same as a player takes them: bars in free time last longer than written."""
    start, times = 0.0, []
    for bar, time in zip(part.bars, bar_times(part, marked_tempo, practice_tempo), strict=True):
        slower = _FREE_TIME if any(event.free for event in bar.events) else 1.0
        times.append(BarTime(start, slower * time.seconds, slower * time.quarter_seconds))
        start += times[-1].seconds
    return tuple(times)


def bar_times(
    part: Part, marked_tempo: Fraction, practice_tempo: Fraction | None = None
) -> tuple[BarTime, ...]:
    """Times of the written bars, one after another.

    A practice tempo stands for the marked one; later changes of tempo keep their proportion.
    """
    scale = Fraction(1) if practice_tempo is None else practice_tempo / marked_tempo
    quarter_seconds, start, times = float(60 / (marked_tempo * scale)), 0.0, []
    for bar in part.bars:
        if bar.tempo is not None:
            quarter_seconds = float(60 / (bar.tempo * scale))
        seconds = float(bar.quarters) * quarter_seconds
        times.append(BarTime(start, seconds, quarter_seconds))
        start += seconds
    return tuple(times)
