"""Layers of a song, each a way to write the whole part: one line, chords to strum, or two of them
together."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.easier.chordbook import ChordBook
from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.layers.chords import Heard, chord_name, heard_between, strum
from clear_steps.core.easier.layers.lines import Bars, bass, melody
from clear_steps.core.easier.layers.together import (
    bass_and_chords,
    carries_the_tune,
    melody_and_bass,
    melody_and_chords,
    one_part_of_two,
)
from clear_steps.core.score import Part, Role, Song
from clear_steps.core.score.strumming import ChordShape


@dataclass(frozen=True, slots=True)
class Layer:
    """What its edits are called, in words what they do, and how it writes every bar."""

    name: str
    does: str
    bars: Callable[[Song, Part, ChordBook], Bars]
    role: Role  # of what it makes

    def changes(self, song: Song, part: Part, shapes: Sequence[ChordShape]) -> tuple[Change, ...]:
        """The changes that make it, one a bar; raises InvalidValueError where the layer cannot be had."""
        book = ChordBook(part.tuning, shapes)
        written = enumerate(zip(part.bars, self.bars(song, part, book), strict=True))
        return tuple(
            Change(index, Fraction(0), bar.events, events)
            for index, (bar, events) in written
            if events != bar.events
        )


LAYERS: dict[str, Layer] = {
    "melody": Layer("melody", "the melody alone", melody, Role.LINE),
    "bass": Layer("bass-line", "the bass alone", bass, Role.BASS),
    "strum": Layer("strum", "chords to strum", strum, Role.STRUM),
    "melody+bass": Layer("melody-bass", "the melody over the bass", melody_and_bass, Role.PICKED),
    "melody+strum": Layer(
        "melody-chords", "the melody with a chord a half bar", melody_and_chords, Role.CHORD_MELODY
    ),
    "bass+strum": Layer("bass-chords", "the bass with chords between", bass_and_chords, Role.STRUM),
    "one guitar": Layer("one-guitar", "the guitars as one part", one_part_of_two, Role.CHORD_MELODY),
}

__all__ = [
    "LAYERS",
    "Heard",
    "Layer",
    "bass",
    "carries_the_tune",
    "chord_name",
    "heard_between",
    "melody",
    "strum",
]
