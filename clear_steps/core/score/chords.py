"""Chord names as values: root, what sounds, another bass; every reader and writer goes through them.

The intervals of a quality are common practice, no source.
"""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache

from clear_steps.core.score.pitch import LETTERS

_SHARPS = ("C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B")
_FLATS = ("C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B")
# As most would write them where no key decides (common practice, no source): Db but C#m, Ab but G#m.
_USUAL_FLATS, _USUAL_FLATS_MINOR = frozenset({1, 3, 8, 10}), frozenset({3, 10})
_FIFTH = 7
_NAME = re.compile(r"(?P<root>[A-G][#b]?)(?P<quality>[^/\s]*)(?:/(?P<bass>[A-G][#b]?))?")
_QUALITIES: dict[str, tuple[int, ...]] = {
    "": (0, 4, 7),
    "m": (0, 3, 7),
    "5": (0, 7),
    "6": (0, 4, 7, 9),
    "m6": (0, 3, 7, 9),
    "7": (0, 4, 7, 10),
    "m7": (0, 3, 7, 10),
    "maj7": (0, 4, 7, 11),
    "mmaj7": (0, 3, 7, 11),
    "9": (0, 2, 4, 7, 10),
    "m9": (0, 2, 3, 7, 10),
    "maj9": (0, 2, 4, 7, 11),
    "11": (0, 2, 4, 5, 7, 10),
    "m11": (0, 2, 3, 5, 7, 10),
    "13": (0, 2, 4, 7, 9, 10),
    "m13": (0, 2, 3, 7, 9, 10),
    "maj13": (0, 2, 4, 7, 9, 11),
    "69": (0, 2, 4, 7, 9),
    "add9": (0, 2, 4, 7),
    "madd9": (0, 2, 3, 7),
    "add4": (0, 4, 5, 7),
    "add11": (0, 4, 5, 7),
    "sus2": (0, 2, 7),
    "sus4": (0, 5, 7),
    "sus": (0, 5, 7),
    "7sus4": (0, 5, 7, 10),
    "7sus2": (0, 2, 7, 10),
    "9sus4": (0, 2, 5, 7, 10),
    "dim": (0, 3, 6),
    "dim7": (0, 3, 6, 9),
    "m7b5": (0, 3, 6, 10),
    "aug": (0, 4, 8),
    "7#5": (0, 4, 8, 10),
    "7b5": (0, 4, 6, 10),
    "7b9": (0, 1, 4, 7, 10),
    "7#9": (0, 3, 4, 7, 10),
}
_SPELLINGS = {
    "min": "m",
    "-": "m",
    "mi": "m",
    "M7": "maj7",
    "Maj7": "maj7",
    "^7": "maj7",
    "M": "",
    "maj": "",
    "+": "aug",
    "°": "dim",
    "o": "dim",
    "°7": "dim7",
    "o7": "dim7",
    "ø": "m7b5",
    "min7": "m7",
    "-7": "m7",
    "2": "add9",
    "4": "sus4",
    "dom7": "7",
    "6/9": "69",
    "7sus": "7sus4",
    "+7": "7#5",
    "7+": "7#5",
    "aug7": "7#5",
    "mM7": "mmaj7",
    "add2": "add9",
    "madd2": "madd9",
}


@dataclass(frozen=True, slots=True)
class Chord:
    """A chord by its name: pitch classes (0 is C) of the root and of the bass, half tones above the root."""

    root: int
    quality: str
    intervals: tuple[int, ...]
    bass: int

    @property
    def classes(self) -> frozenset[int]:
        """The pitch classes that sound, the bass with them."""
        return frozenset({(self.root + interval) % 12 for interval in self.intervals} | {self.bass})

    def moved(self, half_tones: int) -> "Chord":
        """The same chord so much higher."""
        root, bass = (self.root + half_tones) % 12, (self.bass + half_tones) % 12
        return Chord(root, self.quality, self.intervals, bass)

    @property
    def usual_name(self) -> str:
        """Its name where no key says how it is spelled."""
        minor = 3 in self.intervals
        return self.named(flats=self.root in (_USUAL_FLATS_MINOR if minor else _USUAL_FLATS))

    def named(self, flats: bool = False, quality: str | None = None) -> str:
        """Its name, with another quality where one is given."""
        names = _FLATS if flats else _SHARPS
        over = "" if self.bass == self.root else f"/{names[self.bass]}"
        return f"{names[self.root]}{self.quality if quality is None else quality}{over}"


@lru_cache(maxsize=1000)
def parse_chord(name: str) -> Chord | None:
    """The chord of a name; None where it is not known (N.C., free words)."""
    match = _NAME.fullmatch(name.strip())
    if not match:
        return None
    quality = match["quality"].strip("()")
    quality = _SPELLINGS.get(quality, quality)
    if quality not in _QUALITIES:
        return None
    root = _class_of(match["root"])
    return Chord(root, quality, _QUALITIES[quality], _class_of(match["bass"]) if match["bass"] else root)


def _class_of(name: str) -> int:
    return (LETTERS[name[0]] + (name[1:] == "#") - (name[1:] == "b")) % 12


def transposed_name(name: str, half_tones: int) -> str:
    """A chord name so much higher, with sharps where it had them or needs one; one not known stays."""
    chord = parse_chord(name)
    if chord is None or not half_tones % 12:
        return name
    return chord.moved(half_tones).named(flats="b" in name)


def chord_of(pitches: Iterable[float]) -> Chord | None:
    """The chord that some pitches are, all of them and nothing else but its fifth missing; the one whose root
    is lowest comes first. None where they are none."""
    heard = sorted(pitches)
    classes = {round(pitch) % 12 for pitch in heard}
    if not classes:
        return None
    lowest = round(heard[0]) % 12
    for root in sorted(classes, key=lambda root: (root != lowest, root)):
        above = frozenset((pitch - root) % 12 for pitch in classes)
        for quality, intervals in _QUALITIES.items():
            if above == set(intervals) or (above | {_FIFTH} == set(intervals) and len(above) > 1):
                return Chord(root, quality, intervals, root if root == lowest else lowest)
    return None
