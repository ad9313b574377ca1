"""Names of notes and chords, by letter or do-re-mi."""

import re
from enum import StrEnum


class Names(StrEnum):
    """How notes are called."""

    LETTERS = "letters"
    SOLFEGE = "solfege"


_SYLLABLES = {"C": "do", "D": "re", "E": "mi", "F": "fa", "G": "sol", "A": "la", "B": "si"}
_NOTE = re.compile(r"(?P<letter>[A-G])(?P<sign>[#b♯♭]?)(?P<rest>.*)")
_BASS = re.compile(r"/(?P<bass>[A-G][#b♯♭]?)$")


def chord_in(chord: str, names: Names) -> str:
    """`F#m7/C#` or `fa#m7/do#`; what is no chord's name stays as it is written."""
    if names is Names.LETTERS:
        return chord
    match = _NOTE.fullmatch(chord)
    if not match:
        return chord
    bass = _BASS.search(match["rest"])
    rest = match["rest"][: bass.start()] if bass else match["rest"]
    under = f"/{chord_in(bass['bass'], names)}" if bass else ""
    return f"{_SYLLABLES[match['letter']]}{match['sign']}{rest}{under}"
