"""From any tuning to any other: every string ends where it should, compared with what is in tune."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import STANDARD, TUNINGS, Tuning
from clear_steps.core.teach.setting_up import Compare, Turn, turns
from clear_steps.core.teach.words import Language, Names, tuning_words

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
    assert tuning_words(STANDARD, drop_d) == (
        "6th string down two half tones to D, until it is an octave below the open 4th string.",
    )
    assert tuning_words(STANDARD, drop_d, Language.SPANISH, Names.SOLFEGE) == (
        "6.ª cuerda: baja dos semitonos a re,"
        " hasta que quede una octava por debajo de la 4.ª cuerda al aire.",
    )


def test_a_string_that_is_drawn_tighter_is_warned_of() -> None:
    rows = tuning_words(STANDARD, TUNINGS["open E"])
    assert any("slowly: it may break" in row for row in rows)
    assert tuning_words(STANDARD, STANDARD) == ()


def test_another_instrument_is_refused() -> None:
    with pytest.raises(InvalidValueError, match="as many as there are"):
        turns(STANDARD, TUNINGS["bass"])
