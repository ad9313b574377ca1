"""Sequences: a cell that begins anew so many frets, strings or notes further, again and again."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from clear_steps.core.figures.candidates import periodic
from clear_steps.core.figures.columns import NO_PITCH, Stream
from clear_steps.core.figures.seeds import Family, Seeds
from clear_steps.core.score.words import number_words

_CELLS = 3  # from so many on it is a rule
_LONGEST = 16  # columns of a cell
_LONGEST_OF_NOTES = 6
_SHORT = 2  # columns: cells so short need one cell more


@dataclass(frozen=True, slots=True)
class Stepping:
    """Columns `first` to `last` are cells of `size` columns, each `by` further than the one before."""

    first: int
    last: int
    size: int
    by: int
    of: str


def steppings(stream: Stream, seeds: Seeds) -> list[Stepping]:
    """Every sequence, by where it begins; two share a cell at most."""
    kept: list[Stepping] = []
    for rows in (
        [*_moving(stream, seeds.shifted, "frets"), *_moving(stream, seeds.strings, "strings")],
        _along_a_scale(stream),
    ):
        for row in sorted(rows, key=lambda row: (row.first - row.last, row.size)):
            if all(min(row.last, other.last) - max(row.first, other.first) < other.size for other in kept):
                kept.append(row)
    return sorted(kept, key=lambda row: row.first)


def _moving(stream: Stream, family: Family, of: str) -> Iterator[Stepping]:
    for size in range(2, _LONGEST + 1):
        for start, run in periodic(family.numbers, size):
            columns = run + size + 1
            cells = columns // size
            if cells < _CELLS or _repeats_sooner(family.numbers[start : start + size * cells - 1], size):
                continue
            first = _where_most_begins(stream, start, columns % size + 1)
            by = _step(stream, first, first + size, of)
            if by and (of == "frets" or cells > _CELLS or not _bars(stream, first + 1, first + size + 1)):
                yield Stepping(first, first + size * cells - 1, size, by, of)


def _repeats_sooner(numbers: Sequence[int], size: int) -> bool:
    return any(
        all(numbers[at] == numbers[at + shorter] for at in range(len(numbers) - shorter))
        for shorter in range(1, size)
    )


def _where_most_begins(stream: Stream, first: int, free: int) -> int:
    return max(range(first, first + free), key=lambda index: (stream.starts[index], -index))


def _step(stream: Stream, first: int, later: int, of: str) -> int:
    a, b = stream.columns[first].spots[0], stream.columns[later].spots[0]
    return b[1] - a[1] if of == "frets" else b[0] - a[0]


def _along_a_scale(stream: Stream) -> Iterator[Stepping]:
    """Cells of single notes, each beginning so many notes of their own scale further: the scale is the
    pitches that the cells touch."""
    first = 0
    while first < len(stream.columns):
        rows = [(size, *_cells_from(stream, first, size)) for size in range(_SHORT, _LONGEST_OF_NOTES + 1)]
        size, cells, by = max(rows, key=lambda row: (row[0] * row[1], -row[0]))
        if cells:
            yield Stepping(first, first + size * cells - 1, size, by, "notes")
        first += max(size * cells, 1)


def _cells_from(stream: Stream, first: int, size: int) -> tuple[int, int]:
    """How many cells of `size` columns follow one another by one step from a column on, and the step."""
    cells, by = 0, 0
    fewest = _CELLS + (size <= _SHORT)
    while (step := _step_of(stream, first, size, max(cells + 1, fewest))) is not None:
        cells, by = max(cells + 1, fewest), step
    return cells, by


def _step_of(stream: Stream, first: int, size: int, cells: int) -> int | None:
    after, own = first + size * cells, stream.single_pitches
    if after > len(own) or own[first] == own[first + size]:
        return None
    if (own[first + size] > own[first]) != (own[first + size + 1] > own[first + 1]):
        return None
    pitches, gaps = own[first:after], stream.gaps[first : after - 1]
    rises = {later > pitch for pitch, later in zip(pitches, pitches[size:], strict=False)}
    if len(rises) > 1 or NO_PITCH in pitches or gaps[size:] != gaps[:-size]:
        return None
    if _is_only_moved(pitches, size):
        return None
    ranks = {pitch: rank for rank, pitch in enumerate(sorted({*pitches}))}
    steps = {ranks[later] - ranks[pitch] for pitch, later in zip(pitches, pitches[size:], strict=False)}
    step = steps.pop()
    return step if not steps and 0 < abs(step) < size else None


def _is_only_moved(pitches: Sequence[int], size: int) -> bool:
    """Whether every cell is the one before at another height, which steps of a scale hardly ever make it."""
    apart = [later - pitch for pitch, later in zip(pitches, pitches[size:], strict=False)]
    return all(len({*apart[at : at + size]}) == 1 for at in range(0, len(apart), size))


def rule_words(stream: Stream, row: Stepping) -> str:
    """`each bar two frets lower`, `three notes, start again one note later, upwards`."""
    name = row.of if abs(row.by) > 1 else row.of.removesuffix("s")
    step, up = f"{number_words(abs(row.by))} {name}", row.by > 0
    if row.of == "notes":
        way = "upwards" if up else "downwards"
        return f"{number_words(row.size)} notes, start again {step} later, {way}"
    ways = {"frets": ("lower", "higher"), "strings": ("thinner", "thicker")}[row.of]
    return f"each {_cell_words(stream, row)} {step} {ways[up]}"


def _cell_words(stream: Stream, row: Stepping) -> str:
    after = row.first + row.size
    if stream.columns[after].first_of_bar and len(_bars(stream, row.first, after)) == 1:
        return "bar"
    return "pair" if row.size == 2 else f"group of {number_words(row.size)}"


def _bars(stream: Stream, first: int, after: int) -> list[int]:
    """Columns, from one to before another, with which a bar begins."""
    return [index for index in range(first, after) if stream.columns[index].first_of_bar]
