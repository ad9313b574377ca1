"""Chunks with all that is said of each: name, Step, hardest switch, the tempo to begin with."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median

from clear_steps.core.figures import At, ComingBack
from clear_steps.core.grade.excerpt import Excerpt, Excerpts, hardest_switch
from clear_steps.core.teach.chunks.chunk import Chunk, Like, struck_in, within
from clear_steps.core.teach.chunks.naming import likes, names

# Where nobody says what is comfortable: so many Steps below the middle one of its chunks, but what is this
# easy begins at tempo (from memory of how teachers begin).
_EASIER, _EASY = 0.5, 2.0
_FAR, _SLOWER = 2.0, 0.8  # Steps apart, from which on a chunk is begun so much slower
SLOWEST = 40  # per cent of the marked tempo


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
    stretches = [Excerpt(chunk.first, chunk.last) for chunk in chunks]
    steps = [excerpts.step(stretch) for stretch in stretches]
    tempi = starting_tempi(excerpts, stretches, steps, comfortable)
    return tuple(
        GradedChunk(
            chunk,
            name,
            like,
            step,
            excerpts.hardest_measure(stretch),
            _switch(excerpts, [row.at for row in within(chunk, rows)]),
            tempo,
            _figure(found, chunk),
        )
        for chunk, name, like, stretch, step, tempo in zip(
            chunks, names(part, chunks), alike, stretches, steps, tempi, strict=True
        )
    )


def starting_tempi(
    excerpts: Excerpts, stretches: Sequence[Excerpt], steps: Sequence[float], comfortable: float | None
) -> list[int | None]:
    """The tempo each stretch is begun at, in per cent of the marked one: the quickest at which it is at the
    student's comfortable Step, for anybody at one Step for all of them; never quicker than an easier one, a
    fifth slower than one two Steps below, and not under the slowest. None where it is past the student at
    any."""
    level = comfortable
    if level is None:
        level = max(median(steps or [0.0]) - _EASIER, _EASY)
    begun: list[tuple[float, int]] = []
    tempi: list[int | None] = [None] * len(stretches)
    for index in sorted(range(len(stretches)), key=lambda index: steps[index]):
        found = excerpts.tempo_for(stretches[index], level)
        if found is None and comfortable is not None:
            continue
        bounds = [tempo * (_SLOWER if steps[index] - step >= _FAR else 1) for step, tempo in begun]
        tempo = max(int(min([found or SLOWEST, *bounds])), SLOWEST)
        begun.append((steps[index], tempo))
        tempi[index] = tempo
    return tempi


def _switch(excerpts: Excerpts, moments: Sequence[At]) -> Switch | None:
    found = hardest_switch(excerpts, moments)
    return Switch(found.first, found.last, excerpts.step(found)) if found else None


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
