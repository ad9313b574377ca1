"""A part read as stretches: written names first, then what is carried, then what is held, then lines."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import lru_cache
from itertools import groupby, pairwise

from clear_steps.core.score import Bar, Part, Tuning
from clear_steps.core.shapes.carried import carried_grips, carried_intervals
from clear_steps.core.shapes.held import held_by_ear, held_by_name
from clear_steps.core.shapes.lines import lines
from clear_steps.core.shapes.moments import Moment, has_voices, moments_of
from clear_steps.core.shapes.patterns import pattern_of
from clear_steps.core.shapes.stretch import Kind, Shapes, Stretch

_MOST_RESTING_BARS = 2  # after which the same grip is set anew


def read_shapes(part: Part) -> Shapes:
    """What a player sees of a part, in written order."""
    moments = moments_of(part.bars)
    found = stretches_of(moments, part.tuning)
    return Shapes(moments, tuple(_with_pattern(part, moments, stretch) for stretch in found))


@lru_cache(maxsize=1024)
def shapes_in(bar: Bar, tuning: Tuning, chord: str = "") -> Shapes:
    """What a player sees of one bar alone, patterns left out; `chord` is the name in force."""
    moments = moments_of((bar,), chord)
    return Shapes(moments, stretches_of(moments, tuning))


def stretches_of(moments: Sequence[Moment], tuning: Tuning) -> tuple[Stretch, ...]:
    """The stretches that moments make, their patterns left out."""
    stretches: list[Stretch] = []
    begin = 0  # of what no name tells
    for first, last in _named_spans(moments):
        named = held_by_name(moments, first, last, tuning)
        if named:
            stretches += [*_unnamed(moments, begin, first - 1, tuning), *named]
            begin = last + 1
    stretches += _unnamed(moments, begin, len(moments) - 1, tuning)
    return carried_grips(_joined(moments, stretches))


def _with_pattern(part: Part, moments: Sequence[Moment], stretch: Stretch) -> Stretch:
    own = moments[stretch.first : stretch.last + 1]
    if stretch.kind is Kind.POSITION:
        return replace(stretch, voices=has_voices(own, part.tuning))
    return replace(stretch, pattern=pattern_of(part, own))


def _named_spans(moments: Sequence[Moment]) -> Iterator[tuple[int, int]]:
    """What stands under one written name."""
    starts = [at for at, moment in enumerate(moments) if moment.chord]
    for start, end in pairwise([*starts, len(moments)]):
        yield start, end - 1


def _unnamed(moments: Sequence[Moment], first: int, last: int, tuning: Tuning) -> Iterator[Stretch]:
    for begin, end, touched in _around(first, last, list(_harmonics(moments, first, last))):
        if touched:
            yield touched
        else:
            yield from _stopped(moments, begin, end, tuning)


def _harmonics(moments: Sequence[Moment], first: int, last: int) -> Iterator[Stretch]:
    """Natural harmonics one after another: no finger presses."""
    for touches, group in groupby(range(first, last + 1), key=lambda at: bool(moments[at].harmonics)):
        if touches:
            run = list(group)
            frets = sorted({fret for at in run for fret in moments[at].harmonics})
            name = f"harmonics at {' and '.join(map(str, frets))}"
            yield Stretch(run[0], run[-1], Kind.OPEN, name)


def _stopped(moments: Sequence[Moment], first: int, last: int, tuning: Tuning) -> Iterator[Stretch]:
    for begin, end, carried in _around(first, last, list(carried_intervals(moments, first, last, tuning))):
        if carried:
            yield carried
            continue
        for start, stop, held in _around(begin, end, list(held_by_ear(moments, begin, end, tuning))):
            if held:
                yield held
            else:
                yield from lines(moments, start, stop)


def _around(first: int, last: int, found: Sequence[Stretch]) -> Iterator[tuple[int, int, Stretch | None]]:
    """What was found, and what lies between."""
    at = first
    for stretch in found:
        if at < stretch.first:
            yield at, stretch.first - 1, None
        yield stretch.first, stretch.last, stretch
        at = stretch.last + 1
    if at <= last:
        yield at, last, None


def _joined(moments: Sequence[Moment], stretches: Sequence[Stretch]) -> list[Stretch]:
    """A grip named or met again while it is held is the same stretch."""
    found: list[Stretch] = []
    for stretch in stretches:
        before = found[-1] if found else None
        if before and _goes_on(moments, before, stretch):
            found[-1] = replace(before, last=stretch.last)
        else:
            found.append(stretch)
    return found


def _goes_on(moments: Sequence[Moment], before: Stretch, after: Stretch) -> bool:
    same = (before.kind, before.name, before.grip) == (after.kind, after.name, after.grip)
    apart = moments[after.first].bar - moments[before.last].bar
    return same and before.kind in (Kind.HELD, Kind.OPEN) and apart <= _MOST_RESTING_BARS
