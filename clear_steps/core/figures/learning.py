"""How much of a part there is to learn: what was played before, the same or moved, is known."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import chain

from clear_steps.core.score import Bar, Part

_WINDOW = 4  # columns in a row that are known make each of them known; a bar of fewer counts as a whole
_ELSEWHERE = 0.5  # what is known from another place of the bar is half to learn: where it comes is new


@dataclass(frozen=True, slots=True)
class _Windows:
    """Neighbouring columns of a bar, by numbers for every way of being the same: `here` together with where
    in the bar they begin, `anywhere` without; all of both in `numbers`."""

    here: tuple[tuple[int, ...], ...]
    anywhere: tuple[tuple[int, ...], ...]
    numbers: frozenset[int]


class Learning:
    """Made out once for every bar: the windows of its columns."""

    def __init__(self) -> None:
        self._known: dict[int, tuple[Bar, _Windows]] = {}  # by the bar's identity
        self._numbers: dict[object, int] = {}

    def bars_to_learn(self, part: Part, bars: Iterable[int]) -> float:
        """Of these bars (indexes), in their order: how many there are to learn, shares of bars too.

        Known is a note that lies among notes that came before, the same, moved along or across the neck, or
        in another place or octave; ornaments are left out.
        """
        seen: set[int] = set()
        total = 0.0
        for index in bars:
            windows = self._windows(part, part.bars[index])
            if seen.isdisjoint(windows.numbers):
                total += bool(windows.here)
            else:
                total += _share(_news(windows, seen), _columns(part.bars[index]))
            seen |= windows.numbers
        return total

    def _windows(self, part: Part, bar: Bar) -> _Windows:
        if id(bar) not in self._known:
            rows = [(at, [self._number(key) for key in keys]) for at, keys in _keys(part, bar)]
            here = tuple([tuple([self._number((at, number)) for number in numbers]) for at, numbers in rows])
            anywhere = tuple([tuple(numbers) for _, numbers in rows])
            self._known[id(bar)] = (bar, _Windows(here, anywhere, frozenset(chain(*here, *anywhere))))
        return self._known[id(bar)][1]

    def _number(self, key: object) -> int:
        return self._numbers.setdefault(key, len(self._numbers))


def _news(windows: _Windows, seen: set[int]) -> list[float]:
    """For every window 1 where it is new, 0 where it is known, or how new it is elsewhere in the bar."""
    return [
        (1.0 if seen.isdisjoint(anywhere) else _ELSEWHERE) if seen.isdisjoint(here) else 0.0
        for here, anywhere in zip(windows.here, windows.anywhere, strict=True)
    ]


def _columns(bar: Bar) -> int:
    return sum([1 for event in bar.events if event.struck])


def _share(news: list[float], columns: int) -> float:
    """Of the bar's columns, each as new as the best known window it lies in."""
    if columns <= _WINDOW:
        return news[0]
    return sum([min(news[max(at - _WINDOW + 1, 0) : at + 1]) for at in range(columns)]) / columns


def _keys(part: Part, bar: Bar) -> list[tuple[float, tuple[object, ...]]]:
    """Of every window of a bar where it begins, and what it is: by shape moved along the neck, by shape
    across it, by melody."""
    rows = []
    for tick, event in zip(bar.ticks, bar.events, strict=False):
        if struck := event.struck:
            spots = [(note.string, 0 if note.dead else note.fret, note.dead) for note in struck]
            pitches = sorted([part.pitch_of(note) for note in struck if not note.dead])
            rows.append((tick / bar.ticks_a_quarter, spots, pitches))
    if len(rows) <= _WINDOW:
        whole = (rows[0][0], float(bar.quarters)) if rows else None
        return [(0.0, _window_keys(rows, whole))] if rows else []
    windows = [rows[at : at + _WINDOW] for at in range(len(rows) - _WINDOW + 1)]
    return [(window[0][0], _window_keys(window, None)) for window in windows]


_Row = tuple[float, list[tuple[int, int, bool]], list[int]]


def _window_keys(rows: list[_Row], whole: object) -> tuple[object, ...]:
    """Open strings stay where they are; `whole` sets bars of few notes apart by where they begin and end."""
    start = rows[0][0]
    rhythm = (whole, tuple([at - start for at, _, _ in rows]))
    spots = [row for _, row, _ in rows]
    low = min([fret for row in spots for _, fret, _ in row if fret], default=0)
    string = min([string for row in spots for string, _, _ in row])
    pitches = [row for _, _, row in rows]
    lowest = min([pitch for row in pitches for pitch in row], default=0)
    return (
        (
            rhythm,
            tuple([tuple([(s, fret and fret - low + 1, dead) for s, fret, dead in row]) for row in spots]),
        ),
        (rhythm, tuple([tuple([(s - string, -fret, dead) for s, fret, dead in row]) for row in spots])),
        (rhythm, lowest % 12, tuple([tuple([pitch - lowest for pitch in row]) for row in pitches])),
    )
