"""Chunks of a song that has been revised: they go with their notes."""

from collections.abc import Sequence
from difflib import SequenceMatcher

from clear_steps.core.figures import At
from clear_steps.core.score import Part
from clear_steps.core.teach.chunks.chunk import Chunk, struck_in


def carried(chunks: Sequence[Chunk], old: Part, new: Part) -> tuple[tuple[Chunk, ...], tuple[Chunk, ...]]:
    """The chunks in the new part, all that is struck in one of them, and those (as they were) that have lost
    their notes."""
    bars = _bars_now(old, new)
    rows = [row.at for row in struck_in(new)]
    starts: dict[At, Chunk] = {}
    lost = []
    for chunk in chunks:
        own = [bars[bar] for bar in range(chunk.first.bar, chunk.last.bar + 1) if bar in bars]
        first, last = _moment(bars, chunk.first, own, 0), _moment(bars, chunk.last, own, -1)
        kept = [at for at in rows if first and last and first <= at <= last and at not in starts]
        if kept:
            starts[kept[0]] = chunk
        else:
            lost.append(chunk)
    if not rows or not starts:
        return (), tuple(chunks)
    begins = sorted(starts)
    named = [(rows[0] if at == begins[0] else at, starts[at].name) for at in begins]
    return from_starts(new, named), tuple(lost)


def from_starts(part: Part, starts: Sequence[tuple[At, str]]) -> tuple[Chunk, ...]:
    """Chunks by where each begins and its name: each goes on to before the next."""
    rows = [row.at for row in struck_in(part)]
    found = []
    for index, (first, name) in enumerate(starts):
        after = starts[index + 1][0] if index + 1 < len(starts) else None
        own = [at for at in rows if at >= first and (after is None or at < after)]
        if own:
            found.append(Chunk(own[0], own[-1], name))
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
