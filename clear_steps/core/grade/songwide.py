"""What only the whole song shows: how much there is to remember, and how long without rest."""

from collections.abc import Iterable, Sequence
from math import log2

from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import PlayedBar
from clear_steps.core.score import Bar

_A_BAR_MORE, _MOST_MEMORY = 0.2, 1.0
_MOST_STAMINA = 0.7
_WORKING_SHARE, _WORKING_STEP = 0.8, 5.0
_BEATS_FREE, _BEATS_FULL = 16.0, 96.0  # nothing is added up to the first, all from the second


class Figures:
    """How much there is to remember; the figure of a bar is made out once."""

    def __init__(self) -> None:
        self._known: dict[int, tuple[Bar, int]] = {}  # by the bar's identity: the bar and the number of its figure
        self._numbers: dict[tuple[object, ...], int] = {}

    def memory(self, bars: Sequence[Bar], sounding: Iterable[int]) -> float:
        """0.2 log2(distinct figures), at most 1; `sounding` are the indexes of bars that hold notes."""
        distinct = {self.number(bars[index]) for index in sounding}
        return min(_A_BAR_MORE * log2(max(len(distinct), 1)), _MOST_MEMORY)

    def number(self, bar: Bar) -> int:
        """Equal for bars of one figure."""
        if id(bar) not in self._known:
            self._known[id(bar)] = (bar, self._numbers.setdefault(figure(bar), len(self._numbers)))
        return self._known[id(bar)][1]


def figure(bar: Bar) -> tuple[object, ...]:
    """What has to be remembered of a bar: rhythm, strings, frets from its lowest.

    Ornaments do not count, and a figure without open strings is the same wherever it is moved.
    """
    frets = [note.fret for event in bar.events for note in event.struck if not note.dead]
    moved = min(frets) if frets and 0 not in frets else 0
    return tuple((event.quarters, tuple((note.string, note.dead, note.fret - moved) for note in event.struck)) for event in bar.events)


def stamina(bars: Sequence[PlayedBar], order: Sequence[int], ladder: Ladder) -> float:
    """0 to 0.7 by the longest stretch of beats in which a hand works hard or holds a barre."""
    threshold = {hand: _WORKING_SHARE * ladder.curves[f"{hand}_speed"].raw(_WORKING_STEP) for hand in ("fretting", "picking")}
    working = {bar.index: _works(bar, min(threshold.values())) for bar in bars}
    longest = run = 0.0
    for index in order:
        run = run + bars[index].beats if working[index] else 0.0
        longest = max(longest, run)
    return _MOST_STAMINA * min(max((longest - _BEATS_FREE) / (_BEATS_FULL - _BEATS_FREE), 0.0), 1.0)


def _works(bar: PlayedBar, notes_per_second: float) -> bool:
    if not bar.moments:
        return False
    barred = all(moment.grip is not None and moment.grip.barre_strings for moment in bar.moments)
    return barred or len(bar.moments) / bar.seconds >= notes_per_second
