"""Metre, note values and their letters; every time is an exact fraction of a quarter note."""

import re
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from clear_steps.core.errors import InvalidValueError

# letter -> (name, length in quarters)
NOTE_VALUES: dict[str, tuple[str, Fraction]] = {
    "w": ("whole", Fraction(4)),
    "h": ("half", Fraction(2)),
    "q": ("quarter", Fraction(1)),
    "e": ("eighth", Fraction(1, 2)),
    "s": ("sixteenth", Fraction(1, 4)),
    "t": ("thirty-second", Fraction(1, 8)),
    "z": ("sixty-fourth", Fraction(1, 16)),
}
TUPLETS = (3, 5, 6, 7, 9)
_VALUE = re.compile(r"([whqestz])(\.{0,2})([35679]?)")
_METRE = re.compile(r"\s*(\d{1,3})\s*/\s*(\d{1,3})\s*")
_EXACT = re.compile(r"\((\d{1,4})/(\d{1,4})\)")


@dataclass(frozen=True, slots=True)
class Metre:
    """A time signature: `beats` notes of 1/`unit` a bar."""

    beats: int
    unit: int

    def __post_init__(self) -> None:
        if not (1 <= self.beats <= 32 and self.unit in (1, 2, 4, 8, 16, 32)):
            raise InvalidValueError(
                "metre", f"{self.beats}/{self.unit}", "1 to 32 beats of 1, 2, 4, 8, 16 or 32, such as 4/4"
            )

    @property
    def quarters(self) -> Fraction:
        """Length of a bar in quarter notes."""
        return Fraction(4 * self.beats, self.unit)

    @property
    def beat_quarters(self) -> Fraction:
        """Length of the counted beat: a dotted quarter in 6/8, 9/8, 12/8, else the unit."""
        return _beat_quarters(self.beats, self.unit)

    @property
    def groups(self) -> tuple[Fraction, ...]:
        """Lengths in quarters of what is counted and beamed together: the beats, or where the beat is an
        eighth or shorter twos with a three at the end (7/8 as 2 + 2 + 3; common practice, no source)."""
        beat, unit = self.beat_quarters, Fraction(4, self.unit)
        if beat >= 1 or beat != unit:
            return (beat,) * int(self.quarters / beat)
        if self.beats < 4:
            return (self.quarters,)
        twos, odd = divmod(self.beats, 2)
        return (2 * unit,) * (twos - odd) + (3 * unit,) * odd

    def weight_at(self, onset: Fraction) -> int:
        """How strong a place in the bar (quarters) is: 0 for its start, then -1, -2 ... for each finer level
        of the metre."""
        return _weight_at(self, onset)

    def __str__(self) -> str:
        return f"{self.beats}/{self.unit}"


@lru_cache(maxsize=4096)
def _weight_at(metre: Metre, onset: Fraction) -> int:
    beat = metre.beat_quarters
    levels = [metre.quarters]
    levels += [metre.quarters / 2] if metre.beats == 4 else []
    levels += [beat, beat / 3 if beat.numerator % 3 == 0 else beat / 2]
    while levels[-1] > Fraction(1, 8):
        levels.append(levels[-1] / 2)
    return -next(
        (depth for depth, level in enumerate(levels) if (onset / level).denominator == 1), len(levels)
    )


@lru_cache
def _beat_quarters(beats: int, unit: int) -> Fraction:
    compound = unit >= 8 and beats % 3 == 0 and beats > 3
    return Fraction(12 if compound else 4, unit)


def parse_metre(text: str) -> Metre:
    """Read `7/8`; raises InvalidValueError."""
    match = _METRE.fullmatch(text)
    if not match:
        raise InvalidValueError("metre", text, "beats over unit, such as 4/4")
    return Metre(int(match[1]), int(match[2]))


def tuplet_ratio(count: int) -> Fraction:
    """`count` notes in the time of the largest smaller power of two: 3 -> 2/3, 6 -> 4/6."""
    return Fraction(1 << ((count - 1).bit_length() - 1), count)


def _dotted(value: Fraction, dots: int) -> Fraction:
    return value * (2 - Fraction(1, 2**dots))


@lru_cache(maxsize=1)
def _single_values() -> dict[Fraction, str]:
    """Length -> shortest spelling, plain before dotted before tuplet."""
    spelled: dict[Fraction, str] = {}
    suffixes = [
        ("", Fraction(1)),
        (".", Fraction(3, 2)),
        *((str(n), tuplet_ratio(n)) for n in TUPLETS),
        ("..", Fraction(7, 4)),
    ]
    for suffix, factor in suffixes:
        for letter, (_, length) in NOTE_VALUES.items():
            spelled.setdefault(length * factor, letter + suffix)
    return spelled


def parse_length(text: str) -> Fraction | None:
    """Length in quarters of `q`, `e.`, `s6`, `q=e` (tied) or `(5/7)`; None if it is no length."""
    total = Fraction(0)
    for piece in text.split("="):
        if match := _VALUE.fullmatch(piece):
            letter, dots, tuplet = match.groups()
            ratio = tuplet_ratio(int(tuplet)) if tuplet else Fraction(1)
            total += _dotted(NOTE_VALUES[letter][1], len(dots)) * ratio
        elif (match := _EXACT.fullmatch(piece)) and int(match[2]) and int(match[1]):
            total += Fraction(int(match[1]), int(match[2]))
        else:
            return None
    return total


@dataclass(frozen=True, slots=True)
class WrittenLength:
    """One head of a length: letter of its value, dots, tuplet digit (0 = none), quarters it lasts."""

    value: str
    dots: int
    tuplet: int
    quarters: Fraction


def written_lengths(quarters: Fraction) -> tuple[WrittenLength, ...]:
    """The heads of a length, tied where one does not do; a length that no value spells is one head without a
    value."""
    heads = []
    for piece in spell_length(quarters).split("="):
        match = _VALUE.fullmatch(piece)
        if match is None:
            return (WrittenLength("", 0, 0, quarters),)
        letter, dots, tuplet = match.groups()
        heads.append(WrittenLength(letter, len(dots), int(tuplet or 0), parse_length(piece) or Fraction(0)))
    return tuple(heads)


def spell_length(quarters: Fraction) -> str:
    """The letters for a length, longest value first, tied where one does not do."""
    single = _single_values()
    if quarters in single:
        return single[quarters]
    pieces: list[str] = []
    rest = quarters
    while rest and len(pieces) < 4:
        value = max((v for v in single if v <= rest and rest.denominator % v.denominator == 0), default=None)
        if value is None:
            break
        pieces.append(single[value])
        rest -= value
    return "=".join(pieces) if not rest else f"({quarters.numerator}/{quarters.denominator})"
