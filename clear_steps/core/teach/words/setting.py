"""Getting a guitar ready, in words."""

from collections.abc import Sequence
from dataclasses import dataclass

from clear_steps.core.score import Tuning
from clear_steps.core.teach.setting_up import Setting, Turn, sounds_apart
from clear_steps.core.teach.words.catalogue import Catalogue, catalogue_of
from clear_steps.core.teach.words.languages import Language
from clear_steps.core.teach.words.names import Names, chord_in
from clear_steps.core.teach.words.sentences import sentence


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
    catalogue, letters = catalogue_of(language), tuning.letters
    return tuple(
        sentence(_turn(turn, chord_in(letters[turn.string - 1], names), catalogue)) for turn in found
    )


def _turn(turn: Turn, name: str, catalogue: Catalogue) -> str:
    how = catalogue.say(f"compare-{turn.compare}", other=turn.other, fret=turn.fret)
    return catalogue.say(
        "turn",
        string=turn.string,
        up=int(turn.by > 0),
        tones=abs(turn.by),
        name=name,
        how=how,
        slowly=int(turn.tight),
    )


def setting_words(
    old: Tuning, setting: Setting, language: Language = Language.ENGLISH, names: Names = Names.LETTERS
) -> SettingWords:
    """How to get from a guitar as it is tuned to what a song asks for."""
    catalogue = catalogue_of(language)
    apart = sounds_apart(old, setting.tuning, setting.capo)
    return SettingWords(
        tuning_words(setting.tuning, setting.turns, language, names),
        sentence(catalogue.say("capo", fret=setting.capo)),
        "" if apart is None else sentence(_sounds(apart, catalogue)),
    )


def _sounds(apart: int, catalogue: Catalogue) -> str:
    return catalogue.say("sounds", tones=abs(apart), up=int(apart > 0))


def cents_words(cents: int, language: Language = Language.ENGLISH) -> str:
    """What to do about a recording that is so many cents off; empty for none."""
    if not cents:
        return ""
    return sentence(catalogue_of(language).say("off-pitch", cents=abs(cents), up=int(cents > 0)))
