"""Directions in words: from stretches to what a teacher says, chunk by chunk, in a language.

Facts are found first, in no language (`facts`, `segments`, `rhythm`), then said by kind of stretch (`held`,
`carried`, `lines`) with the messages of a catalogue (`catalogue`, `messages`). Nothing is said that is not
written, and what has just been told is not told again; a test reads the words back.
"""

from collections.abc import Sequence

from clear_steps.core.score import Part
from clear_steps.core.teach.chunks import Chunk, Like, likes
from clear_steps.core.teach.chunks.naming import names as chunk_names
from clear_steps.core.teach.words.catalogue import Catalogue, catalogue_of
from clear_steps.core.teach.words.facts import Grips
from clear_steps.core.teach.words.languages import Language
from clear_steps.core.teach.words.names import Names, chord_in
from clear_steps.core.teach.words.notes import MOST_WORDS, Voice
from clear_steps.core.teach.words.setting import SettingWords, cents_words, setting_words, tuning_words
from clear_steps.core.teach.words.sheet import care_sentences, hard_sentences
from clear_steps.core.teach.words.telling import Directions, told


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
    voice = Voice(catalogue_of(language), names)
    return told(part, chunks, alike, chunk_names(part, chunks), grips, voice)


__all__ = [
    "MOST_WORDS",
    "Catalogue",
    "Directions",
    "Language",
    "Names",
    "SettingWords",
    "care_sentences",
    "catalogue_of",
    "cents_words",
    "chord_in",
    "directions",
    "hard_sentences",
    "setting_words",
    "tuning_words",
]
