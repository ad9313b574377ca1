"""The shapes an instrument has for a chord: those a teacher writes down, else small ones that fit anywhere on
the neck."""

import itertools
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from clear_steps.core.score import STANDARD, Part, Tuning
from clear_steps.core.score.chords import Chord, parse_chord
from clear_steps.core.score.strumming import ChordShape
from clear_steps.core.score.tuning import raised_half_tones

Frets = Mapping[int, int]
"""Frets by string, 1 the thinnest, counted from the capo."""

_SIZES = (3, 4)  # strings next to each other
_THIN_STRINGS = 5  # the thickest growls in a small shape (common practice, no source)
_HIGHEST = 9
_REACH = 2  # frets between the lowest and the highest that are pressed
_NUT = 3  # frets up to which open strings belong to a shape
_FIFTH = 7
_THIRDS = frozenset({2, 3, 4, 5})  # and what stands in their place
_SEVENTHS = frozenset({9, 10, 11})


def shapes_sound_above(part: Part) -> int:
    """Half tones by which a shape of a part sounds above its name: names are those of shapes in standard
    tuning without a capo."""
    return part.capo + raised_half_tones(part.tuning)


@dataclass(frozen=True, slots=True)
class Shape:
    """A shape of a chord, and the name of what sounds where that is a stated substitute."""

    by_string: Frets
    substitute: str = ""


@dataclass(frozen=True, slots=True)
class ChordBook:
    """Shapes for an instrument as it is tuned: what is written down for standard tuning serves a guitar
    that differs in one string at most, as a whole higher or lower."""

    tuning: Tuning
    rows: Sequence[ChordShape]

    def shape(self, chord: Chord, substitutes: bool = False) -> Shape | None:
        """The shape to play: the first one written down, substitutes before all where they may be, else a
        small one."""
        return self.written(chord, substitutes) or self.small(chord)

    def written(self, chord: Chord, substitutes: bool = False) -> Shape | None:
        """The first shape that is written down for a chord, one with its own bass before others."""
        apart = self._strings_apart()
        if apart is None:
            return None
        found = [row for row in self.rows if _is_of(row, chord) and (substitutes or not row.substitute)]
        if not found:
            return None
        row = min(found, key=lambda row: (not row.substitute, not _has_bass(row, chord)))
        frets = {string: fret for string, fret in row.by_string.items() if string not in apart}
        return Shape(frets, row.substitute)

    def small(self, chord: Chord) -> Shape | None:
        """Three or four strings next to each other, the least to hold."""
        frets = _smallest(chord, self.tuning)
        return Shape(dict(frets)) if frets else None

    def _strings_apart(self) -> frozenset[int] | None:
        """The strings that are not where standard tuning has them; None where there are too many."""
        if self.tuning.strings != STANDARD.strings:
            return None
        raised = raised_half_tones(self.tuning)
        pairs = enumerate(zip(self.tuning.pitches, STANDARD.pitches, strict=True), start=1)
        apart = frozenset(string for string, (own, usual) in pairs if own - usual != raised)
        return apart if len(apart) < 2 else None


def _is_of(row: ChordShape, chord: Chord) -> bool:
    own = parse_chord(row.chord)
    return own is not None and (own.root, own.intervals) == (chord.root, chord.intervals)


def _has_bass(row: ChordShape, chord: Chord) -> bool:
    own = parse_chord(row.chord)
    return own is not None and own.bass == chord.bass


@lru_cache(maxsize=2000)
def _smallest(chord: Chord, tuning: Tuning) -> tuple[tuple[int, int], ...]:
    """String and fret of what is least to hold; empty where nothing is near enough. What a small shape may
    do without is tried in turn: nothing, the fifth, the root, all but third and seventh."""
    above = frozenset(chord.intervals)
    core = above & (_THIRDS | _SEVENTHS)
    for needed in (above, above - {_FIFTH}, above - {0, _FIFTH}, core | {0}, core):
        shapes = [own for own in _shapes(chord, tuning) if needed <= _above(chord, tuning, own)]
        if shapes and needed:
            return min(shapes, key=_effort)
    return ()


def _shapes(chord: Chord, tuning: Tuning) -> Iterator[tuple[tuple[int, int], ...]]:
    """All ways to hold nothing but the chord on a few strings next to each other."""
    last = min(_THIN_STRINGS, tuning.strings)
    frets = {
        string: [fret for fret in range(_HIGHEST + 1) if _interval(chord, tuning, string, fret) is not None]
        for string in range(1, last + 1)
    }
    for size in _SIZES:
        for first in range(1, last - size + 2):
            strings = range(first, first + size)
            for own in itertools.product(*(frets[string] for string in strings)):
                pressed = [fret for fret in own if fret]
                reach = max(pressed, default=0) - min(pressed, default=0)
                if reach <= _REACH and (len(pressed) == len(own) or max(pressed, default=0) <= _NUT):
                    yield tuple(zip(strings, own, strict=True))


def _interval(chord: Chord, tuning: Tuning, string: int, fret: int) -> int | None:
    """What a place is above the root; None where it is not in the chord."""
    above = (tuning.open_pitch(string) - raised_half_tones(tuning) + fret - chord.root) % 12
    return above if above in chord.intervals else None


def _above(chord: Chord, tuning: Tuning, shape: Sequence[tuple[int, int]]) -> set[int | None]:
    return {_interval(chord, tuning, *place) for place in shape}


def _effort(shape: Sequence[tuple[int, int]]) -> tuple[int, int, int, int]:
    """Fingers, reach, height on the neck, and how far from the thin strings."""
    pressed = [fret for _, fret in shape if fret]
    flat = len(pressed) == len(shape) and len(set(pressed)) == 1
    reach = max(pressed, default=0) - min(pressed, default=0)
    return 1 if flat else len(pressed), reach, max(pressed, default=0), shape[0][0]
