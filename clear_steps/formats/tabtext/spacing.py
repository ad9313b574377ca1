"""Rhythm from even spacing: the columns of a bar share its length."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise, product

# Grids in the order tried, in quarters: quarter ... thirty-second.
GRIDS = (Fraction(1), Fraction(1, 2), Fraction(1, 3), Fraction(1, 4), Fraction(1, 6), Fraction(1, 8))

# Indexes into GRIDS: from this one on a typing slip is likelier than the rhythm.
_SIXTEENTHS, _FINE = 3, 4
_MOST_SLIPPED = 32  # notes of a bar that is tried with a gap otherwise
_EVEN_GAPS = 5  # that are equal, before an odd one is taken for a slip
_TWO_COLUMNS_BEFORE = (2, 2)  # |--1-3-5-3-...-|, padding and shift: as common as one


@dataclass(frozen=True, slots=True)
class SpacedBar:
    """Columns of a bar's notes, counted from the bar's first column, ascending."""

    columns: tuple[int, ...]
    width: int
    quarters: Fraction


@dataclass(frozen=True, slots=True)
class SpacedRhythm:
    """Onsets in quarters; `certain` is False where no grid fitted, `slip` is the column (index of the note)
    before which one dash too many or too few is taken to stand."""

    onsets: tuple[Fraction, ...]
    certain: bool
    slip: int | None = None


@dataclass(frozen=True, slots=True)
class _Fit:
    grid: int  # index into GRIDS; len(GRIDS) = none fits
    misfit: float
    rhythm: SpacedRhythm


def _without_slip(bar: SpacedBar, choices: Sequence[tuple[int, int]], plain: _Fit) -> SpacedRhythm:
    """Where only a fine grid fits, or all gaps but one are equal, one odd gap counts as a typing slip."""
    coarsest = _FINE if plain.grid >= _FINE else _SIXTEENTHS if _is_one_gap_odd(bar) else 0
    if plain.grid < coarsest or not coarsest or len(bar.columns) > _MOST_SLIPPED:
        return plain.rhythm
    mended = [(_fit(other, *choice), at) for at, other in _with_one_slip_less(bar) for choice in choices]
    best, at = min(mended, key=lambda entry: (entry[0].grid, entry[0].misfit), default=(plain, 0))
    return plain.rhythm if best.grid >= coarsest else replace(best.rhythm, slip=at)


def _is_one_gap_odd(bar: SpacedBar) -> bool:
    """Whether the notes stand evenly but for one gap that is a column off."""
    gaps = Counter(later - column for column, later in pairwise(bar.columns))
    usual, count = gaps.most_common(1)[0] if gaps else (0, 0)
    others = [gap for gap in gaps.elements() if gap != usual]
    return count >= _EVEN_GAPS and len(others) == 1 and abs(others[0] - usual) == 1


def _with_one_slip_less(bar: SpacedBar) -> Iterator[tuple[int, SpacedBar]]:
    """The bar with a dash less or more between two notes; the rest moves, or the bar's end takes it up."""
    for at in range(1, len(bar.columns)):  # what stands before the first note is padding, not a gap
        for off in (-1, 1):
            columns = (*bar.columns[:at], *(column + off for column in bar.columns[at:]))
            if columns[at] == columns[at - 1] or columns[-1] >= bar.width + max(off, 0):
                continue
            yield at, replace(bar, columns=columns, width=bar.width + off)
            if columns[-1] < bar.width:
                yield at, replace(bar, columns=columns)


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
    return _Fit(len(GRIDS), float(width), _nearest(places, bar.quarters))


def _nearest(places: list[Fraction], quarters: Fraction) -> SpacedRhythm:
    """Every note at the nearest place of the coarsest grid that keeps them apart: a guess must not make the
    music quicker than the eye sees it. Finer where more notes stand close."""
    for own in GRIDS[1:]:
        snapped = [min(round(place / own) * own, quarters - own) for place in places]
        if len(set(snapped)) == len(snapped):
            return SpacedRhythm(tuple(snapped), False)
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
    return [_without_slip(bar, choices, fit) for bar, fit in zip(bars, best[1], strict=True)]
