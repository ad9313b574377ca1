"""Rhythm from even spacing: the columns of a bar share its length.

A grid is held against columns in whole numbers: of `quarters = a/b` and `k` grid lines a quarter, column `c`
of a bar `w` columns wide stands at grid line `c*a*k / (w*b)`, and one column is `a*k` of that fraction's
rest. Over every bar a bounded number of grids is laid (`MOST_GRIDS`), whatever stands in it, and each of its
notes is held to one at most twice.
"""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise, product

# Grid lines a quarter, in the order tried: quarters ... thirty-seconds.
GRIDS = (1, 2, 3, 4, 6, 8)
# Columns that the bar is wider than its music, and columns that all of its notes stand late.
PADDINGS_AND_SHIFTS = (*product((0, 1), (0, 1, 2)), (2, 2))

# Indexes into GRIDS: from this one on a typing slip is likelier than the rhythm.
_SIXTEENTHS, _FINE = 3, 4
_MOST_SLIPPED = 32  # notes of a bar that is tried with a gap otherwise
_EVEN_GAPS = 5  # that are equal, before an odd one is taken for a slip
_SLIP_WIDTHS = 4  # a gap a column less or more, taken up by the bar's end or not
# Grids laid over a bar at the most: as it stands, with a slip, and to find the nearest lines.
MOST_GRIDS = len(PADDINGS_AND_SHIFTS) * (len(GRIDS) + _SLIP_WIDTHS * _FINE) + len(GRIDS)


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


class _Grid:
    """Grid lines laid over a bar of some width; `late` columns stand before its first line."""

    def __init__(self, lines_a_quarter: int, width: int, late: int, quarters: Fraction) -> None:
        self._lines, self._late = lines_a_quarter, late
        self.unit = quarters.numerator * lines_a_quarter  # what a column is of the rest that `hold` gives
        self._whole = width * quarters.denominator  # what a grid line is of it
        self.count = -(-self.unit // quarters.denominator)  # lines that begin within the bar

    def nearest(self, column: int) -> tuple[int, int]:
        """The grid line nearest to a column, and by how much it misses it in columns, times `unit`."""
        line, rest = divmod(max(column - self._late, 0) * self.unit, self._whole)
        if 2 * rest > self._whole or (2 * rest == self._whole and line % 2):  # half way: to the even one
            return line + 1, self._whole - rest
        return line, rest

    def hold(self, column: int) -> tuple[int, int] | None:
        """The same; None where it stands too far off."""
        line, rest = self.nearest(column)
        return (line, rest) if 4 * rest < self._whole and rest < self.unit else None

    def onset(self, line: int) -> Fraction:
        return Fraction(line, self._lines)


@dataclass(frozen=True, slots=True)
class _Fit:
    grid: int  # index into GRIDS; len(GRIDS) = none fits
    misfit: float  # columns
    lines: _Grid
    held: tuple[int, ...] = ()  # the grid line of every note, where it fits


def rhythms_from_spacing(bars: Sequence[SpacedBar]) -> list[SpacedRhythm]:
    """Onsets for every bar of a part, with the one padding and shift that suit the whole part."""
    first = min((bar.columns[0] for bar in bars if bar.columns), default=0)
    choices = [choice for choice in PADDINGS_AND_SHIFTS if choice[1] <= first]
    scored = []
    for padding, shift in choices:
        fits = [_fit(bar, padding, shift) for bar in bars]
        scored.append(((sum(f.grid for f in fits), sum(f.misfit for f in fits), padding, shift), fits))
    best = min(scored, key=lambda entry: entry[0])
    return [
        _without_slip(bar, choices, fit) or _rhythm_of(bar, fit, best[0][2:])
        for bar, fit in zip(bars, best[1], strict=True)
    ]


def _rhythm_of(bar: SpacedBar, fit: _Fit, choice: Sequence[int]) -> SpacedRhythm:
    if fit.grid < len(GRIDS):
        return SpacedRhythm(tuple(fit.lines.onset(line) for line in fit.held), True)
    return SpacedRhythm(_nearest(bar, *choice), False)


def _fit(bar: SpacedBar, padding: int, shift: int) -> _Fit:
    width = max(bar.width - padding, 1)
    for index, lines in enumerate(GRIDS):
        grid = _Grid(lines, width, shift, bar.quarters)
        held = list(_held(grid, bar.columns))
        if len(held) == len(bar.columns):
            misfit = sum(off for _, off in held) / grid.unit
            return _Fit(index, misfit, grid, tuple(line for line, _ in held))
    return _Fit(len(GRIDS), float(width), grid)


def _held(grid: _Grid, columns: Iterable[int]) -> Iterator[tuple[int, int]]:
    """Grid line and miss of the columns from the first on, as far as each has a line of its own."""
    last = -1
    for column in columns:
        found = grid.hold(column)
        if found is None or not last < found[0] < grid.count:
            return
        last = found[0]
        yield found


def _without_slip(bar: SpacedBar, choices: Sequence[tuple[int, int]], plain: _Fit) -> SpacedRhythm | None:
    """Where only a fine grid fits, or all gaps but one are equal, one odd gap counts as a typing slip."""
    coarsest = _FINE if plain.grid >= _FINE else _SIXTEENTHS if _is_one_gap_odd(bar) else 0
    if plain.grid < coarsest or not coarsest or not 1 < len(bar.columns) <= _MOST_SLIPPED:
        return None
    for lines in GRIDS[:coarsest]:
        found = [fit for choice in choices for fit in _slips(bar, lines, *choice)]
        if found:
            return min(found, key=lambda entry: entry[:3])[-1]
    return None


def _is_one_gap_odd(bar: SpacedBar) -> bool:
    """Whether the notes stand evenly but for one gap that is a column off."""
    gaps = Counter(later - column for column, later in pairwise(bar.columns))
    usual, count = gaps.most_common(1)[0] if gaps else (0, 0)
    others = [gap for gap in gaps.elements() if gap != usual]
    return count >= _EVEN_GAPS and len(others) == 1 and abs(others[0] - usual) == 1


def _slips(
    bar: SpacedBar, lines: int, padding: int, shift: int
) -> Iterator[tuple[float, int, int, SpacedRhythm]]:
    """The bar on one grid with a dash less or more between two notes: the misfit, the note after the gap,
    which of the ways, the rhythm. The rest of the bar moves, or its end takes the dash up."""
    for way, (off, wider) in enumerate(((-1, -1), (-1, 0), (1, 1), (1, 0))):
        grid = _Grid(lines, max(bar.width + wider - padding, 1), shift, bar.quarters)
        if bar.columns[-1] + off >= bar.width + (max(off, 0) if wider else 0):
            continue
        before = list(_held(grid, bar.columns))
        after = list(_held_backwards(grid, [column + off for column in bar.columns]))
        for at in range(max(len(bar.columns) - len(after), 1), min(len(before) + 1, len(bar.columns))):
            rest = after[at - len(bar.columns) :]
            apart = bar.columns[at] + off > bar.columns[at - 1] and rest[0][0] > before[at - 1][0]
            if apart:
                held = [*before[:at], *rest]
                rhythm = SpacedRhythm(tuple(grid.onset(line) for line, _ in held), True, at)
                yield sum(off for _, off in held) / grid.unit, at, way, rhythm


def _held_backwards(grid: _Grid, columns: Sequence[int]) -> list[tuple[int, int]]:
    """Grid line and miss of the last columns, as far to the front as each has a line of its own."""
    found: list[tuple[int, int]] = []
    next_line = grid.count
    for column in reversed(columns):
        held = grid.hold(column)
        if held is None or held[0] >= next_line:
            break
        next_line = held[0]
        found.append(held)
    return found[::-1]


def _nearest(bar: SpacedBar, padding: int, shift: int) -> tuple[Fraction, ...]:
    """Every note at the nearest place of the coarsest grid that keeps them apart: a guess must not make the
    music quicker than the eye sees it. Finer where more notes stand close."""
    width, count = max(bar.width - padding, 1), len(bar.columns)
    for lines in GRIDS[1:]:
        grid = _Grid(lines, width, shift, bar.quarters)
        last = bar.quarters - Fraction(1, lines)
        nearest = [grid.nearest(column)[0] for column in bar.columns]
        if all(line < later for line, later in pairwise(nearest)) and count:
            onsets = [grid.onset(line) for line in nearest]
            if count == 1 or onsets[-2] < last:
                return (*onsets[:-1], min(onsets[-1], last))
    lines = GRIDS[-1]
    while count > bar.quarters * lines:
        lines *= 2
    grid, slots, taken = _Grid(lines, width, shift, bar.quarters), int(bar.quarters * lines), -1
    placed = []
    for at, column in enumerate(bar.columns):
        taken = min(max(grid.nearest(column)[0], taken + 1), slots - (count - at))
        placed.append(grid.onset(taken))
    return tuple(placed)
