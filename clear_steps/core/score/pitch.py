"""Pitch names and MIDI numbers (A4 = 69 = 440 Hz, ISO 16)."""

import re

from clear_steps.core.errors import InvalidValueError

LETTERS = {"C": 0, "D": 2, "E": 4, "F": 5, "G": 7, "A": 9, "B": 11}
_NAMES = ("C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B")
_PITCH = re.compile(r"([A-Ga-g])([#b]?)(-?\d)")


def midi_of(name: str) -> int:
    """MIDI number of a name such as `E2`, `F#3` or `Bb1`; raises InvalidValueError otherwise."""
    match = _PITCH.fullmatch(name)
    if not match:
        raise InvalidValueError("pitch", name, "a letter, an optional # or b, and an octave, such as E2")
    letter, accidental, octave = match.groups()
    shift = {"#": 1, "b": -1, "": 0}[accidental]
    return LETTERS[letter.upper()] + shift + 12 * (int(octave) + 1)


def name_of(midi: int) -> str:
    """Name with octave of a MIDI number: 40 -> `E2`."""
    return f"{_NAMES[midi % 12]}{midi // 12 - 1}"


def letter_of(midi: int) -> str:
    """Pitch class without octave: 40 -> `E`."""
    return _NAMES[midi % 12]


def midi_to_hz(midi: float) -> float:
    """Frequency in Hz, A4 = 440 Hz."""
    return float(440.0 * 2.0 ** ((midi - 69) / 12))
