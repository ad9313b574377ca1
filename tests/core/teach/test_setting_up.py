"""From any tuning to any other: every string ends where it should, compared with what is in tune."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import STANDARD, TUNINGS, Tuning
from clear_steps.core.teach.setting_up import (
    Compare,
    Turn,
    fewest_changes,
    sounds_apart,
    turns,
    written_setting,
)
from clear_steps.core.teach.words import Language, Names, cents_words, setting_words, tuning_words

SIX = [tuning for tuning in TUNINGS.values() if tuning.strings == 6]


def sounds_as_said(turn: Turn, new: Tuning) -> bool:
    """Whether what the string is compared with is true of the new tuning."""
    other = new.open_pitch(turn.other) if turn.other else 0
    return {
        Compare.UNISON: turn.pitch == other,
        Compare.OCTAVE_BELOW: turn.pitch == other - 12,
        Compare.OCTAVE_ABOVE: turn.pitch == other + 12,
        Compare.PRESSED: turn.pitch == other + turn.fret,
        Compare.PRESSES: turn.pitch + turn.fret == other,
        Compare.TONE: True,
    }[turn.compare]


@given(st.sampled_from(SIX), st.sampled_from(SIX))
def test_every_string_ends_where_it_should(old: Tuning, new: Tuning) -> None:
    found = turns(old, new)
    pitches = list(old.pitches)
    ready = {string for string in range(1, 7) if old.open_pitch(string) == new.open_pitch(string)}
    for turn in found:
        assert turn.compare is Compare.TONE or turn.other in ready
        assert sounds_as_said(turn, new)
        pitches[turn.string - 1] += turn.by
        ready.add(turn.string)
    assert tuple(pitches) == new.pitches


def test_drop_d_is_an_octave_below_the_fourth_string() -> None:
    drop_d = TUNINGS["drop D"]
    assert tuning_words(drop_d, turns(STANDARD, drop_d)) == (
        "6th string down two half tones to D, until its touched 12th fret sounds as the open 4th string.",
    )
    assert tuning_words(drop_d, turns(STANDARD, drop_d), Language.SPANISH, Names.SOLFEGE) == (
        "6.ª cuerda: baja dos semitonos a re,"
        " hasta que su armónico del traste 12 suene como la 4.ª cuerda al aire.",
    )


def test_a_string_that_is_drawn_tighter_is_warned_of() -> None:
    rows = tuning_words(TUNINGS["open E"], turns(STANDARD, TUNINGS["open E"]))
    assert any("slowly: it may break" in row for row in rows)
    assert tuning_words(STANDARD, turns(STANDARD, STANDARD)) == ()


def test_another_instrument_is_refused() -> None:
    with pytest.raises(InvalidValueError, match="as many as there are"):
        turns(STANDARD, TUNINGS["bass"])


@given(st.sampled_from(SIX), st.sampled_from(SIX), st.integers(0, 12))
def test_fewer_changes_sound_the_same_and_are_fewer(old: Tuning, tuning: Tuning, capo: int) -> None:
    written, fewer = written_setting(old, tuning, capo), fewest_changes(old, tuning, capo)
    if fewer is None:
        return
    sounding = [pitch + capo for pitch in tuning.pitches]
    assert [pitch + fewer.capo for pitch in fewer.tuning.pitches] == sounding
    assert fewer.effort[:2] < written.effort[:2]
    assert not any(turn.tight for turn in fewer.turns)  # nothing is proposed that may break a string


def test_a_guitar_tuned_down_with_a_capo_stays_as_it_is() -> None:
    """Half a step down with the capo at 1 sounds as no capo in the usual tuning."""
    down = TUNINGS["half step down"]
    found = fewest_changes(STANDARD, down, 1)
    assert found is not None
    assert (found.tuning, found.capo, found.turns) == (STANDARD, 0, ())
    assert fewest_changes(STANDARD, down, 0) is None  # nothing but turning gets there
    assert (sounds_apart(STANDARD, down, 0), sounds_apart(STANDARD, down, 1)) == (-1, 0)
    assert sounds_apart(STANDARD, TUNINGS["drop D"], 0) is None


def test_the_capo_serves_a_guitar_that_is_tuned_lower() -> None:
    """Common practice, no source: a guitar a whole step down plays along with a capo at the 2nd fret."""
    low = TUNINGS["whole step down"]
    found = fewest_changes(low, STANDARD, 0)
    assert found is not None
    assert (found.capo, found.turns) == (2, ())
    words = setting_words(low, found)
    assert (words.turns, words.capo) == ((), "Capo at the 2nd fret: frets count from there.")
    assert words.sounds == "It sounds two half tones higher than your guitar does now."
    spanish = setting_words(low, found, Language.SPANISH)
    assert (spanish.capo, spanish.sounds) == (
        "Cejilla en el traste 2: los trastes se cuentan desde ella.",
        "Suena dos semitonos más agudo que tu guitarra tal como está.",
    )


def test_a_recording_between_two_half_tones_is_told() -> None:
    assert cents_words(0) == ""
    assert cents_words(-20) == "The recording is 20 cents lower: tune every string to the tones."
    assert cents_words(15, Language.SPANISH) == (
        "La grabación está 15 cents más alta: afina cada cuerda con los tonos."
    )


def test_open_strings_are_spelled_with_flats_or_with_sharps_never_both() -> None:
    """Common practice, no source: Eb Ab Db Gb Bb Eb, and E B E G# B E."""
    assert TUNINGS["half step down"].letters == ("Eb", "Bb", "Gb", "Db", "Ab", "Eb")
    assert TUNINGS["open E"].letters == ("E", "B", "G#", "E", "B", "E")
    assert TUNINGS["open D"].letters == ("D", "A", "F#", "D", "A", "D")
    assert not any({"#", "b"} <= set("".join(tuning.letters)) for tuning in TUNINGS.values())
    down = TUNINGS["half step down"]
    assert any("to Gb, until" in row for row in tuning_words(down, turns(STANDARD, down)))
