"""What is kept: of a bass only where there is one."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.easier import kept
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.score import TUNINGS, Event, Part, Picking, Song
from clear_steps.core.score.tuning import bass_from
from tests.songs import line


def plucked(song: Song) -> Song:
    return replace(song, parts=(replace(song.parts[0], picking=Picking.FINGERS),))


def without_thick_strings(part: Part) -> Part:
    def thinner(event: Event) -> Event:
        return replace(event, notes=tuple(note for note in event.notes if note.string < bass_from(6)))

    return replace(
        part, bars=tuple(replace(bar, events=tuple(map(thinner, bar.events))) for bar in part.bars)
    )


def test_a_line_that_passes_over_the_thick_strings_has_no_bass() -> None:
    melody = line("2.1", "3.2", "4.2", "3.0", "2.1", "1.0", "2.3", "2.1")
    without = line("2.1", "3.2", "r", "3.0", "2.1", "1.0", "2.3", "2.1")
    found = kept(melody.parts[0], without.parts[0])
    assert (found.has_bass, found.bass) == (False, 100.0)
    assert found.tune < found.overall + 10 < 100


@pytest.mark.parametrize(
    ("song", "why"),
    [
        (line("5.3+1.0", "2.1", "4.2+1.3", "2.1"), "struck with others"),
        (line("5.3", "1.0", "2.1", "1.0", "5.0", "1.0", "2.1", "1.0"), "rung on under others"),
        (plucked(line("5.3", "4.2", "3.0", "4.2")), "plucked by the fingers"),
    ],
)
def test_a_bass_is_a_voice_of_its_own(song: Song, why: str) -> None:
    part = song.parts[0]
    assert kept(part, part).has_bass, why
    assert kept(part, without_thick_strings(part)).bass == 0


def test_a_version_that_sits_lower_has_lost_no_phrase_end_by_it() -> None:
    song = line("2.5", "2.3", "3.5", "3.2", "4.5", "4.2", "5.5", "5.3", length=Fraction(1, 2))
    original = song.parts[0]
    lower = replace(original, tuning=TUNINGS["half step down"])
    assert KeptSoFar(original, half_tones=-1).of(lower).overall == 100
    assert KeptSoFar(original).of(lower).overall < 100
