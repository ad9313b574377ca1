"""Fingers that are taught for a shape, and those of a place of the hand, on the path."""

from dataclasses import replace
from itertools import pairwise

import pytest

from clear_steps.core.grade import alternatives, grade_part
from clear_steps.core.hand import keeps_taught, shared_tables
from clear_steps.core.score import Song
from clear_steps.core.score.tuning import parse_tuning
from clear_steps.core.shapes import around_bars, shapes_in, taught_in
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()


def fingers(song: Song) -> list[str]:
    """Of every grip, from the thickest string."""
    part = song.parts[0]
    grips = grade_part(song, part, LADDER).grips
    return [
        "".join(
            grip.finger_on(note.string) or ""
            for note in reversed(part.bars[bar].events[event].notes)
            if note.fret
        )
        for (bar, event), grip in sorted(grips.items())
    ]


def named(song: Song, chord: str) -> Song:
    """The first event under a chord's name."""
    part = song.parts[0]
    first = part.bars[0]
    events = (replace(first.events[0], chord=chord), *first.events[1:])
    return replace(song, parts=(replace(part, bars=(replace(first, events=events), *part.bars[1:])),))


def test_root_and_fifth_are_first_and_third_finger_wherever_they_go() -> None:
    riff = line(
        "6.3+5.5", "6.5+5.7", "6.0", "6.6+5.8", "5.7+4.9", "6.3+5.5", "6.1+5.3", "6.8+5.10", tempo=160
    )
    assert fingers(riff) == ["13"] * 7


def test_in_a_dropped_tuning_one_finger_lies_over_the_fret() -> None:
    song = line("6.3+5.3+4.3", "6.5+5.5+4.5", "6.0", "6.7+5.7+4.7")
    dropped = replace(song.parts[0], tuning=parse_tuning("drop D"))
    told = fingers(replace(song, parts=(dropped,)))
    assert all(len(set(own)) == 1 for own in told)


def test_a_picked_chord_has_the_fingers_of_the_whole_chord() -> None:
    picked = named(line("6.3", "3.0", "2.0", "1.3", "5.2", "3.0", "2.0", "1.3"), "G")
    told = [own for own in fingers(picked) if own]
    assert told in (["2", "3", "1", "3"], ["3", "4", "2", "4"])


def test_sixths_that_move_keep_the_finger_on_the_lower_string() -> None:
    moved = fingers(line("4.5+2.5", "4.7+2.7", "4.9+2.8", "4.10+2.10", "4.9+2.8", "4.7+2.7"))
    assert set(moved) <= {"23", "12", "21", "32"}


def test_a_line_in_a_box_takes_a_finger_a_fret_also_before_an_open_string() -> None:
    assert fingers(line("3.7", "3.5", "4.7", "4.5", "3.5", "3.7", "5.0", "4.7")) == [*"3131133"]


def test_a_bass_alone_has_the_grip_of_the_strum_after_it() -> None:
    """In slow music the finger of the bass went on to the strum."""
    song = read_tab("""Tempo: 112

chd|C       |G    |
len|q q q q |q h. |
  e|--0-----|--3--|
  B|--1-----|--0--|
  G|--0-----|--0--|
  D|--2-----|--0--|
  A|3---2-0-|-----|
  E|--------|3----|
""").song
    assert fingers(song)[-2:] == ["2", "3"]


def test_the_bars_around_one_may_show_the_place() -> None:
    part = line(*["2.4", "2.5", "2.7", "2.5"] * 2, *["2.5", "2.7", "1.5", "1.7"] * 2).parts[0]
    second = list(around_bars(part.bars))[1]
    taught = taught_in(shapes_in(part.bars[1], part.tuning), part.tuning, second)
    assert taught[0].schools[0] == {2: "2"}


@pytest.mark.parametrize(
    "frets",
    [
        ("2.5", "3.7", "2.6", "3.5", "2.8", "3.6", "2.5", "3.8"),
        ("4.3", "3.2", "4.5", "3.4", "4.2", "3.5", "4.4", "3.3"),
    ],
)
def test_no_higher_finger_goes_to_a_lower_fret_of_the_next_string(frets: tuple[str, ...]) -> None:
    told = list(zip(fingers(line(*frets)), (int(fret[2:]) for fret in frets), strict=True))
    for (finger, fret), (then, other) in pairwise(told):
        assert finger == then or (then > finger) == (other > fret)


def test_no_finger_creeps_to_the_fret_beside_it() -> None:
    told = fingers(line("4.5", "3.2", "3.4", "3.5", "3.4", "3.7", "2.5", "2.6"))
    assert told[2] != told[3]


def test_no_finger_creeps_within_a_grip_that_stays() -> None:
    """The first strings ring: the melody went from the 3rd fret to the 2nd by one finger."""
    song = read_tab("""Tempo: 72
Tuning: drop D

len|q   e  e  e  e  e  e  |
how|lr-------------------  |
  E|5----------3-----2--0--|
  B|--------2-----2--------|
  G|-----2-----------------|
  D|-----------------------|
  A|-----------------------|
  D|0----------------------|
""").song
    part = song.parts[0]
    grips = grade_part(song, part, LADDER).grips
    melody = [grips[0, event].finger_on(1) for event in (3, 5)]
    assert melody[0] != melody[1]


def test_other_ways_keep_taught_shapes() -> None:
    song = line(*["6.1+5.3+4.3+3.2+2.1+1.1"] * 4, *["5.3+4.2+3.0+2.1+1.0"] * 4)
    part = song.parts[0]
    for way in alternatives(song, part, 0, 0, LADDER):
        grading = grade_part(song, way.part, LADDER)
        rows = zip(grading.fingered.bars[0].demands, grading.fingered.hands[grading.hand][0], strict=True)
        if not way.title.startswith("Elsewhere"):
            assert all(keeps_taught(demand.shape, grip) for demand, grip in rows)


def test_a_way_without_the_little_finger_is_offered() -> None:
    song = line("2.5", "2.8", "3.5", "3.7", "2.8", "2.5", "3.7", "3.5")
    titles = {way.title: way.part for way in alternatives(song, song.parts[0], 0, 0, LADDER)}
    part = titles["Without the little finger"]
    assert all(note.finger != "4" for event in part.bars[0].events for note in event.notes)


def test_a_whole_grip_is_told_where_it_differs() -> None:
    song = line(*["4.2+3.2"] * 8)
    titles = [way.title for way in alternatives(song, song.parts[0], 0, 0, LADDER)]
    assert any(" instead of " in title and "-" in title for title in titles)


def test_what_was_fingered_before_makes_no_difference() -> None:
    """Found by the table of laws: moves were remembered for far strings and used for neighbouring ones."""
    far, near = line("1.5", "4.6", "1.5", "4.6"), line("2.5", "3.6", "2.5", "3.6")
    shared_tables.cache_clear()
    alone = fingers(near)
    shared_tables.cache_clear()
    fingers(far)
    assert fingers(near) == alone
