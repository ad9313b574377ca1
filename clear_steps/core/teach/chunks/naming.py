"""Which chunks are like an earlier one, and what they are called."""

from collections import Counter
from collections.abc import Sequence
from string import ascii_lowercase

from clear_steps.core.figures import As
from clear_steps.core.figures.comparing import Compared
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


def names(part: Part, chunks: Sequence[Chunk]) -> tuple[str, ...]:
    """What the teacher named a chunk, else its section and a letter: `Verse b`, `b` where there are no
    sections."""
    counts: Counter[str] = Counter()
    found = []
    for chunk in chunks:
        section = _section(part, chunk.first.bar)
        found.append(chunk.name or f"{section} {_letter(counts[section])}".strip())
        counts[section] += 1
    return tuple(found)


def _section(part: Part, bar: int) -> str:
    begun = (section.name for section in reversed(part.sections) if section.first_bar <= bar)
    return next(begun, "")


def _letter(number: int) -> str:
    """`a` to `z`, then `aa`, `ab` ..."""
    before, last = divmod(number, len(ascii_lowercase))
    return (_letter(before - 1) if before else "") + ascii_lowercase[last]
