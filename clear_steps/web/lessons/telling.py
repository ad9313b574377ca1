"""A lesson as JSON ready to be sent; done by the workers, so only values go in and out."""

from dataclasses import dataclass, replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.figures import At, ComingBack, coming_back
from clear_steps.core.figures.words import stretch_words
from clear_steps.core.grade.excerpt import Excerpts
from clear_steps.core.score import Part
from clear_steps.core.teach import cautions
from clear_steps.core.teach.chunks import (
    Chunk,
    GradedChunk,
    Order,
    carried,
    from_starts,
    graded_chunks,
    layers,
    ordered,
    proposed_chunks,
    struck_in,
    voice_strings,
)
from clear_steps.core.teach.words import (
    Directions,
    Language,
    Names,
    care_sentences,
    directions,
    hard_sentences,
)
from clear_steps.store import Chunking
from clear_steps.web.analysis.schemas import MomentModel
from clear_steps.web.analysis.shown import part_of, read_cached
from clear_steps.web.current import ladder_of
from clear_steps.web.lessons import schemas as api
from clear_steps.web.lessons.settingup import sheet_sentences
from clear_steps.web.remembering import remembered
from clear_steps.web.whom import Whom


@dataclass(frozen=True, slots=True)
class Asked:
    """A lesson asked for: the song's text and revision, the part, the cut that is kept with the text it was
    made on, and how to say it."""

    text: str
    revision: int
    part_index: int
    kept: Chunking
    kept_text: str
    kept_part_index: int  # in that text; a version has one part
    whom: Whom
    comfortable: float | None
    language: Language
    names: Names


@remembered(lambda _, answer: len(answer))
def lesson_json(asked: Asked, ladder: str) -> str:
    """The LessonModel of a part; raises ReadError."""
    song = asked.whom.on_their_guitar(read_cached(asked.text).song)
    part = part_of(song, asked.part_index)
    request = replace(asked.whom.request, practice_tempo=None)
    excerpts = Excerpts(song, part, ladder_of(ladder).ladder, request)
    found = coming_back(part, song.order)
    positions = {moment: grip.position for moment, grip in excerpts.grading.grips.items()}
    chunks, lost = _kept(asked, part)
    chunks = chunks or proposed_chunks(part, found, positions)
    rows = graded_chunks(excerpts, chunks, found, asked.comfortable)
    alike, steps = [row.like for row in rows], [row.step for row in rows]
    melody, bass = voice_strings(part)
    said = directions(part, chunks, excerpts.grading.grips, asked.language, asked.names, alike)
    return api.LessonModel(
        revision=asked.revision,
        number=asked.kept.number,
        proposed=not asked.kept.starts,
        part_index=asked.part_index,
        chunks=[
            _chunk_model(part, row, words, list(own))
            for row, words, own in zip(rows, said, layers(part, chunks), strict=True)
        ],
        orders={by: list(ordered(part, song.order, chunks, alike, steps, by)) for by in Order},
        lost=[chunk.name or stretch_words(part, chunk.first, chunk.last) for chunk in lost],
        setting_up=sheet_sentences(song, part, asked.whom, asked.language, asked.names),
        hard=list(hard_sentences(part, excerpts.grading, found, asked.language)),
        care=list(care_sentences(cautions(part, excerpts.grading, request.player), asked.language)),
        melody=sorted(melody),
        bass=sorted(bass),
    ).model_dump_json()


@remembered(lambda _, answer: len(answer))
def stretch_json(asked: Asked, first: tuple[int, int], last: tuple[int, int], ladder: str) -> str:
    """The ChunkModel of some notes, from one moment (bar and event) to another; raises ReadError, or
    InvalidValueError where nothing is struck there."""
    song = asked.whom.on_their_guitar(read_cached(asked.text).song)
    part = part_of(song, asked.part_index)
    chunk = stretch_of(part, first, last)
    request = replace(asked.whom.request, practice_tempo=None)
    excerpts = Excerpts(song, part, ladder_of(ladder).ladder, request)
    (row,) = graded_chunks(excerpts, [chunk], ComingBack(), asked.comfortable)
    (said,) = directions(part, [chunk], excerpts.grading.grips, asked.language, asked.names)
    return _chunk_model(part, row, said, []).model_dump_json()


def stretch_of(part: Part, first: tuple[int, int], last: tuple[int, int]) -> Chunk:
    """All that is struck from one moment to another; raises InvalidValueError where that is nothing."""
    rows = [row.at for row in struck_in(part) if first <= (row.at.bar, row.number) <= last]
    if not rows:
        raise InvalidValueError("stretch", f"bar {first[0]} to bar {last[0]}", "at least one struck note")
    return Chunk(rows[0], rows[-1])


def _kept(asked: Asked, part: Part) -> tuple[tuple[Chunk, ...], tuple[Chunk, ...]]:
    """The cut that is kept, in the part as it is now, and what has lost its notes."""
    parts = read_cached(asked.kept_text).song.parts if asked.kept.starts else ()
    if asked.kept_part_index >= len(parts):
        return (), ()
    old = parts[asked.kept_part_index]
    starts = [(At(start.bar, start.onset), start.name) for start in asked.kept.starts]
    chunks = from_starts(old, starts)
    return (chunks, ()) if asked.kept_text == asked.text else carried(chunks, old, part)


def _chunk_model(part: Part, row: GradedChunk, said: Directions, own: list[str]) -> api.ChunkModel:
    switch = row.switch
    return api.ChunkModel(
        first=_moment(part, row.chunk.first),
        last=_moment(part, row.chunk.last),
        name=row.chunk.name,
        called=said.name,
        where=stretch_words(part, row.chunk.first, row.chunk.last),
        like=row.like and row.like.chunk,
        step=row.step,
        measure=row.measure,
        switch=switch
        and api.StretchModel(first=_moment(part, switch.first), last=_moment(part, switch.last)),
        switch_step=switch and switch.step,
        tempo=row.tempo,
        layers=own,
        words=list(said.sentences),
        spoken=[
            api.SpokenModel(**_moment(part, moment.at).model_dump(), words=words)
            for moment, words in said.spoken
        ],
    )


def _moment(part: Part, at: At) -> MomentModel:
    return MomentModel(bar=at.bar, event=part.bars[at.bar].onsets.index(at.onset))
