"""Chunks of a song that has been revised: they go with their notes."""

from bisect import bisect_left
from collections.abc import Sequence
from difflib import SequenceMatcher

from clear_steps.core.figures import At
from clear_steps.core.score import Part
from clear_steps.core.teach.chunks.chunk import Chunk, struck_in
from clear_steps.core.teach.chunks.grips import gripped, into_next


def carried(chunks: Sequence[Chunk], old: Part, new: Part) -> tuple[tuple[Chunk, ...], tuple[Chunk, ...]]:
    """The chunks in the new part, all that is struck in one of them, and those (as they were) that have lost
    their notes."""
    bars = _bars_now(old, new)
    rows = [row.at for row in struck_in(new)]
    starts: dict[At, Chunk] = {}
    lost = []
    for chunk, last in zip(chunks, _own_ends(old, chunks), strict=True):
        own = [bars[bar] for bar in range(chunk.first.bar, last.bar + 1) if bar in bars]
        start, end = _moment(bars, chunk.first, own, 0), _moment(bars, last, own, -1)
        kept = [at for at in rows if start and end and start <= at <= end and at not in starts]
        if kept:
            starts[kept[0]] = chunk
        else:
            lost.append(chunk)
    if not rows or not starts:
        return (), tuple(chunks)
    begins = sorted(starts)
    named = [(rows[0] if at == begins[0] else at, starts[at].name) for at in begins]
    return from_starts(new, named), tuple(lost)


def _own_ends(part: Part, chunks: Sequence[Chunk]) -> list[At]:
    """The last moment of each that is not of the next."""
    moments = [row.at for row in struck_in(part)]
    firsts = [chunk.first for chunk in chunks[1:]]
    return [*(moments[bisect_left(moments, first) - 1] for first in firsts), *(c.last for c in chunks[-1:])]


def from_starts(part: Part, starts: Sequence[tuple[At, str]]) -> tuple[Chunk, ...]:
    """Chunks by where each begins and its name: each goes on to before the next, or into its first grip."""
    rows, grips = struck_in(part), gripped(part)
    moments = [row.at for row in rows]
    borders = [bisect_left(moments, first) for first, _ in starts]
    found = []
    for first, after, (_, name) in zip(borders, [*borders[1:], len(rows)], starts, strict=True):
        if first < after:
            last = into_next(part, rows, grips, first, after) - 1
            found.append(Chunk(moments[first], moments[last], name))
    return tuple(found)


def _bars_now(old: Part, new: Part) -> dict[int, int]:
    """For bars of the old part (indexes) where they are now: the same, or rewritten in place."""
    matcher = SequenceMatcher(None, list(old.bars), list(new.bars), autojunk=False)
    found = {}
    for tag, first, after, start, end in matcher.get_opcodes():
        if tag == "equal" or (tag == "replace" and after - first == end - start):
            found.update({bar: start + bar - first for bar in range(first, after)})
        elif tag == "replace":
            found.update({bar: start + bar - first for bar in range(first, min(after, first + end - start))})
    return found


def _moment(bars: dict[int, int], at: At, own: Sequence[int], end: int) -> At | None:
    """A moment in the new part; where its bar is gone, the edge of what is left of the chunk's bars."""
    if at.bar in bars:
        return At(bars[at.bar], at.onset)
    if not own:
        return None
    return At(own[0], at.onset * 0) if end == 0 else At(own[-1] + 1, at.onset * 0)
