"""What there is to learn of a part: no playing difficulty, so it is told beside the Step."""

from collections.abc import Hashable, Iterator
from dataclasses import dataclass
from math import ceil

from clear_steps.core.figures.learning import Learning
from clear_steps.core.score import Part, Song, played_order
from clear_steps.core.shapes import Grip, Kind, Shapes, read_shapes

# What a sitting is enough for, in bars that are new; a grip or a pattern that is new costs as much as half of
# one or one (from memory).
_BARS_A_SITTING, _BARS_A_GRIP, _BARS_A_PATTERN = 6.0, 0.5, 1.0


@dataclass(frozen=True, slots=True)
class ToLearn:
    """Bars after what comes back (shares of bars too), grips and patterns each once, and about how many
    sittings that is."""

    bars: float
    grips: int
    patterns: int
    sittings: int


def to_learn(song: Song, part: Part) -> ToLearn:
    """Of a part as it is played."""
    bars = Learning().bars_to_learn(part, dict.fromkeys(played_order(part, song.order)))
    shapes = read_shapes(part)
    grips, patterns = len(set(_grips(shapes))), len(set(_patterns(shapes)))
    work = bars + _BARS_A_GRIP * grips + _BARS_A_PATTERN * patterns
    return ToLearn(bars, grips, patterns, ceil(work / _BARS_A_SITTING))


def _grips(shapes: Shapes) -> Iterator[Hashable]:
    """A grip that is carried along counts once, wherever it lies."""
    for stretch in shapes.stretches:
        if stretch.grip is not None:
            yield _moved_down(stretch.grip) if stretch.kind is Kind.CARRIED else _places(stretch.grip)


def _places(grip: Grip) -> Hashable:
    return tuple(sorted(grip.frets.items()))


def _moved_down(grip: Grip) -> Hashable:
    low = min((fret for fret in grip.frets.values() if fret), default=0)
    return tuple((string, fret and fret - low + 1) for string, fret in sorted(grip.frets.items()))


def _patterns(shapes: Shapes) -> Iterator[Hashable]:
    for stretch in shapes.stretches:
        if stretch.pattern is not None:
            yield (stretch.pattern.cell, stretch.pattern.strokes, stretch.pattern.strings)
