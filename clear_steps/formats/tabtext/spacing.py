"""Rhythm from even spacing: the columns of a bar share its length."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import product

# Grids in the order tried, in quarters: quarter ... thirty-second.
GRIDS = (Fraction(1), Fraction(1, 2), Fraction(1, 3), Fraction(1, 4), Fraction(1, 6), Fraction(1, 8))

_TWO_COLUMNS_BEFORE = (2, 2)  # |--1-3-5-3-...-|, padding and shift: as common as one


@dataclass(frozen=True, slots=True)
class SpacedBar:
    """Columns of a bar's notes, counted from the bar's first column, ascending."""

    columns: tuple[int, ...]
    width: int
    quarters: Fraction


@dataclass(frozen=True, slots=True)
class SpacedRhythm:
    """Onsets in quarters; `certain` is False where no grid fitted."""

    onsets: tuple[Fraction, ...]
    certain: bool


@dataclass(frozen=True, slots=True)
class _Fit:
    grid: int  # index into GRIDS; len(GRIDS) = none fits
    misfit: float
    rhythm: SpacedRhythm


def _fit(bar: SpacedBar, padding: int, shift: int) -> _Fit:
    width = max(bar.width - padding, 1)
    places = [max(column - shift, 0) * bar.quarters / width for column in bar.columns]
    for index, grid in enumerate(GRIDS):
        spacing = grid * width / bar.quarters  # columns between grid lines
        snapped = [round(place / grid) * grid for place in places]
        off = [abs(place - snap) * width / bar.quarters for place, snap in zip(places, snapped, strict=True)]
        fits = all(miss * 4 < spacing and miss < 1 for miss in off)
        if fits and len(set(snapped)) == len(snapped) and (not snapped or snapped[-1] < bar.quarters):
            return _Fit(index, float(sum(off)), SpacedRhythm(tuple(snapped), True))
    return _Fit(len(GRIDS), float(width), _nearest_thirty_seconds(places, bar.quarters))


def _nearest_thirty_seconds(places: list[Fraction], quarters: Fraction) -> SpacedRhythm:
    """Nearest free thirty-second for every note; finer where more notes than that stand close."""
    grid = GRIDS[-1]
    while grid * len(places) > quarters:
        grid /= 2
    slots, last = int(quarters / grid), -1
    onsets = []
    for position, place in enumerate(places):
        latest = slots - (len(places) - position)
        last = min(max(round(place / grid), last + 1), latest)
        onsets.append(last * grid)
    return SpacedRhythm(tuple(onsets), False)


def rhythms_from_spacing(bars: Sequence[SpacedBar]) -> list[SpacedRhythm]:
    """Onsets for every bar of a part, with the one padding and shift that suit the whole part."""
    first = min((bar.columns[0] for bar in bars if bar.columns), default=0)
    choices = [
        (padding, shift)
        for padding, shift in (*product((0, 1), (0, 1, 2)), _TWO_COLUMNS_BEFORE)
        if shift <= first
    ]
    scored = []
    for padding, shift in choices:
        fits = [_fit(bar, padding, shift) for bar in bars]
        scored.append(((sum(f.grid for f in fits), sum(f.misfit for f in fits), padding, shift), fits))
    best = min(scored, key=lambda entry: entry[0])
    return [fit.rhythm for fit in best[1]]
