"""Where a teacher cuts, held against the notes; done by the workers."""

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.figures import At
from clear_steps.core.score import Part
from clear_steps.core.teach.chunks import struck_at
from clear_steps.store import ChunkStart
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.lessons import schemas as api


def starts_of(text: str, part_index: int, asked: tuple[api.ChunkStartIn, ...]) -> tuple[ChunkStart, ...]:
    """The begins of chunks in a part of a text; raises InvalidValueError where one is at no struck note, or
    they are not in their order."""
    part = part_of(read_cached(text).song, part_index)
    starts = tuple(_start(part, start) for start in asked)
    if list(starts) != sorted(set(starts), key=lambda start: (start.bar, start.onset)):
        raise InvalidValueError("chunks", "not in their order", "each to begin after the one before")
    return starts


def _start(part: Part, start: api.ChunkStartIn) -> ChunkStart:
    bars = part.bars
    there = start.bar < len(bars) and start.event < len(bars[start.bar].events)
    onset = bars[start.bar].onsets[start.event] if there else None
    if onset is None or not struck_at(part, At(start.bar, onset)):
        raise InvalidValueError("begin of a chunk", f"bar {start.bar}, event {start.event}", "a struck note")
    return ChunkStart(start.bar, onset, " ".join(start.name.split()))
