"""From chunks to what is said of them: each once, what comes again by the name it has."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from clear_steps.core.figures import As
from clear_steps.core.score import Part
from clear_steps.core.teach.chunks.chunk import Chunk, Like
from clear_steps.core.teach.words.facts import Grips, LikeFact, MomentFact, NoteFact
from clear_steps.core.teach.words.notes import Voice, spoken_words
from clear_steps.core.teach.words.segments import Scene
from clear_steps.core.teach.words.sentences import like_sentences, sentences_of

_SHORT = (As.EQUAL, As.MOVED, As.STRINGS)
_MOST_OTHER = 0.34  # of the moments: with more it is told anew


@dataclass(frozen=True, slots=True)
class Directions:
    """A chunk's name and what is said of it; `spoken`: every moment by itself."""

    name: str
    sentences: tuple[str, ...]
    spoken: tuple[tuple[MomentFact, str], ...]


def told(
    part: Part,
    chunks: Sequence[Chunk],
    alike: Sequence[Like | None],
    names: Sequence[str],
    grips: Grips,
    voice: Voice,
) -> tuple[Directions, ...]:
    """What a teacher says of every chunk, in the order written."""
    scene = Scene(part, grips)
    moments = [scene.moments(chunk) for chunk in chunks]
    found = []
    for (before, chunk), like, name, own in zip(
        pairwise([None, *chunks]), alike, names, moments, strict=True
    ):
        assert chunk is not None
        short = _like(names[like.chunk], moments[like.chunk], own, like) if like else None
        segments = scene.of(chunk)
        if short and short.but and all(segment.grip and segment.name for segment in segments):
            short = None  # the names are shorter
        if short:
            said = like_sentences(short, own[0], voice, chunk.first.bar != chunk.last.bar)
            voice.position = 0  # the hand has been elsewhere since
        else:
            said = sentences_of(segments, scene, voice, before.last if before else None)
        alone = Voice(voice.catalogue, voice.names)
        spoken = tuple((moment, spoken_words(moment, alone)) for moment in own)
        found.append(Directions(name, tuple(said), spoken))
    return tuple(found)


def _like(name: str, first: Sequence[MomentFact], own: Sequence[MomentFact], like: Like) -> LikeFact | None:
    """That it is the first again; None where too much is other to say so."""
    rhythms = [[moment.start - row[0].start for moment in row] for row in (first, own)]
    if like.how not in _SHORT or rhythms[0] != rhythms[1] or first[0].off_beat != own[0].off_beat:
        return None
    but = [
        moment
        for one, moment in zip(first, own, strict=True)
        if not _is_the_same(_moved(one, like.how, like.by), moment)
    ]
    return None if len(but) > _MOST_OTHER * len(own) else LikeFact(name, like.how, like.by, tuple(but))


def _moved(moment: MomentFact, how: As, by: int) -> MomentFact | None:
    """The moment moved along the neck or to other strings; None where that is no place. Open strings stay
    where they are when the hand moves."""
    if how is As.EQUAL:
        return moment
    notes = []
    for note in moment.notes:
        string = note.string + (by if how is As.STRINGS else 0)
        fret = note.fret + (by if how is As.MOVED and note.fret and not note.dead else 0)
        if string < 1 or fret < 0:
            return None
        notes.append(replace(note, string=string, fret=fret))
    return replace(moment, notes=tuple(notes))


def _is_the_same(one: MomentFact | None, other: MomentFact) -> bool:
    """Whether nothing is to be said of it: fingers that nobody wrote are left out."""
    if one is None or (one.held, one.stroke, one.more) != (other.held, other.stroke, other.more):
        return False
    return [_said(note) for note in one.notes] == [_said(note) for note in other.notes]


def _said(note: NoteFact) -> NoteFact:
    return note if note.pinned else replace(note, finger="")
