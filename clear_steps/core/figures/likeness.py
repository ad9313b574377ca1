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


Pair = tuple[Column | None, Column | None]
_ANY = 99  # open strings lie the same wherever the hand is


def paired(stream: Stream, first: int, later: int, length: int) -> list[Pair]:
    """The columns of two stretches of `length` ticks, by their distance from the beginnings."""
    columns = stream.columns
    a, b = first, later
    start, other = columns[first].at, columns[later].at
    rows: list[Pair] = []
    while True:
        left = columns[a] if a < len(columns) and columns[a].at < start + length else None
        right = columns[b] if b < len(columns) and columns[b].at < other + length else None
        if left is None and right is None:
            return rows
        apart = (left.at - start if left else length) - (right.at - other if right else length)
        rows.append((left if apart <= 0 else None, right if apart >= 0 else None))
        a, b = a + (apart <= 0), b + (apart >= 0)


def likenesses(stream: Stream, first: int, later: int, length: int) -> Iterator[Likeness]:
    """The ways in which the stretch from column `later` on is like that from `first` on, from the likest,
    but for rhythm alone; those in which most of it is not are left out."""
    pairs = paired(stream, first, later, length)
    whole = [(a, b) for a, b in pairs if a and b]
    for hows, step in _WAYS:
        steps = [step(a, b) for a, b in whole]
        for how in hows:
            by = 0 if how is As.EQUAL else _most(steps)
            if by is None or not _can_be(how, by):
                continue
            same = iter([row is not None and row in (by, _ANY) for row in steps])
            alike = [bool(a and b) and next(same) for a, b in pairs]
            if sum(alike) >= _LEAST_ALIKE * len(pairs):
                yield _told(stream, pairs, later, _Way(how, by, alike, sum(row == by for row in steps)))


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
    start = stream.columns[later].at
    earlier = pairs[0][0].at if pairs[0][0] else 0
    but, last, reach = [], start, 0
    for (a, b), same in zip(pairs, way.alike, strict=True):
        last = b.at if b else last
        if same:
            reach = last - start
            continue
        missing = a.at - earlier + start if a else last
        but.append((b.at if b else last if _held_over(stream, last, missing) else missing) - start)
    whole = [(a, b) for (a, b), same in zip(pairs, way.alike, strict=True) if a and b and same]
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
    counted = Counter(technique for a, b in pairs for technique in a.techniques ^ b.techniques)
    through = {row for row, count in counted.items() if count > 1 and count >= _ALL_THROUGH * len(pairs)}
    return tuple([b.at for a, b in pairs if (a.techniques ^ b.techniques) - through])


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


def _most(steps: list[int | None]) -> int | None:
    counted = Counter(step for step in steps if step is not None and step != _ANY)
    return max(counted, key=lambda step: (counted[step], -abs(step))) if counted else None


_WAYS = (
    ((As.EQUAL, As.MOVED), _frets),
    ((As.STRINGS,), _strings),
    ((As.PLACE,), _half_tones),
)
