"""How pitches are spelled: in the key that a part moves in, Db where flats are written and C# with sharps."""

import re
from collections import defaultdict
from fractions import Fraction

from clear_steps.core.score.song import Part

MOST_ACCIDENTALS = 6
_FIFTHS = "FCGDAEB"
_C_ON_FIFTHS = 1  # its place in that row
_MAJOR = frozenset(range(-1, 6))  # on the line of fifths from the keynote: the fourth up to the seventh
_BELOW = 3  # fifths below the keynote from which on sharps and flats are spelled: Eb in C, and G# above
_FLATTEST, _SHARPEST = -7, 1  # where the twelve spellings begin at most: Cb, or G up to B#
_CHORD_NAME = re.compile(r"[A-G](?P<sign>[#b])")
_NEARER = Fraction(1, 1000)  # of all that sounds, that a key with one sign less is worth


def sharps_of(part: Part) -> int:
    """The key signature that spells most of a part without signs: sharps, flats below 0; of two that do it
    equally, the one with fewer signs; of six sharps or flats the one the chord names agree with."""
    weights: dict[int, Fraction] = defaultdict(Fraction)
    signs = 0
    for _, _, event in part.events():
        for note in event.struck:
            if not note.dead:
                weights[part.pitch_of(note) % 12] += event.quarters
        for name in _CHORD_NAME.finditer(event.chord):
            signs += 1 if name["sign"] == "#" else -1
    whole = sum(weights.values(), Fraction(0)) or Fraction(1)

    def covers(sharps: int) -> tuple[Fraction, bool, int]:
        scale = {(fifths + sharps) * 7 % 12 for fifths in _MAJOR}
        own = sum((weight for pitch, weight in weights.items() if pitch in scale), Fraction(0))
        return own / whole - _NEARER * abs(sharps), sharps * signs > 0, sharps

    return max(range(-MOST_ACCIDENTALS, MOST_ACCIDENTALS + 1), key=covers)


def spelled(midi: int, sharps: int = 0) -> tuple[str, int, int]:
    """Letter, alteration in half tones and octave of a pitch in a key: 61 is (`C`, 1, 4), with four flats
    (`D`, -1, 4). Nothing is altered twice."""
    first = min(max(sharps - _BELOW, _FLATTEST), _SHARPEST)
    fifths = first + (midi * 7 - first) % 12
    letter = _FIFTHS[(fifths + _C_ON_FIFTHS) % 7]
    alter = (fifths + _C_ON_FIFTHS) // 7
    return letter, alter, (midi - alter) // 12 - 1


def spelled_name(midi: int, sharps: int = 0) -> str:
    """Name with octave in a key: `Db4`."""
    letter, alter, octave = spelled(midi, sharps)
    return f"{letter}{'#' * alter if alter > 0 else 'b' * -alter}{octave}"
