"""Layers: one line, chords to strum, two of them together, two guitars on one."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.easier import LAYERS, Wish, staircase
from clear_steps.core.easier.chordbook import ChordBook, shapes_sound_above
from clear_steps.core.easier.edit import applied
from clear_steps.core.easier.layers import carries_the_tune, chord_name, heard_between
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import TUNINGS, Event, Part, Song, Stroke, Technique
from clear_steps.core.score.chords import parse_chord
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import line, playable_songs


def layered(song: Song, layer: str, part: int = 0) -> Part:
    shapes = default_ladder().chord_shapes
    made = applied(song.parts[part], LAYERS[layer].changes(song, song.parts[part], shapes))
    assert made is not None
    return made


def struck(part: Part) -> list[tuple[Fraction, set[tuple[int, int]]]]:
    return [
        (onset, {(note.string, note.fret) for note in event.notes})
        for _, onset, event in part.events()
        if event.notes
    ]


def test_the_melody_layer_keeps_the_top_voice_and_leaves_the_bass_out() -> None:
    song = line("5.3+1.0", "2.1", "4.2+1.3", "2.3", length=Fraction(1))
    notes = [note for _, _, event in layered(song, "melody").events() for note in event.notes]
    assert [(note.string, note.fret) for note in notes] == [(1, 0), (2, 1), (1, 3), (2, 3)]


def test_a_single_line_that_crosses_to_low_strings_is_all_melody() -> None:
    song = line("2.5", "2.3", "3.5", "3.2", "4.5", "4.2", "5.5", "5.3", length=Fraction(1, 2))
    assert layered(song, "melody").bars == song.parts[0].bars


def test_the_bass_layer_lasts_to_its_next_note() -> None:
    song = line("5.3+1.0", "2.1", "6.3", "2.3", length=Fraction(1))
    events = layered(song, "bass").bars[0].events
    assert [(event.quarters, [note.string for note in event.notes]) for event in events] == [
        (2, [5]),
        (2, [6]),
    ]


def test_chords_to_strum_are_named_from_all_parts_and_stroked_on_the_beats() -> None:
    song = line("3.0+2.1+1.0", "3.0+2.1+1.0", "3.2+2.1+1.0", "3.2+2.1+1.0", length=Fraction(1))
    low = line("5.3", "5.3", "5.0", "5.0", length=Fraction(1)).parts[0]
    version = layered(replace(song, parts=(song.parts[0], low)), "strum")
    events = version.bars[0].events
    assert [event.chord for event in events] == ["C", "", "Am", ""]
    assert {event.stroke for event in events} == {Stroke.DOWN}
    assert version.bars[0].quarters == 4


def frets(part: Part, event: Event) -> str:
    held = {note.string: note.fret for note in event.notes}
    return "".join(str(held.get(string, "x")) for string in range(part.tuning.strings, 0, -1))


@pytest.mark.parametrize(
    ("written", "shape"),
    [
        ("Am", "x02210"),
        ("G7", "320001"),
        ("D/F#", "2x0232"),
        ("Cmaj7", "x32000"),
        ("Dsus4", "xx0233"),
        ("F#m", "xx4222"),
        ("Ab", "xx6544"),
        ("Bdim", "xx343x"),  # a small one: nothing is written down for it
        ("Caug", "xxx110"),
    ],
)
def test_a_written_chord_keeps_its_name_and_has_a_shape(written: str, shape: str) -> None:
    song = line("6.3+3.0", "1.3", "6.3", "1.3", length=Fraction(1))
    first, *others = song.parts[0].bars[0].events
    part = replace(
        song.parts[0], bars=(replace(song.parts[0].bars[0], events=(replace(first, chord=written), *others)),)
    )
    made = layered(replace(song, parts=(part,)), "strum")
    assert [event.chord for event in made.bars[0].events] == [written, "", "", ""]
    assert {frets(made, event) for event in made.bars[0].events} == {shape}


def test_shapes_leave_a_string_out_that_is_tuned_otherwise() -> None:
    song = line("6.2+5.2+4.2+3.1", length=Fraction(4))
    dropped = replace(song.parts[0], tuning=TUNINGS["drop D"])
    events = layered(replace(song, parts=(dropped,)), "strum").bars[0].events
    assert events[0].chord == "E"
    assert all(note.string < 6 for event in events for note in event.notes)


def test_chords_are_strummed_in_any_tuning_of_a_guitar_but_not_on_a_bass() -> None:
    song = line("3.2+2.2+1.2", length=Fraction(4))
    opened = replace(song.parts[0], tuning=TUNINGS["open G"])
    made = layered(replace(song, parts=(opened,)), "strum")
    assert made.bars[0].events[0].chord == "A"
    assert {opened.pitch_of(note) % 12 for note in made.bars[0].events[0].notes} == {9, 1, 4}
    low = replace(song.parts[0], tuning=TUNINGS["bass"])
    with pytest.raises(InvalidValueError, match="guitar"):
        LAYERS["strum"].changes(replace(song, parts=(low,)), low, ())


QUALITIES = ("", "m", "7", "m7", "maj7", "dim", "aug", "sus4", "add9", "m7b5", "9", "13", "7#9", "5")


@given(
    st.sampled_from(["C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"]),
    st.sampled_from(QUALITIES),
    st.sampled_from([name for name, tuning in TUNINGS.items() if tuning.strings >= 6]),
)
def test_every_chord_has_a_small_shape_in_every_tuning(root: str, quality: str, tuning: str) -> None:
    chord = parse_chord(root + quality)
    assert chord
    part = Part(TUNINGS[tuning])
    shape = ChordBook(part.tuning, ()).small(chord)
    assert shape
    held = dict(shape.by_string)
    above = shapes_sound_above(part)
    sounding = {(part.tuning.open_pitch(string) + fret - above) % 12 for string, fret in held.items()}
    assert sounding <= chord.classes
    assert len(sounding) >= min(len(chord.classes), 3)
    pressed = [fret for fret in held.values() if fret]
    assert max(pressed, default=0) - min(pressed, default=0) <= 2


def test_a_half_bar_without_a_bass_of_its_own_goes_on_with_the_chord() -> None:
    """The upper strings alone would be C: it is still Am7."""
    song = line("5.0", "3.0+2.1+1.0", "3.0+2.1+1.0", "3.0+2.1+1.0", length=Fraction(1))
    made = layered(song, "strum")
    assert [event.chord for event in made.bars[0].events] == ["Am7", "", "", ""]


def test_on_a_lowered_guitar_a_shape_is_named_as_it_is_held() -> None:
    song = line("6.3+5.2+4.0+3.0+2.0+1.3", length=Fraction(4))
    lowered = replace(song.parts[0], tuning=TUNINGS["half step down"])
    assert layered(replace(song, parts=(lowered,)), "strum").bars[0].events[0].chord == "G"


def test_a_chord_is_named_by_what_sounds_longest_over_its_bass() -> None:
    song = line("6.3+3.0+2.0+1.3", length=Fraction(4))
    heard = heard_between(song, 0, Fraction(0), Fraction(4))
    assert heard
    assert chord_name(heard) == "G"


def test_melody_and_bass_leave_the_inner_voices_out() -> None:
    song = line("5.3+3.0+1.0", "2.1", "5.2+3.0+1.3", "2.3", length=Fraction(1))
    assert struck(layered(song, "melody+bass")) == [
        (0, {(5, 3), (1, 0)}),
        (1, {(2, 1)}),
        (2, {(5, 2), (1, 3)}),
        (3, {(2, 3)}),
    ]


def test_under_a_melody_only_what_one_hand_holds_of_the_chord_is_struck() -> None:
    song = line("5.3+1.0", "1.0", "5.3+1.8", "1.8", length=Fraction(1))
    first, _, third, _ = struck(layered(song, "melody+strum"))
    assert {(1, 0), (2, 1), (5, 3)} <= first[1]
    assert (1, 8) in third[1]
    assert all(fret in (0, 8) for _, fret in third[1])


def test_over_a_bass_the_chord_comes_on_the_beats_between() -> None:
    song = line("5.3+3.0", "3.0+2.1", "6.3+3.0", "3.0+2.1", length=Fraction(1))
    events = layered(song, "bass+strum").bars[0].events
    chords = [min(6, *(note.string for note in event.notes)) <= 2 for event in events]
    assert chords == [False, True, False, True]
    assert [note.string for note in events[2].notes] == [6]
    assert next({note.string for note in event.notes} & {5, 6} for event in events) == {5}
    assert events[1].stroke is Stroke.DOWN


def two_guitars() -> Song:
    lead = line("1.0", "1.3", "2.1", "2.3", length=Fraction(1))
    low = line("6.3", "6.3", "5.3", "5.3", length=Fraction(1)).parts[0]
    return replace(lead, parts=(replace(lead.parts[0], name="lead"), replace(low, name="low")))


def test_two_guitars_become_one_part_with_the_roots_under_the_tune() -> None:
    song = two_guitars()
    assert carries_the_tune(song).name == "lead"
    made = struck(layered(song, "one guitar"))
    assert [{string for string, _ in spots} for _, spots in made] == [{1, 6}, {1, 6}, {2, 5}, {2, 5}]
    with pytest.raises(InvalidValueError, match="two or more"):
        LAYERS["one guitar"].changes(replace(song, parts=song.parts[:1]), song.parts[0], ())


def test_the_low_guitar_takes_the_tune_where_its_hand_holds_both() -> None:
    made = struck(layered(two_guitars(), "one guitar", part=1))
    assert [{string for string, _ in spots} for _, spots in made] == [{1, 6}, {1, 6}, {2, 5}, {2, 5}]


def test_a_guitars_own_chords_and_bends_stay_and_its_rests_are_filled() -> None:
    lead = read_tab(TWO_PARTS).song
    made = layered(lead, "one guitar")
    first, *rest = struck(made)
    assert first[1] == {(2, 5), (1, 5), (5, 0)}  # its double stop, and the root of the other
    assert next(note for event in made.bars[0].events for note in event.notes if note.bend)
    assert [spots for _, spots in rest][-2:] == [{(5, 0), (4, 2)}, {(5, 2), (4, 4)}]  # where it is silent


def test_only_chosen_parts_are_taken_from() -> None:
    song = read_tab(TWO_PARTS).song
    third = replace(line("6.3", "6.3", length=Fraction(2)).parts[0], name="third")
    song = replace(song, parts=(*song.parts, replace(third, bars=third.bars[:1])))
    wish = Wish((10.0,), layer="one guitar", with_parts=frozenset({2}))
    found = staircase(song, song.parts[0], default_ladder(), wish)[0]
    assert not any(note.string in (4, 5) for _, _, event in found.version.events() for note in event.notes)


def test_a_root_out_of_reach_is_left_out_in_no_other_octave() -> None:
    song = two_guitars()
    high = line("1.12", "1.12", "1.12", "1.12", length=Fraction(1)).parts[0]
    song = replace(song, parts=(replace(high, name="lead"), song.parts[1]))
    pitches = {song.parts[1].pitch_of(note) for _, _, event in song.parts[1].events() for note in event.notes}
    made = layered(song, "one guitar", part=0)
    for _, _, event in made.events():
        frets_held = [note.fret for note in event.notes if note.fret]
        assert max(frets_held) - min(frets_held) <= 3
        assert {made.pitch_of(note) for note in event.notes} <= pitches | {76}


TWO_PARTS = """Time: 4/4

Part: lead

len|q   q   Rh      |
  E|5---------------|
  B|5---8b----------|
  G|----------------|
  D|----------------|
  A|----------------|
  E|----------------|

Part: low

len|q   q   q   q   |
  E|----------------|
  B|----------------|
  G|----------------|
  D|2---2---2---4---|
  A|0---0---0---2---|
  E|----------------|
"""


@settings(max_examples=25)
@given(playable_songs(most_bars=3))
def test_every_layer_fills_its_bars_and_stays_on_the_instrument(song: Song) -> None:
    part = song.parts[0]
    for name in set(LAYERS) - {"one guitar"}:
        made = layered(song, name)
        for before, after in zip(part.bars, made.bars, strict=True):
            assert sum(event.quarters for event in after.events) == before.quarters
            for event in after.events:
                strings = [note.string for note in event.notes]
                assert len(set(strings)) == len(strings)
                assert all(1 <= string <= part.tuning.strings for string in strings)
                assert all(note.fret <= part.highest_fret for note in event.notes)


def test_strings_stop_ringing_where_what_stopped_them_is_left_out() -> None:
    """The 4th string's open note ends the shape; without it the fingers would be held against the 12th
    fret."""
    tab = """Time: 4/4

how|lr--------------|
len|q   q   q   q   |
  E|--------12------|
  B|3---------------|
  G|----------------|
  D|----------------|
  A|2---0-------0---|
  E|----------------|
"""
    song = read_tab(tab).song
    found = staircase(song, song.parts[0], default_ladder(), Wish((10.0,), layer="melody"))[0]
    assert found.after.step <= found.before.step
    assert any(Technique.LET_RING in event.techniques for _, _, event in song.parts[0].events())
