"""Lengths as MusicXML writes them: a type, dots, and how many notes in the time of how many."""

from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.score import NOTE_VALUES, parse_length, spell_length

_TYPES = {
    "whole": "whole",
    "half": "half",
    "quarter": "quarter",
    "eighth": "eighth",
    "sixteenth": "16th",
    "thirty-second": "32nd",
    "sixty-fourth": "64th",
}


@dataclass(frozen=True, slots=True)
class WrittenValue:
    """One written note of a length; an odd length has no type."""

    quarters: Fraction
    type: str
    dots: int
    actual: int  # so many notes ...
    normal: int  # ... in the time of so many


def written_values(quarters: Fraction) -> list[WrittenValue]:
    """The tied notes that make up a length."""
    return [_written(piece) for piece in spell_length(quarters).split("=")]


def _written(piece: str) -> WrittenValue:
    length = parse_length(piece)
    assert length is not None  # spell_length writes what parse_length reads
    if piece.startswith("("):
        return WrittenValue(length, "", 0, 1, 1)
    dots = piece.count(".")
    plain = NOTE_VALUES[piece[0]][1] * (2 - Fraction(1, 2**dots))
    actual = int(piece[-1]) if piece[-1].isdigit() else 1
    return WrittenValue(length, _TYPES[NOTE_VALUES[piece[0]][0]], dots, actual, int(length / plain * actual))
