"""What a measure says about a bar: a Step, the raw value behind it, and the evidence."""

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property, lru_cache
from typing import NamedTuple

from clear_steps.core.score import Metre

_FINGER_WORDS = {"1": "first", "2": "second", "3": "third", "4": "little", "T": "thumb"}


@dataclass(frozen=True, slots=True)
class Place:
    """A moment in a bar: onset in quarters, and the strings meant."""

    onset: Fraction
    strings: tuple[int, ...]


class Told(NamedTuple):
    """The raw value, its place, and the evidence in a sentence."""

    value: float | None
    place: Place | None
    evidence: str


@dataclass(frozen=True, eq=False)  # no slots: what is told is kept
class Finding:
    """One measure of one bar; `value` is in `unit`. Nothing found: Step 0, no value, no place.

    It is told when somebody asks: most Steps that are looked at while a version is sought are not.
    """

    step: float
    unit: str
    tell: Callable[[], Told]

    @cached_property
    def _told(self) -> Told:
        return self.tell()

    @property
    def value(self) -> float | None:
        """The raw value."""
        return self._told.value

    @property
    def place(self) -> Place | None:
        """Where the worst of it is."""
        return self._told.place

    @property
    def evidence(self) -> str:
        """A sentence in plain words."""
        return self._told.evidence

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Finding) and (self.step, self.unit, self._told) == (
            other.step,
            other.unit,
            other._told,
        )

    __hash__ = None  # type: ignore[assignment]


def _told_nothing() -> Told:
    return Told(None, None, "")


def nothing(unit: str) -> Finding:
    """The finding of a measure with nothing to measure."""
    return Finding(0.0, unit, _told_nothing)


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
    return f"the {ordinal(part.numerator + 1)} {share} of " if share else "a point after "


def finger_words(fingers: tuple[str, ...]) -> str:
    """`first and little finger`."""
    names = [_FINGER_WORDS[finger] for finger in fingers]
    return f"{' and '.join(names)} finger" if "thumb" not in names else " and ".join(names)


def ordinal(number: int) -> str:
    """`1st`, `2nd`, `3rd`, `4th` ... `11th`, `21st`."""
    suffix = "th" if number // 10 == 1 else {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")
    return f"{number}{suffix}"


def string_words(strings: tuple[int, ...]) -> str:
    """`3rd string` or `4th and 2nd strings`."""
    names = [ordinal(string) for string in strings]
    return f"{names[0]} string" if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]} strings"
