"""What only the whole song shows: how much there is to remember, and how long without rest."""

from collections.abc import Sequence
from math import log2

from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import PlayedBar

_A_BAR_MORE, _MOST_MEMORY = 0.2, 1.0
_MOST_STAMINA = 0.7
_WORKING_SHARE, _WORKING_STEP = 0.8, 5.0
_BEATS_FREE, _BEATS_FULL = 16.0, 96.0  # nothing is added up to the first, all from the second


def memory(bars_to_learn: float) -> float:
    """0.2 log2(bars to learn), at most 1; nothing for one bar or less."""
    return min(_A_BAR_MORE * log2(max(bars_to_learn, 1.0)), _MOST_MEMORY)


def stamina(bars: Sequence[PlayedBar], ladder: Ladder) -> float:
    """Of bars as played: 0 to 0.7 by the longest stretch of beats in which a hand works hard or holds a
    barre."""
    threshold = min(
        _WORKING_SHARE * ladder.curves[f"{hand}_speed"].raw(_WORKING_STEP) for hand in ("fretting", "picking")
    )
    longest = run = 0.0
    for bar in bars:
        run = run + bar.beats if _works(bar, threshold) else 0.0
        longest = max(longest, run)
    return _MOST_STAMINA * min(max((longest - _BEATS_FREE) / (_BEATS_FULL - _BEATS_FREE), 0.0), 1.0)


def _works(bar: PlayedBar, notes_per_second: float) -> bool:
    if not bar.moments:
        return False
    barred = all(moment.grip is not None and moment.grip.barre_strings for moment in bar.moments)
    return barred or len(bar.moments) / bar.seconds >= notes_per_second
