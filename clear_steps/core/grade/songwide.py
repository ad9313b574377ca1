"""What only the whole song shows: how long a hand works without rest."""

from collections.abc import Sequence

from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import PlayedBar

_MOST_STAMINA = 0.7
_HALFWAY, _REST = 0.5, -1.0  # of that pace the hand neither tires nor rests (from memory)
_WORKING_SHARE, _WORKING_STEP = 0.8, 5.0
_BEATS_FREE, _BEATS_FULL = 8.0, 80.0  # nothing is added up to the first, all from the second


def stamina(bars: Sequence[PlayedBar], ladder: Ladder) -> float:
    """Of bars as played: 0 to 0.7 by the longest stretch of beats in which a hand works hard or holds a
    barre."""
    threshold = min(
        _WORKING_SHARE * ladder.curves[f"{hand}_speed"].raw(_WORKING_STEP) for hand in ("fretting", "picking")
    )
    longest = run = 0.0
    for bar in bars:
        run = max(run + bar.beats * _work(bar, threshold), 0.0)
        longest = max(longest, run)
    return _MOST_STAMINA * min(max((longest - _BEATS_FREE) / (_BEATS_FULL - _BEATS_FREE), 0.0), 1.0)


def _work(bar: PlayedBar, notes_per_second: float) -> float:
    """1 where a hand works near so many notes a second all through a bar or a barre is held, down to -1 where
    it rests: a ramp, so that nothing jumps with the tempo."""
    if not bar.moments:
        return _REST
    barred = all(moment.grip is not None and moment.grip.barre_strings for moment in bar.moments)
    pace = len(bar.moments) / bar.seconds / notes_per_second
    return 1.0 if barred else min(max((pace - _HALFWAY) / (1 - _HALFWAY), _REST), 1.0)
