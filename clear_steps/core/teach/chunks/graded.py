"""Chunks with all that is said of each: name, Step, hardest switch, the tempo to begin with."""

from collections.abc import Sequence
from dataclasses import dataclass

from clear_steps.core.figures import At, ComingBack
from clear_steps.core.grade.excerpt import Excerpt, Excerpts, hardest_switch
from clear_steps.core.teach.chunks.chunk import Chunk, Like, struck_in, within
from clear_steps.core.teach.chunks.naming import likes, names

_EASIER = 1.0  # Steps below the marked tempo's, where nobody says what is comfortable
SLOWEST = 50  # per cent, where nobody says what is comfortable


@dataclass(frozen=True, slots=True)
class Switch:
    """The hardest two to four notes of a chunk, and their Step."""

    first: At
    last: At
    step: float


@dataclass(frozen=True, slots=True)
class GradedChunk:
    """A chunk as the teacher sees it. `tempo`: the percentage of the marked tempo to begin with, None where
    it is past the student at any; `figure`: the number of the figure that it lies in, or holds, from 0."""

    chunk: Chunk
    name: str
    like: Like | None
    step: float
    measure: str | None  # what makes it hard
    switch: Switch | None
    tempo: int | None
    figure: int | None


def graded_chunks(
    excerpts: Excerpts, chunks: Sequence[Chunk], found: ComingBack, comfortable: float | None = None
) -> tuple[GradedChunk, ...]:
    """All chunks of a part, for a student with a comfortable Step or for anybody."""
    part = excerpts.part
    alike, rows = likes(part, chunks), struck_in(part)
    graded = []
    for chunk, name, like in zip(chunks, names(part, chunks, alike), alike, strict=True):
        excerpt = Excerpt(chunk.first, chunk.last)
        step = excerpts.step(excerpt)
        graded.append(
            GradedChunk(
                chunk,
                name,
                like,
                step,
                excerpts.hardest_measure(excerpt),
                _switch(excerpts, [row.at for row in within(chunk, rows)]),
                _tempo(excerpts, excerpt, step, comfortable),
                _figure(found, chunk),
            )
        )
    return tuple(graded)


def _switch(excerpts: Excerpts, moments: Sequence[At]) -> Switch | None:
    found = hardest_switch(excerpts, moments)
    return Switch(found.first, found.last, excerpts.step(found)) if found else None


def _tempo(excerpts: Excerpts, excerpt: Excerpt, step: float, comfortable: float | None) -> int | None:
    if comfortable is not None:
        return excerpts.tempo_for(excerpt, comfortable)
    return max(excerpts.tempo_for(excerpt, step - _EASIER) or 0, SLOWEST)


def _figure(found: ComingBack, chunk: Chunk) -> int | None:
    """Of those in which it lies the shortest; else the longest of those that lie in it."""
    around, inside = [], []
    for number, figure in enumerate(found.figures):
        for place in figure.places:
            size = (place.last.bar - place.first.bar, place.last.onset - place.first.onset)
            if place.first <= chunk.first and chunk.last <= place.last:
                around.append((size, number))
            elif chunk.first <= place.first and place.last <= chunk.last:
                inside.append((size, number))
    return min(around)[1] if around else max(inside)[1] if inside else None
