"""What is told of a part, in its bars as written."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

from clear_steps.core.figures.choosing import Coming
from clear_steps.core.figures.columns import Stream
from clear_steps.core.figures.finding import Found
from clear_steps.core.figures.likeness import As
from clear_steps.core.figures.rules import Stepping, rule_words


@dataclass(frozen=True, slots=True, order=True)
class At:
    """A moment: the bar's index and quarters from its start."""

    bar: int
    onset: Fraction


@dataclass(frozen=True, slots=True)
class Place:
    """Where a figure comes, both notes included; `but`: moments at which it is other than the first place;
    `by` frets or strings, as `how` says, half tones of an octave."""

    first: At
    last: At
    how: As
    by: int = 0
    but: tuple[At, ...] = ()


@dataclass(frozen=True, slots=True)
class Figure:
    """What comes several times: `times` as played; `places` as written, each once. The one that is played
    first is the first."""

    times: int
    places: tuple[Place, ...]
    strings: tuple[int, ...] = ()  # of the one voice that it lies in

    @property
    def first(self) -> Place:
        """The place that the others are like."""
        return next(place for place in self.places if place.how is As.FIRST)

    @property
    def later(self) -> tuple[Place, ...]:
        """All but the first."""
        return tuple(place for place in self.places if place.how is not As.FIRST)


@dataclass(frozen=True, slots=True)
class Rule:
    """A cell of `notes` columns that begins anew `by` notes, frets or strings (`of`) further, again and
    again."""

    first: At
    last: At
    notes: int
    by: int
    of: str
    words: str


@dataclass(frozen=True, slots=True)
class ComingBack:
    """All that comes back in a part, in the order it begins."""

    figures: tuple[Figure, ...] = ()
    rules: tuple[Rule, ...] = ()


def told_figure(stream: Stream, coming: Coming) -> Figure | None:
    """Every place that lies in one piece as written, once, none over another; None if that leaves one alone.

    The first is the first that is played; another may stand before it in the text.
    """
    length = coming.stretch.length
    first = _span(stream, coming.stretch.first, length)
    if first is None:
        return None
    rows = {first: Place(*first, As.FIRST)}
    for found in coming.places:
        if span := _span(stream, found.first, length):
            rows.setdefault(span, _place(stream, span, found))
    places = tuple([rows[span] for span in _apart(sorted(rows), first)])
    return Figure(1 + len(coming.places), places, stream.strings) if len(places) > 1 else None


def _apart(spans: list[tuple[At, At]], first: tuple[At, At]) -> list[tuple[At, At]]:
    """Without those that, as written, lie over the first or over one before them."""
    kept: list[tuple[At, At]] = []
    for span in spans:
        if span == first or ((not kept or kept[-1][1] < span[0]) and _are_apart(span, first)):
            kept.append(span)
    return kept


def _are_apart(one: tuple[At, At], other: tuple[At, At]) -> bool:
    return one[1] < other[0] or other[1] < one[0]


def without_parts(stream: Stream, rows: Sequence[Coming]) -> list[Coming]:
    """Without those of which another tells every place that lies in one piece as written, and more."""
    spans = {span for row in rows for span in _places(stream, row, row.starts)}
    whole = {span for span in spans if _is_in_one_piece(stream, *span)}
    own = [_places(stream, row, row.starts) & whole for row in rows]
    told = [_places(stream, row, row.sung) for row in rows]
    return [
        row
        for row, places in zip(rows, own, strict=True)
        if not any(len(other) > len(places) and places <= other for other in told)
    ]


def _places(stream: Stream, one: Coming, starts: Iterable[int]) -> set[tuple[int, int]]:
    """First and last column of every place."""
    length = one.stretch.length
    return {(stream.index_at[start], stream.column_after(start + length) - 1) for start in starts}


def _is_in_one_piece(stream: Stream, first: int, last: int) -> bool:
    """Whether no bar is left out or repeated between two columns."""
    bars = stream.bars_between(stream.columns[first].at, stream.columns[last].at)
    return all(after == before + 1 for before, after in pairwise(bars))


def told_rule(stream: Stream, row: Stepping) -> Rule | None:
    """A sequence that lies in one piece as written; None of another."""
    columns = stream.columns
    span = _span(stream, row.first, columns[row.last].at - columns[row.first].at + 1)
    return Rule(*span, row.size, row.by, row.of, rule_words(stream, row)) if span else None


def _place(stream: Stream, span: tuple[At, At], found: Found) -> Place:
    start, likeness = stream.columns[found.first].at, found.likeness
    ticks = {start + tick for tick in (*likeness.but, *likeness.otherwise)}
    return Place(*span, likeness.how, likeness.by, tuple(sorted({moment_at(stream, tick) for tick in ticks})))


def _span(stream: Stream, first: int, length: int) -> tuple[At, At] | None:
    columns = stream.columns
    last = stream.column_after(columns[first].at + length, first) - 1
    if not _is_in_one_piece(stream, first, last):
        return None
    return At(columns[first].bar, columns[first].onset), At(columns[last].bar, columns[last].onset)


def moment_at(stream: Stream, tick: int) -> At:
    """The moment of a tick: a column's, or a point of a bar."""
    if tick in stream.index_at:
        column = stream.columns[stream.index_at[tick]]
        return At(column.bar, column.onset)
    bar, start, _ = stream.bar_at(tick)
    return At(bar, Fraction(tick - start, stream.ticks))
