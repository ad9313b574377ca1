"""Which chunks are like an earlier one, and what they are called."""

from collections.abc import Callable, Sequence

from clear_steps.core.figures import As
from clear_steps.core.figures.comparing import Compared
from clear_steps.core.figures.told import Place
from clear_steps.core.figures.words import likeness_words
from clear_steps.core.score import Part
from clear_steps.core.teach.chunks.chunk import Chunk, Like, struck_in, within, written_once

_FEWEST = 2  # moments that something can be like
_OTHER_SHARE = 0.25  # of the moments that may be other


def likes(part: Part, chunks: Sequence[Chunk]) -> tuple[Like | None, ...]:
    """For every chunk the earliest that it is most like, of those that are like none themselves."""
    compared, rows = Compared(written_once(part)), struck_in(part)
    counts = [len(within(chunk, rows)) for chunk in chunks]
    found: list[Like | None] = []
    for index, chunk in enumerate(chunks):
        best: Like | None = None
        for earlier in range(index if counts[index] >= _FEWEST else 0):
            if found[earlier] or counts[earlier] != counts[index]:
                continue
            first = chunks[earlier]
            place = compared.place((first.first, first.last), (chunk.first, chunk.last))
            if place and len(place.but) <= _OTHER_SHARE * counts[index]:
                best = _likelier(best, Like(earlier, place.how, place.by, place.but))
        found.append(best)
    return tuple(found)


def _likelier(one: Like | None, other: Like) -> Like:
    """The one that differs least, then the one that moves nothing, then the earlier."""
    if one is None or (len(other.but), other.how is not As.EQUAL) < (len(one.but), one.how is not As.EQUAL):
        return other
    return one


LikeWords = Callable[[Part, Chunk, Like], str]
"""What is said behind a name of a chunk that is like another: ` again`, `, two frets lower`."""


def names(
    part: Part, chunks: Sequence[Chunk], alike: Sequence[Like | None], words: LikeWords | None = None
) -> tuple[str, ...]:
    """What the teacher named a chunk, else its number among those that are new; `2 again`, `2, two frets
    lower`."""
    says = words or _like_words
    found: list[str] = []
    number = 0
    for chunk, like in zip(chunks, alike, strict=True):
        number += like is None
        own = f"{number}" if like is None else f"{found[like.chunk]}{says(part, chunk, like)}"
        found.append(chunk.name or own)
    return tuple(found)


def _like_words(part: Part, chunk: Chunk, like: Like) -> str:
    words = likeness_words(part, Place(chunk.first, chunk.last, like.how, like.by, like.but))
    if like.how is As.EQUAL:
        return f" again{words.removeprefix('the same')}"
    return f", {words}"
