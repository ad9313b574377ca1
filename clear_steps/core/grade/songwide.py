"""What only the whole song shows: how much there is to remember, and how long without rest."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import chain
from math import log2

from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import PlayedBar
from clear_steps.core.score import Bar, Part

_A_BAR_MORE, _MOST_MEMORY = 0.2, 1.0
_MOST_STAMINA = 0.7
_WORKING_SHARE, _WORKING_STEP = 0.8, 5.0
_BEATS_FREE, _BEATS_FULL = 16.0, 96.0  # nothing is added up to the first, all from the second


@dataclass(frozen=True, slots=True)
class Figure:
    """What has to be remembered of a bar, ornaments left out: bars that share either are one figure."""

    shape: tuple[object, ...]  # rhythm, strings and frets from the lowest: the same wherever it is moved
    melody: tuple[
        object, ...
    ]  # rhythm and pitches from the lowest, with its pitch class: the same in every octave


def figure(part: Part, bar: Bar) -> Figure:
    """The figure of a bar; one with open strings keeps its frets."""
    rhythm = (bar.ticks_a_quarter, bar.ticks)
    spots = [[(note.string, note.dead, note.fret) for note in event.struck] for event in bar.events]
    pitches = [[part.pitch_of(note) for note in event.struck if not note.dead] for event in bar.events]
    notes, heard = list(chain.from_iterable(spots)), list(chain.from_iterable(pitches))
    frets = [fret for _, dead, fret in notes if not dead]
    moved = min(frets) if frets and 0 not in frets else 0
    lowest_string, lowest = min(notes)[0] if notes else 0, min(heard, default=0)
    shape = tuple(
        [tuple([(string - lowest_string, dead, fret - moved) for string, dead, fret in row]) for row in spots]
    )
    melody = tuple([tuple(sorted([pitch - lowest for pitch in row])) for row in pitches])
    return Figure((rhythm, shape), (rhythm, lowest % 12, melody))


class Figures:
    """Which bars of a part are one figure; that of a bar is made out once."""

    def __init__(self) -> None:
        self._known: dict[
            int, tuple[Bar, int, int]
        ] = {}  # by the bar's identity: numbers of its shape and melody
        self._numbers: dict[tuple[object, ...], int] = {}

    def memory(self, part: Part, sounding: Iterable[int]) -> float:
        """0.2 log2(distinct figures), at most 1; `sounding` are the indexes of bars that hold notes."""
        distinct = len(set(self.firsts(part, sorted(sounding)).values()))
        return min(_A_BAR_MORE * log2(max(distinct, 1)), _MOST_MEMORY)

    def firsts(self, part: Part, bars: Sequence[int]) -> dict[int, int]:
        """For every bar (index) the first of these that is the same figure, itself where none was before
        it."""
        seen: dict[int, int] = {}
        firsts = {}
        for index in bars:
            shape, melody = self._numbered(part, part.bars[index])
            first = seen.get(shape, seen.get(melody, index))
            firsts[index] = first
            seen.setdefault(shape, first)
            seen.setdefault(melody, first)
        return firsts

    def _numbered(self, part: Part, bar: Bar) -> tuple[int, int]:
        if id(bar) not in self._known:
            own = figure(part, bar)
            numbers = (
                self._numbers.setdefault(("shape", *own.shape), len(self._numbers)),
                self._numbers.setdefault(("melody", *own.melody), len(self._numbers)),
            )
            self._known[id(bar)] = (bar, *numbers)
        return self._known[id(bar)][1:]


def stamina(bars: Sequence[PlayedBar], order: Sequence[int], ladder: Ladder) -> float:
    """0 to 0.7 by the longest stretch of beats in which a hand works hard or holds a barre."""
    threshold = min(
        _WORKING_SHARE * ladder.curves[f"{hand}_speed"].raw(_WORKING_STEP) for hand in ("fretting", "picking")
    )
    working = [_works(bar, threshold) for bar in bars]
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
