"""Edits made before the search: short bars filled when asked, wide bends off an acoustic guitar."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from clear_steps.core.easier import (
    KINDS,
    Change,
    Easier,
    Edit,
    SetupWish,
    Wish,
    compared,
    staircase,
    version_of,
)
from clear_steps.core.easier.edit import Setup
from clear_steps.core.easier.given import FILL, short_bars, usual_metre
from clear_steps.core.easier.kept import KeptSoFar
from clear_steps.core.easier.kinds.rhythm import beats_alone
from clear_steps.core.easier.proposals import Proposals
from clear_steps.core.easier.writing import Writing
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


@settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
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


def test_bars_that_recur_but_were_placed_apart_by_a_retuning_are_left_apart() -> None:
    """The bars of a recurring pair stand on different strings once the music is moved, so that the edits of
    one do not fit the other."""
    again = tuple(Event(Fraction(1, 2), (Note(1, fret),)) for fret in (5, 7, 8, 7, 5, 7, 8, 10))
    part = Part(bars=(Bar(FOUR, again), Bar(FOUR, again)))
    song = Song(tempo=Fraction(170), parts=(part,))
    second, third = (
        tuple(Event(event.quarters, (Note(string, event.notes[0].fret + up),)) for event in again)
        for string, up in ((2, 5), (3, 9))
    )
    setup = Edit(
        1,
        "capo",
        (Change(0, Fraction(0), again, second), Change(1, Fraction(0), again, third)),
        "",
        "",
        0.0,
        setup=Setup(part.tuning, 0, 0),
    )
    scores = KeptSoFar(part)
    writing = Writing(part, [setup], scores)
    proposals = Proposals(part, KINDS, scores)
    writing.version = proposals.known(writing.version)
    writing.take("rhythm", beats_alone(writing.version, 0), "why", lambda _: "bar 1: less")
    assert writing.like(0, {1: 0}, proposals) is None
    plain = Writing(song.parts[0], (), scores)
    plain.take("rhythm", beats_alone(part, 0), "why", lambda _: "bar 1: less")
    alike = plain.like(0, {1: 0}, proposals)
    assert alike is not None
    assert alike[1].bars[0] == alike[1].bars[1]
