"""Numbers, beats, strings and fingers in words."""

from collections.abc import Sequence
from fractions import Fraction
from functools import lru_cache

from clear_steps.core.score.rhythm import Metre

_FINGER_WORDS = {"1": "first", "2": "second", "3": "third", "4": "little", "T": "thumb"}
# Parts of a beat as they are counted aloud: 1 e & a, 1 t l.
_COUNTS = {
    Fraction(1, 4): "the e of ",
    Fraction(1, 2): "the & of ",
    Fraction(3, 4): "the a of ",
    Fraction(1, 3): "the second third of ",
    Fraction(2, 3): "the last third of ",
}

_SIGNS = {
    Fraction(1, 4): "e",
    Fraction(1, 2): "&",
    Fraction(3, 4): "a",
    Fraction(1, 3): "t",
    Fraction(2, 3): "l",
}
_SHARES = {5: "fifth", 6: "sixth", 7: "seventh", 8: "eighth", 9: "ninth", 12: "twelfth"}  # of a beat


_NUMBERS = (
    "no",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
)


def bar_words(*numbers: int) -> str:
    """`bar 7`, `bars 2 and 7`, `the pickup and bar 3`."""
    full = [str(number) for number in numbers if number]
    bars = [f"bar{'s' if len(full) > 1 else ''} {listed(full)}"] if full else []
    return listed([*["the pickup"] * (0 in numbers), *bars])


def capital(text: str) -> str:
    """With its first letter in capitals."""
    return f"{text[:1].upper()}{text[1:]}"


def uncapital(text: str) -> str:
    """With its first letter small."""
    return f"{text[:1].lower()}{text[1:]}"


def listed(words: Sequence[str]) -> str:
    """`a, b and c`."""
    return f"{', '.join(words[:-1])} and {words[-1]}" if len(words) > 1 else "".join(words)


def number_words(count: int) -> str:
    """`three`, in figures from 13 on."""
    return _NUMBERS[count] if count < len(_NUMBERS) else str(count)


@lru_cache(maxsize=1024)
def beat_words(onset: Fraction, metre: Metre) -> str:
    """`beat 3`, `the & of beat 2`, `the 2nd fifth of beat 1`, else `a point after beat 4`."""
    beat, part = divmod(onset / metre.beat_quarters, 1)
    return f"{'' if part == 0 else _COUNTS.get(part) or _share_words(part)}beat {int(beat) + 1}"


def count_sign(onset: Fraction, metre: Metre) -> str:
    """What is said aloud at an onset: `1`, `e`, `&`, `a`, `t`, `l`; nothing where no word is at hand.

    On the same beats as the words: in 6/8 there are two, each of `1 t l`.
    """
    beat, part = divmod(onset / metre.beat_quarters, 1)
    return str(int(beat) + 1) if part == 0 else _SIGNS.get(part, "")


def _share_words(part: Fraction) -> str:
    share = _SHARES.get(part.denominator)
    number = "last" if part.numerator + 1 == part.denominator else ordinal(part.numerator + 1)
    return f"the {number} {share} of " if share else "a point after "


def finger_words(fingers: tuple[str, ...]) -> str:
    """`first and little finger`."""
    names = [_FINGER_WORDS[finger] for finger in fingers]
    return f"{listed(names)} finger" if "thumb" not in names else listed(names)


def ordinal(number: int) -> str:
    """`1st`, `2nd`, `3rd`, `4th` ... `11th`, `21st`."""
    suffix = "th" if number // 10 == 1 else {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")
    return f"{number}{suffix}"


def string_words(strings: tuple[int, ...]) -> str:
    """`3rd string` or `4th and 2nd strings`."""
    names = [ordinal(string) for string in strings]
    return f"{names[0]} string" if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]} strings"
