"""Chord names against music21's harmony module on the same pitch classes."""

import pytest
from music21 import chord, harmony, pitch

from clear_steps.core.easier.chordbook import ChordBook
from clear_steps.core.easier.layers import Heard, chord_name
from clear_steps.core.score import STANDARD
from clear_steps.core.score.chords import parse_chord
from clear_steps.core.score.strumming import ChordShape
from clear_steps.ladders import default_ladder

# music21's figure of C D E G is that of C alone; the interval table has the added ninth.
SHAPES = [
    row
    for row in default_ladder().chord_shapes
    if not row.substitute and "/" not in row.chord and "add" not in row.chord
]
BY_EAR = ("", "m", "7", "m7", "maj7")


def sounding(by_string: dict[int, int]) -> list[int]:
    return sorted(STANDARD.open_pitch(string) + fret for string, fret in by_string.items())


def classes_music21_hears(pitches: list[int]) -> set[int]:
    theirs = harmony.chordSymbolFigureFromChord(chord.Chord(pitches))
    return {each.pitchClass for each in harmony.ChordSymbol(theirs).pitches}


@pytest.mark.parametrize("row", SHAPES, ids=lambda row: row.chord)
def test_a_shape_of_the_table_is_the_chord_music21_hears(row: ChordShape) -> None:
    named = parse_chord(row.chord)
    assert named
    pitches = sounding(row.by_string)
    if (named.root + 7) % 12 not in {own % 12 for own in pitches}:
        pitches.append(60 + (named.root + 7) % 12)  # the open C7; music21 names no chord without its fifth
    pitches.append(36 + named.root)  # shapes whose root is not lowest, as a bass would play it
    assert {pitch.Pitch(midi).pitchClass for midi in pitches} == classes_music21_hears(pitches)
    assert named.classes == classes_music21_hears(pitches)
    if named.quality in BY_EAR:
        weights = dict.fromkeys((midi % 12 for midi in pitches), 1.0)
        assert chord_name(Heard(weights, min(pitches))) == row.chord


@pytest.mark.parametrize("quality", BY_EAR)
@pytest.mark.parametrize("root", ["C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"])
def test_a_small_shape_has_the_chord_music21_knows_by_that_name(root: str, quality: str) -> None:
    named = parse_chord(root + quality)
    assert named
    shape = ChordBook(STANDARD, ()).small(named)
    assert shape
    theirs = harmony.ChordSymbol(root.replace("b", "-") + quality)
    heard = {midi % 12 for midi in sounding(dict(shape.by_string))}
    assert heard <= {each.pitchClass for each in theirs.pitches}
    assert len(heard) >= 3
