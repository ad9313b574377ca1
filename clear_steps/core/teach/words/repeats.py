"""Cells that come again at once: `six, three; again`."""

from collections.abc import Hashable, Sequence
from typing import NamedTuple

_LEAST = 3  # items that a cell and its returns hold together


class Run(NamedTuple):
    """So many items from one on, so often in all."""

    first: int
    length: int
    times: int


def runs(items: Sequence[Hashable], longest: int, least: int = _LEAST) -> list[Run]:
    """The items as cells of at most so many that come again, from left to right, each time the way that saves
    most, `least` of them together at the least; what does not come again is a run of its own."""
    found: list[Run] = []
    at = 0
    while at < len(items):
        best = max(
            (_run(items, at, length) for length in range(1, min(longest, (len(items) - at) // 2) + 1)),
            key=lambda run: (run.length * (run.times - 1), -run.length),
            default=Run(at, 1, 1),
        )
        if best.times < 2 or best.length * best.times < least:
            best = Run(at, 1, 1)
        found.append(best)
        at += best.length * best.times
    return found


def _run(items: Sequence[Hashable], at: int, length: int) -> Run:
    cell = list(items[at : at + length])
    times = 1
    while list(items[at + times * length : at + (times + 1) * length]) == cell:
        times += 1
    return Run(at, length, times)
