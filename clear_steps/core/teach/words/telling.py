"""From chunks to what is said of them: each once, what comes again by the name it has."""

from collections.abc import Sequence
from dataclasses import replace

from clear_steps.core.figures import As
from clear_steps.core.score import Part
from clear_steps.core.teach.chunks.chunk import Chunk, Like, struck_in, within
from clear_steps.core.teach.words.facts import ChunkFacts, Grips, LikeFact, MomentFact, facts_of, moved

_SHORT = (As.EQUAL, As.MOVED, As.STRINGS)
_MOST_OTHER = 0.34  # of the moments: with more it is told anew


def told_chunks(
    part: Part, chunks: Sequence[Chunk], alike: Sequence[Like | None], names: Sequence[str], grips: Grips
) -> tuple[ChunkFacts, ...]:
    """What there is to say of every chunk, in the order written."""
    rows = struck_in(part)
    found: list[ChunkFacts] = []
    for chunk, like, name in zip(chunks, alike, names, strict=True):
        facts = facts_of(part, chunk, within(chunk, rows), grips, name)
        short = _like(found[like.chunk], facts, like) if like else None
        found.append(replace(facts, like=short))
    return tuple(found)


def _like(first: ChunkFacts, facts: ChunkFacts, like: Like) -> LikeFact | None:
    """That it is the first again; None where too much is other to say so."""
    if like.how not in _SHORT or first.rhythm != facts.rhythm:
        return None
    but = [
        moment
        for one, moment in zip(first.moments, facts.moments, strict=True)
        if not _is_the_same(moved(one, like.how, like.by), moment)
    ]
    if len(but) > _MOST_OTHER * len(facts.moments):
        return None
    elsewhere = [onsets for _, onsets in first.counts] != [onsets for _, onsets in facts.counts]
    return LikeFact(first.name, like.how, like.by, tuple(but), elsewhere)


def _is_the_same(one: MomentFact | None, other: MomentFact) -> bool:
    return one is not None and one.notes == other.notes and one.stopped == other.stopped
