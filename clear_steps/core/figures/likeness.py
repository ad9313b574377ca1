"""How one stretch is like another: equal, moved, on other strings, elsewhere, or of one rhythm; and where
it is not."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from clear_steps.core.figures.columns import Column, Stream

_ALL_THROUGH = (
    0.6  # the share of columns from which on a technique more or less is no difference (from memory)
)
_LEAST_ALIKE = 0.6  # of the columns
_OCTAVE = 12


class As(StrEnum):
    """How a place is like the first of its figure."""

    FIRST = "first"
    EQUAL = "equal"
    MOVED = "moved"  # along the neck, `by` frets
    STRINGS = "strings"  # to other strings, `by` strings thicker
    OCTAVE = "octave"
    PLACE = "place"  # the same pitches elsewhere on the neck
    RHYTHM = "rhythm"


@dataclass(frozen=True, slots=True)
class Likeness:
    """`but`: ticks from the later one's beginning at which it differs in what is struck; `otherwise`: where
    only the way of playing it does. `matched`, `moving`: columns that are alike, and those of them that
    show by how much it is moved."""

    how: As
    by: int
    columns: int  # of both stretches together
    matched: int
    moving: int
    reach: int  # ticks from the beginning to the last column that is alike
    but: tuple[int, ...] = ()
    otherwise: tuple[int, ...] = ()

    @property
    def other(self) -> int:
        """Columns that are not alike."""
        return self.columns - self.matched


_ANY = 99  # open strings lie the same wherever the hand is
Pair = tuple[int | None, int | None]  # columns by their index; one may be missing
Steps = list[int | None]


class Comparer:
    """Compares stretches of one stream; two kinds of columns are compared once."""

    def __init__(self, stream: Stream) -> None:
        self._stream = stream
        self._known: dict[tuple[int, int], tuple[int | None, int | None, int | None]] = {}

    def likenesses(self, first: int, later: int, length: int) -> Iterator[Likeness]:
        """The ways in which the stretch from column `later` on is like that from `first` on, both `length`
        ticks long, from the likest, but for rhythm alone; those in which most of it is not are left out."""
        pairs = self._paired(first, later, length)
        apart = [(None, None, None) if a is None or b is None else self._apart(a, b) for a, b in pairs]
        for hows, which in _WAYS:
            steps = [row[which] for row in apart]
            if len(steps) - steps.count(None) < _LEAST_ALIKE * len(steps):
                continue
            for how in hows:
                by = 0 if how is As.EQUAL else _most(steps)
                if by is None or not _can_be(how, by):
                    continue
                alike = [step in (by, _ANY) for step in steps]
                if sum(alike) >= _LEAST_ALIKE * len(pairs):
                    yield _told(self._stream, pairs, later, _Way(how, by, alike, steps.count(by)))

    def _paired(self, first: int, later: int, length: int) -> list[Pair]:
        """The columns of two stretches by their distance from the beginnings."""
        ats = self._stream.ats
        start, other = ats[first], ats[later]
        a_after = self._stream.column_after(start + length, first)
        b_after = self._stream.column_after(other + length, later)
        a, b, rows = first, later, []
        while a < a_after or b < b_after:
            left = ats[a] - start if a < a_after else length
            right = ats[b] - other if b < b_after else length
            rows.append((a if left <= right else None, b if right <= left else None))
            a, b = a + (left <= right), b + (right <= left)
        return rows

    def _apart(self, a: int, b: int) -> tuple[int | None, int | None, int | None]:
        """Frets, strings and half tones from one column to another, None where they are not that alike."""
        kinds = self._stream.kinds
        key = (kinds[a], kinds[b])
        if key not in self._known:
            one, other = self._stream.columns[a], self._stream.columns[b]
            self._known[key] = (_frets(one, other), _strings(one, other), _half_tones(one, other))
        return self._known[key]


def _can_be(how: As, by: int) -> bool:
    if how is As.PLACE:
        return by % _OCTAVE == 0
    return by != 0 or how is As.EQUAL


@dataclass(frozen=True, slots=True)
class _Way:
    """`alike`: for every pair whether it is; `moving`: how many of them show by how much it is moved."""

    how: As
    by: int
    alike: list[bool]
    moving: int


def _told(stream: Stream, pairs: list[Pair], later: int, way: _Way) -> Likeness:
    ats, columns = stream.ats, stream.columns
    start = ats[later]
    away = start - ats[pairs[0][0]] if pairs[0][0] is not None else 0
    but, last, reach = [], start, 0
    for (a, b), same in zip(pairs, way.alike, strict=True):
        last = ats[b] if b is not None else last
        if same:
            reach = last - start
        elif b is not None or a is None:
            but.append(last - start)
        else:
            missing = ats[a] + away
            but.append((last if _held_over(stream, last, missing) else missing) - start)
    whole = [
        (columns[a], columns[b])
        for (a, b), same in zip(pairs, way.alike, strict=True)
        if same and a is not None and b is not None
    ]
    return Likeness(
        As.OCTAVE if way.how is As.PLACE and way.by else way.how,
        way.by,
        len(pairs),
        len(whole),
        way.moving,
        reach,
        tuple(dict.fromkeys(but)),
        tuple([at - start for at in _played_otherwise(whole)]),
    )


def _held_over(stream: Stream, at: int, missing: int) -> bool:
    """Whether the note struck at a tick sounds on where another is missing."""
    following = stream.index_at[at] + 1
    if following == len(stream.columns):
        return True
    after = stream.columns[following]
    return missing < after.at - after.rest


def _played_otherwise(pairs: list[tuple[Column, Column]]) -> tuple[int, ...]:
    """Where techniques differ; one that is other all through, muted then open, is none."""
    other = [(b.at, a.techniques ^ b.techniques) for a, b in pairs if a.techniques != b.techniques]
    if not other:
        return ()
    counted = Counter(technique for _, techniques in other for technique in techniques)
    through = {row for row, count in counted.items() if count > 1 and count >= _ALL_THROUGH * len(pairs)}
    return tuple([at for at, techniques in other if techniques - through])


def _frets(a: Column, b: Column) -> int | None:
    """Frets up from one column to another on the same strings; open strings may stay where they are."""
    if a.spots == b.spots:
        return 0 if a.fretted else _ANY
    if a.strings != b.strings:
        return None
    steps = set()
    for (_, fret, dead), (_, other_fret, other_dead) in zip(a.spots, b.spots, strict=True):
        if dead != other_dead:
            return None
        if fret or other_fret:
            steps.add(other_fret - fret)
    return steps.pop() if len(steps) == 1 else None


def _strings(a: Column, b: Column) -> int | None:
    if len(a.spots) != len(b.spots):
        return None
    by = b.strings[0] - a.strings[0]
    same = b.spots == tuple([(string + by, fret, dead) for string, fret, dead in a.spots])
    return by if same else None


def _half_tones(a: Column, b: Column) -> int | None:
    if not a.pitches or len(a.pitches) != len(b.pitches):
        return None
    steps = {y - x for x, y in zip(a.pitches, b.pitches, strict=True)}
    return steps.pop() if len(steps) == 1 else None


def _most(steps: Steps) -> int | None:
    """The commonest, the nearest of several."""
    found = {step for step in steps if step is not None and step != _ANY}
    return max(found, key=lambda step: (steps.count(step), -abs(step)), default=None)


_WAYS = (
    ((As.EQUAL, As.MOVED), 0),
    ((As.STRINGS,), 1),
    ((As.PLACE,), 2),
)
