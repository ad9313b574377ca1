"""A tuning as people say it: a name, letters without octaves, so far down."""

import re

from clear_steps.core.errors import ClearStepsError, InvalidValueError
from clear_steps.core.score import STANDARD, Tuning, default_tuning, parse_tuning
from clear_steps.core.score.pitch import LETTERS
from clear_steps.core.score.tuning import MAX_STRINGS

_LETTER = re.compile(r"[A-Ga-g][#b♯♭]?")
_SPELLED = re.compile(r"(?:[A-Ga-g][#b♯♭]?-?\d?[\s,/-]*){4,8}")
_PARENTHESES = re.compile(r"\(([^()]*)\)")
_DOWN = re.compile(
    r"(?:tuned?\s+)?(?:down\s+)?(?:a\s+)?(?P<step>1/2|½|half|one half|whole|full|1)"
    r"[\s-]*(?:step|tone)s?(?:\s*down)?(?:\s*tuning)?",
    re.IGNORECASE,
)
_NAMES = {
    "standard": "standard",
    "standard tuning": "standard",
    "std": "standard",
    "normal": "standard",
    "e standard": "standard",
    "eb standard": "half step down",
    "e flat": "half step down",
    "eb": "half step down",
    "d# standard": "half step down",
    "d standard": "whole step down",
    "drop d": "drop D",
    "dropped d": "drop D",
    "drop c": "drop C",
    "drop c#": "drop C#",
    "drop db": "drop C#",
    "double drop d": "double drop D",
    "open d": "open D",
    "open e": "open E",
    "open g": "open G",
    "open a": "open A",
    "open c": "open C",
}
_FARTHEST = 6  # half tones that a string is tuned away from where its place has it


def said_tuning(text: str) -> str | None:
    """The tuning that some words name, as our header line has it; None where they name none."""
    outside = _PARENTHESES.sub(" ", text).strip(" .,;:-")
    inside = [match.strip() for match in _PARENTHESES.findall(text)]
    for words in (text.strip(), outside, *inside):
        if found := _named(" ".join(words.split())):
            return found
    return None


def tuning_said(text: str) -> Tuning:
    """The tuning that some words name; raises InvalidValueError where they name none."""
    said = said_tuning(text)
    if said is None:
        expected = "a name or letters, such as drop C#, Eb standard, C G C F A D"
        raise InvalidValueError("tuning", text, expected)
    return parse_tuning(said)


def _named(words: str) -> str | None:
    if not words:
        return None
    try:
        return parse_tuning(words).name
    except ClearStepsError:
        pass
    plain = words.lower().removesuffix(" tuning")
    if plain in _NAMES:
        return _NAMES[plain]
    if match := _DOWN.fullmatch(plain):
        return (
            "half step down"
            if match["step"].lower() in ("1/2", "½", "half", "one half")
            else "whole step down"
        )
    if _SPELLED.fullmatch(words):
        return _spelled(_letters(words))
    return None


def _letters(words: str) -> list[str]:
    """`dadgbe` letter by letter; a b after a letter is a flat only where there would be too many strings."""
    together = [sign for sign in words if sign.isalpha()]
    return together if words.isalpha() and len(together) <= MAX_STRINGS else _LETTER.findall(words)


def _spelled(letters: list[str]) -> str | None:
    """Letters from the lowest string up, each at the pitch nearest to where its string usually is."""
    usual = default_tuning(len(letters)) if len(letters) != STANDARD.strings else STANDARD
    if usual is None:
        return None
    pitches = []
    for letter, place in zip(letters, reversed(usual.pitches), strict=True):
        own = _class_of(letter)
        near = min(
            (place + away for away in range(-_FARTHEST, _FARTHEST) if (place + away) % 12 == own),
            key=lambda at: abs(at - place),
        )
        pitches.append(near)
    tuning = Tuning(tuple(reversed(pitches)))
    return tuning.name


def _class_of(letter: str) -> int:
    sign = letter[1:].replace("♯", "#").replace("♭", "b")
    return (LETTERS[letter[0].upper()] + (sign == "#") - (sign == "b")) % 12
