"""What a language says: messages by name, one file a language, with English where one is missing.

The files are Project Fluent's format (open, documented), read by its own library; number words come from
num2words. A language that the library has no numbers for is given figures.
"""

from collections.abc import Callable, Iterable
from functools import lru_cache
from importlib.resources import files
from typing import Any

from fluent.runtime import FluentBundle, FluentResource
from num2words import num2words

from clear_steps.core.teach.words.languages import Language

MESSAGES = files(__package__) / "messages"  # shipped with the code
_MOST_IN_WORDS = 12  # numbers beyond are figures

Value = str | int


class Catalogue:
    """The messages of one language; `own` is the text of its file."""

    def __init__(self, language: str, own: str) -> None:
        self.language = language
        self._bundles = [_bundle(language, own), _bundle(Language.ENGLISH, _text(Language.ENGLISH))]

    def say(self, message: str, **values: Value) -> str:
        """A message with its values; raises KeyError for one that English lacks too."""
        bundle = next((each for each in self._bundles if each.has_message(message)), None)
        pattern = bundle.get_message(message).value if bundle else None
        if bundle is None or pattern is None:
            raise KeyError(message)
        said, faults = bundle.format_pattern(pattern, values)
        if faults:
            raise KeyError(f"{message}: {faults}")
        return str(said)

    def has_own(self, message: str) -> bool:
        """Whether the language itself has it."""
        return bool(self._bundles[0].has_message(message))

    def listed(self, words: Iterable[str]) -> str:
        """`a, b and c`."""
        *rest, last = words
        return self.say("list", first=", ".join(rest), last=last) if rest else last


def _bundle(language: str, text: str) -> FluentBundle:
    functions = {
        "WORD": _worded(language),
        "ORDINAL": _ordinal(language),
    }
    bundle = FluentBundle([language], functions=functions, use_isolating=False)
    bundle.add_resource(FluentResource(text))
    return bundle


def _worded(language: str) -> Callable[[Any], Any]:
    def word(number: int) -> str:
        return _numbered(language, "cardinal", int(number)) if number <= _MOST_IN_WORDS else str(int(number))

    return word


def _ordinal(language: str) -> Callable[[Any], Any]:
    return lambda number: _numbered(language, "ordinal_num", int(number))


@lru_cache(maxsize=1024)
def _numbered(language: str, to: str, number: int) -> str:
    try:
        return str(num2words(number, lang=language, to=to))
    except NotImplementedError:
        return str(number)


def _text(language: Language) -> str:
    return (MESSAGES / f"{language}.ftl").read_text(encoding="utf-8")


@lru_cache(maxsize=8)
def catalogue_of(language: Language) -> Catalogue:
    """The catalogue that ships for a language."""
    return Catalogue(language, _text(language))
