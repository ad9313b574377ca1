"""Pitches are spelled by the key; scales checked against music21 (its `key.Key`)."""

import pytest
from music21 import key

from clear_steps.core.score import sharps_of, spelled_name
from clear_steps.formats.tabtext import read_tab

MAJOR = (0, 2, 4, 5, 7, 9, 11)


@pytest.mark.parametrize("sharps", range(-6, 7))
def test_every_major_scale_is_spelled_as_its_key_is(sharps: int) -> None:
    scale = key.KeySignature(sharps).asKey("major")
    wanted = {pitch.name.replace("-", "b") for pitch in scale.getPitches("C4", "B4")}
    tonic = 60 + sharps * 7 % 12
    assert {spelled_name(tonic + step, sharps)[:-1] for step in MAJOR} == wanted


@pytest.mark.parametrize("sharps", range(-6, 5))  # beyond, it would be a double sharp
def test_the_leading_note_of_the_minor_key_is_no_flat(sharps: int) -> None:
    minor = key.KeySignature(sharps).asKey("minor")
    leading = minor.tonic.transpose(-1)
    name = spelled_name(60 + leading.pitchClass, sharps)[:-1]
    assert name == minor.getLeadingTone().name.replace("-", "b")


def test_octaves_turn_at_c() -> None:
    assert [spelled_name(midi, -6) for midi in (59, 60, 61)] == ["Cb4", "C4", "Db4"]
    assert [spelled_name(midi, 4) for midi in (59, 60, 61)] == ["B3", "B#3", "C#4"]


def riff(frets: str, chord: str = "") -> int:
    above = f"chd|{chord}\n" if chord else ""
    lines = "".join(f"{n}|{frets if n == 'B' else '-' * len(frets)}|\n" for n in "eBGDAE")
    return sharps_of(read_tab(f"Time: 4/4\nTuning: standard\n\n{above}{lines}").song.parts[0])


def test_the_key_is_the_one_that_needs_fewest_signs() -> None:
    assert riff("-1-3-5-6-8-10-12-13-") == 0  # C D E F G A B C
    assert riff("-2-4-6-7-9-11-13-14-") == -5  # Db Eb F Gb Ab Bb C Db
    assert riff("-5-7-9-10-12-14-16-17-") == 4  # E F# G# A B C# D# E


def test_chord_names_decide_between_sharps_and_flats() -> None:
    six = "-7-9-11-12-14-16-18-19-"  # F# or Gb major
    assert riff(six, "Gb") == -6
    assert riff(six, "F#") == 6
