"""Bars played in one go: the time of each, and how the hand comes to one of them."""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import inf
from typing import NamedTuple

from clear_steps.core.hand import Fingered, Grip, gaps_of
from clear_steps.core.score.timing import BarTime

MOST_STOOD_S = 0.4  # longer in its place gives the hand no more (from memory)
FORGOTTEN_S = 8.0  # a shape set so long ago is no change, and a finger idle for so long at rest


class Entering(NamedTuple):
    """How a bar is come to: from which grip, so many seconds after its last demand; how long the hand had
    stood there by then, and how long ago, by the bar's start, a shape was set and the last finger that was
    needed was free (seconds)."""

    before: Grip | None
    gap: float
    stood: float
    since_set: float
    idle: float


@dataclass(frozen=True, slots=True)
class TimedRun:
    """A run of written bars (indexes) with the time of each, and the seconds from the demand before into
    it."""

    bars: tuple[int, ...]
    times: tuple[BarTime, ...]
    gaps: tuple[float, ...]

    def bears_from(self, at: int) -> int:
        """The position from which on what is played bears on a bar."""
        first, seconds = at, 0.0
        while first and seconds < FORGOTTEN_S:
            first -= 1
            seconds += self.times[first].seconds
        return first


def timed_run(fingered: Fingered, times: Sequence[BarTime], run: tuple[int, ...]) -> TimedRun:
    """A run of the route of what was fingered; `times` by written bar."""
    own = tuple([times[index] for index in run])
    return TimedRun(run, own, gaps_of([fingered.bars[index] for index in run], own))


def entering_at(fingered: Fingered, hand: int, timed: TimedRun, at: int) -> Entering:
    """Back from a position of a run until the hand moved, or had stood as long as counts."""
    before: Grip | None = None
    stood = wait = 0.0
    for grip, into in _demands_before(fingered, hand, timed, at):
        if before is None:
            before = grip
        elif grip.position != before.position or stood >= MOST_STOOD_S:
            break
        else:
            stood += wait
        wait = into
    return Entering(before, 0.0, round(min(stood, MOST_STOOD_S), 9), inf, FORGOTTEN_S)


def _demands_before(
    fingered: Fingered, hand: int, timed: TimedRun, position: int
) -> Iterator[tuple[Grip, float]]:
    """Every grip before a position, the last first, and the seconds into it."""
    for at in range(position - 1, -1, -1):
        index, quarter_seconds = timed.bars[at], timed.times[at].quarter_seconds
        onsets = [demand.onset_quarters * quarter_seconds for demand in fingered.bars[index].demands]
        waits = [timed.gaps[at], *(after - before for before, after in itertools.pairwise(onsets))]
        yield from zip(reversed(fingered.hands[hand][index]), reversed(waits[: len(onsets)]), strict=True)
