"""Directions in words: from notes to what a teacher says, chunk by chunk, in English and Spanish.

Facts are found first, in no language (`facts`, `telling`), then put into sentences (`sentences`) with the
phrases of one (`english`, `spanish`). Nothing is said that is not written; a test reads the words back.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from clear_steps.core.score import Part, Tuning, letter_of
from clear_steps.core.teach.chunks import Chunk, Like, likes
from clear_steps.core.teach.chunks.naming import LikeWords
from clear_steps.core.teach.chunks.naming import names as chunk_names
from clear_steps.core.teach.setting_up import turns
from clear_steps.core.teach.words.english import English
from clear_steps.core.teach.words.facts import ChunkFacts, Grips
from clear_steps.core.teach.words.names import Names, chord_in
from clear_steps.core.teach.words.phrases import Phrases
from clear_steps.core.teach.words.sentences import MOST_WORDS, sentences_of
from clear_steps.core.teach.words.spanish import Spanish, like_words
from clear_steps.core.teach.words.telling import told_chunks


class Language(StrEnum):
    """A language that directions are given in."""

    ENGLISH = "en"
    SPANISH = "es"


_LIKE_WORDS: dict[Language, LikeWords | None] = {Language.ENGLISH: None, Language.SPANISH: like_words}


@dataclass(frozen=True, slots=True)
class Directions:
    """A chunk's name and what is said of it."""

    name: str
    sentences: tuple[str, ...]


def directions(
    part: Part,
    chunks: Sequence[Chunk],
    grips: Grips,
    language: Language = Language.ENGLISH,
    names: Names = Names.LETTERS,
    alike: Sequence[Like | None] | None = None,
) -> tuple[Directions, ...]:
    """What a teacher says of every chunk of a part, in a language; `alike` where it is known already."""
    alike = likes(part, chunks) if alike is None else alike
    called = chunk_names(part, chunks, alike, _LIKE_WORDS[language])
    said = sentences_of(told_chunks(part, chunks, alike, called, grips), PHRASES[language], names)
    return tuple(Directions(*row) for row in zip(called, said, strict=True))


def tuning_words(
    old: Tuning, new: Tuning, language: Language = Language.ENGLISH, names: Names = Names.LETTERS
) -> tuple[str, ...]:
    """How to get from one tuning to another, a sentence a string; raises InvalidValueError."""
    phrases = PHRASES[language]
    rows = (phrases.turn(turn, chord_in(letter_of(turn.pitch), names)) for turn in turns(old, new))
    return tuple(f"{row[0].upper()}{row[1:]}." for row in rows)


PHRASES: dict[Language, Phrases] = {Language.ENGLISH: English(), Language.SPANISH: Spanish()}

__all__ = [
    "MOST_WORDS",
    "PHRASES",
    "ChunkFacts",
    "Directions",
    "Language",
    "Names",
    "chord_in",
    "directions",
    "sentences_of",
    "told_chunks",
    "tuning_words",
]
