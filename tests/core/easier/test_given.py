"""Edits made before the search: short bars filled when asked, wide bends off an acoustic guitar."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.easier import (
    Easier,
    SetupWish,
    Wish,
    compared,
    staircase,
    version_of,
)
from clear_steps.core.easier.given import FILL, short_bars, usual_metre
from clear_steps.core.grade import GradeRequest
from clear_steps.core.score import Bar, Bend, Event, Instrument, Metre, Note, Part, Song
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()
SEVEN, FOUR = Metre(7, 8), Metre(4, 4)


def turning_song() -> Song:
    """Three bars of 4/4 with one of 7/8 among them."""
    quarter = tuple(Event(Fraction(1), (Note(1, fret),)) for fret in (0, 1, 3, 0))
    short = (*quarter[:3], Event(Fraction(1, 2), (Note(1, 0),)))
    bars = (Bar(FOUR, quarter), Bar(SEVEN, short), Bar(FOUR, quarter), Bar(FOUR, quarter))
    return Song(tempo=Fraction(90), parts=(Part(bars=bars),))


def test_a_short_bar_is_filled_only_when_asked() -> None:
    song = turning_song()
    part = song.parts[0]
    assert usual_metre(part) == FOUR
    assert short_bars(part) == (1,)
    assert not any(edit.kind == FILL for edit in staircase(song, part, LADDER, Wish((1.0,)))[0].edits)
    found = staircase(song, part, LADDER, Wish((10.0,), fill_short_bars=True))[0]
    assert [edit.kind for edit in found.edits] == [FILL]
    filled = found.version.bars[1]
    assert filled.metre == FOUR
    assert filled.quarters == FOUR.quarters
    assert filled.events[-1].notes[0].tied
    assert "no longer fits the recording" in found.edits[0].effect
    assert found.after.step <= found.before.step


@settings(max_examples=40)
@given(st.floats(1.0, 3.0), st.data())
def test_bars_add_up_whatever_is_refused_of_a_filled_version(target: float, data: st.DataObject) -> None:
    song = turning_song()
    part = song.parts[0]
    edits = staircase(song, part, LADDER, Wish((target,), fill_short_bars=True))[0].edits
    refused = data.draw(st.lists(st.sampled_from([edit.id for edit in edits]), unique=True))
    version = version_of(part, edits, refused)
    for bar in version.bars:
        assert bar.quarters == bar.metre.quarters
    assert version_of(part, edits, [edit.id for edit in edits]).bars == part.bars
    assert compared(song, part, LADDER, edits, refused, GradeRequest()).version == version


def test_a_rest_at_the_end_of_a_short_bar_grows() -> None:
    song = turning_song()
    bars = list(song.parts[0].bars)
    bars[1] = replace(bars[1], events=(*bars[1].events[:-1], Event(Fraction(1, 2))))
    song = replace(song, parts=(replace(song.parts[0], bars=tuple(bars)),))
    found = staircase(song, song.parts[0], LADDER, Wish((10.0,), fill_short_bars=True))[0]
    assert found.version.bars[1].events[-1] == Event(Fraction(1))


def test_an_acoustic_guitar_has_no_wide_bends_whatever_the_step() -> None:
    song = line("2.5", "2.5", length=Fraction(2))
    bent = Event(Fraction(2), (Note(2, 5, bend=Bend(Fraction(2))),))
    slight = Event(Fraction(2), (Note(2, 5, bend=Bend(Fraction(1))),))
    part = replace(song.parts[0], instrument=Instrument.ACOUSTIC, bars=(Bar(FOUR, (bent, slight)),))
    song = replace(song, parts=(part,))
    version = staircase(song, part, LADDER, Wish((10.0,)))[0].version
    assert [
        note.bend.half_tones for _, _, event in version.events() for note in event.notes if note.bend
    ] == [1]
    electric = replace(part, instrument=Instrument.ELECTRIC)
    assert staircase(replace(song, parts=(electric,)), electric, LADDER, Wish((10.0,)))[0].edits == ()


DEMO = [read_tab(text).song for text in demo_texts()]


def whole(found: Easier, part: Part) -> None:
    """The version is what its edits make, bar for bar at its length, and all refused is the original."""
    assert version_of(part, found.edits).bars == found.version.bars
    for bar, own in zip(found.version.bars, part.bars, strict=True):
        assert sum(event.quarters for event in bar.events) == (
            own.quarters if bar.metre == own.metre else bar.metre.quarters
        )
    assert version_of(part, found.edits, [edit.id for edit in found.edits]) == part


@pytest.mark.parametrize("layer", ["melody", "bass", "strum", "melody+strum"])
def test_a_layer_is_made_of_what_is_given_first(layer: str) -> None:
    short, bends, capo = DEMO[5], DEMO[4], DEMO[3]
    acoustic = replace(bends.parts[0], instrument=Instrument.ACOUSTIC)
    for song, wish in (
        (short, Wish((10.0,), layer=layer, fill_short_bars=True)),
        (replace(bends, parts=(acoustic,)), Wish((10.0,), layer=layer)),
        (capo, Wish((10.0,), layer=layer, setup=SetupWish.CAPO_MUSIC)),
    ):
        found = staircase(song, song.parts[0], LADDER, wish)[0]
        whole(found, song.parts[0])
        assert any(edit.kind in (FILL, "capo", "bend-slide", "bend-fret") for edit in found.edits)
