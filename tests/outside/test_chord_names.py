"""Chord names against music21's harmony module on the same pitch classes."""

import pytest
from music21 import chord, harmony, pitch

from clear_steps.core.easier.kinds.texture import OPEN_SHAPES
from clear_steps.core.easier.layers import chord_name
from clear_steps.core.score import STANDARD


@pytest.mark.parametrize("name", list(OPEN_SHAPES))
def test_an_open_shape_is_the_chord_music21_hears(name: str) -> None:
    frets = OPEN_SHAPES[name]
    sounding = [
        STANDARD.open_pitch(len(frets) - at) + int(fret) for at, fret in enumerate(frets) if fret != "x"
    ]
    # The open C7 leaves out its fifth; music21 names no chord without it.
    sounding += [STANDARD.open_pitch(3)] * (name == "C7")
    theirs = harmony.chordSymbolFigureFromChord(chord.Chord(sorted(sounding)))
    assert {pitch.Pitch(midi).pitchClass for midi in sounding} == {
        each.pitchClass for each in harmony.ChordSymbol(theirs).pitches
    }, theirs
    weights = {midi % 12: 1.0 for midi in sounding}
    assert chord_name((weights, min(sounding))) == name
