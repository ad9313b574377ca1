"""A chunk as a value, and the moments it is made of."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass, replace

from clear_steps.core.figures import As, At
from clear_steps.core.score import Event, Part


@dataclass(frozen=True, slots=True)
class Chunk:
    """From one note to another, both included, moments as written; `name` is empty until somebody gives
    one."""

    first: At
    last: At
    name: str = ""


@dataclass(frozen=True, slots=True)
class Like:
    """How a chunk is like an earlier one (its number from 0): nothing new to learn, or little."""

    chunk: int
    how: As
    by: int = 0
    but: tuple[At, ...] = ()


@dataclass(frozen=True, slots=True)
class Struck:
    """Something that is struck anew, at its moment."""

    at: At
    number: int  # of the event in its bar
    event: Event


def struck_in(part: Part) -> list[Struck]:
    """All that is struck in a part, as written."""
    return [
        Struck(At(index, onset), number, event)
        for index, bar in enumerate(part.bars)
        for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True))
        if event.struck
    ]


def struck_at(part: Part, at: At) -> bool:
    """Whether something is struck at a moment of a part."""
    if at.bar >= len(part.bars):
        return False
    bar = part.bars[at.bar]
    return any(
        onset == at.onset and event.struck for onset, event in zip(bar.onsets, bar.events, strict=True)
    )


def written_once(part: Part) -> Part:
    """The part without what makes anything come again: every bar once, as it stands."""
    bars = (
        replace(
            bar,
            repeat_start=False,
            repeat_times=0,
            endings=(),
            double_bar=bar.double_bar or bar.repeat_times != 0,
        )
        for bar in part.bars
    )
    return replace(part, bars=tuple(bars), sections=())


def within(chunk: Chunk, rows: Sequence[Struck]) -> list[Struck]:
    """What of it is struck in a chunk; `rows` in the order written."""
    start = bisect_left(rows, chunk.first, key=_at)
    return list(rows[start : bisect_right(rows, chunk.last, lo=start, key=_at)])


def _at(row: Struck) -> At:
    return row.at
