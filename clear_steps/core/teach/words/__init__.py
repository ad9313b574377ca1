"""Directions in words: from notes to what a teacher says, chunk by chunk, in English and Spanish.

Facts are found first, in no language (`facts`, `telling`), then put into sentences (`sentences`) with the
phrases of one (`english`, `spanish`). Nothing is said that is not written; a test reads the words back.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from clear_steps.core.score import Part, Tuning
from clear_steps.core.teach.chunks import Chunk, Like, likes
from clear_steps.core.teach.chunks.naming import LikeWords
from clear_steps.core.teach.chunks.naming import names as chunk_names
from clear_steps.core.teach.setting_up import Setting, Turn, sounds_apart
from clear_steps.core.teach.words.english import English
from clear_steps.core.teach.words.facts import ChunkFacts, Grips
from clear_steps.core.teach.words.languages import Language
from clear_steps.core.teach.words.names import Names, chord_in
from clear_steps.core.teach.words.phrases import Phrases
from clear_steps.core.teach.words.sentences import MOST_WORDS, Spoken, sentence, sentences_of, spoken
from clear_steps.core.teach.words.sheet import care_sentences, hard_sentences
from clear_steps.core.teach.words.spanish import Spanish, like_words
from clear_steps.core.teach.words.telling import told_chunks

_LIKE_WORDS: dict[Language, LikeWords | None] = {Language.ENGLISH: None, Language.SPANISH: like_words}


@dataclass(frozen=True, slots=True)
class Directions:
    """A chunk's name and what is said of it; `spoken`: every moment by itself."""

    name: str
    sentences: tuple[str, ...]
    spoken: tuple[Spoken, ...]


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
    phrases, told = PHRASES[language], told_chunks(part, chunks, alike, called, grips)
    said = sentences_of(told, phrases, names)
    return tuple(
        Directions(name, sentences, spoken(facts, phrases, names))
        for name, sentences, facts in zip(called, said, told, strict=True)
    )


@dataclass(frozen=True, slots=True)
class SettingWords:
    """How to get a guitar ready, a sentence a string to turn; where the capo goes; and how far the song
    sounds from the guitar as it is, empty where not all strings do alike."""

    turns: tuple[str, ...]
    capo: str
    sounds: str


def tuning_words(
    tuning: Tuning, found: Sequence[Turn], language: Language = Language.ENGLISH, names: Names = Names.LETTERS
) -> tuple[str, ...]:
    """How every string is turned to a tuning, a sentence each."""
    phrases, letters = PHRASES[language], tuning.letters
    return tuple(sentence(phrases.turn(turn, chord_in(letters[turn.string - 1], names))) for turn in found)


def setting_words(
    old: Tuning, setting: Setting, language: Language = Language.ENGLISH, names: Names = Names.LETTERS
) -> SettingWords:
    """How to get from a guitar as it is tuned to what a song asks for."""
    phrases = PHRASES[language]
    apart = sounds_apart(old, setting.tuning, setting.capo)
    return SettingWords(
        tuning_words(setting.tuning, setting.turns, language, names),
        sentence(phrases.capo(setting.capo)),
        "" if apart is None else sentence(phrases.sounds(apart)),
    )


def cents_words(cents: int, language: Language = Language.ENGLISH) -> str:
    """What to do about a recording that is so many cents off; empty for none."""
    return sentence(PHRASES[language].off_pitch(cents)) if cents else ""


PHRASES: dict[Language, Phrases] = {Language.ENGLISH: English(), Language.SPANISH: Spanish()}

__all__ = [
    "MOST_WORDS",
    "PHRASES",
    "ChunkFacts",
    "Directions",
    "Language",
    "Names",
    "SettingWords",
    "care_sentences",
    "cents_words",
    "chord_in",
    "directions",
    "hard_sentences",
    "sentences_of",
    "setting_words",
    "told_chunks",
    "tuning_words",
]
