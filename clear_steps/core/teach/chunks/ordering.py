"""In which order chunks are learnt, as schools of teaching have it."""

from collections import Counter
from collections.abc import Callable, Sequence
from enum import StrEnum

from clear_steps.core.score import Part, played_order
from clear_steps.core.teach.chunks.chunk import Chunk, Like, Struck, struck_in, within

_STRUMMED = 3  # strings at once


class Order(StrEnum):
    """The five orders."""

    TOP = "top"
    HARDEST = "hardest"
    USED = "used"
    RIFFS = "riffs"
    LAYERS = "layers"


def ordered(
    part: Part,
    order: Sequence[str],
    chunks: Sequence[Chunk],
    alike: Sequence[Like | None],
    steps: Sequence[float],
    by: Order,
) -> tuple[int, ...]:
    """Numbers of the chunks (from 0) in the order they are learnt; what is like another follows it. `order`
    is the song's order of sections."""
    rows = struck_in(part)
    counts = _times_played(part, order, chunks, alike)
    keys: dict[Order, Callable[[int], float]] = {
        Order.HARDEST: lambda index: -steps[index],
        Order.USED: lambda index: -counts[index],
        Order.RIFFS: lambda index: _is_strummed(within(chunks[index], rows)),
    }
    if by not in keys:
        return tuple(range(len(chunks)))
    firsts = [index for index, like in enumerate(alike) if like is None]
    firsts.sort(key=lambda index: (keys[by](index), index))
    after = {first: [at for at, like in enumerate(alike) if like and like.chunk == first] for first in firsts}
    return tuple(index for first in firsts for index in (first, *after[first]))


def _times_played(
    part: Part, order: Sequence[str], chunks: Sequence[Chunk], alike: Sequence[Like | None]
) -> list[int]:
    """How often each is played, all that are like it counted with it."""
    played = Counter(played_order(part, tuple(order)))
    own = [played[chunk.first.bar] for chunk in chunks]
    counts = list(own)
    for index, like in enumerate(alike):
        if like:
            counts[like.chunk] += own[index]
    return counts


def _is_strummed(rows: Sequence[Struck]) -> bool:
    return 2 * sum(len(row.event.struck) >= _STRUMMED for row in rows) > len(rows)
