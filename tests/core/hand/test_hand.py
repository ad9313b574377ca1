"""Neck, grips and the cheapest path."""

import itertools
from dataclasses import replace
from fractions import Fraction
from itertools import pairwise, product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.hand import (
    PRESET_SPANS_MM,
    SCHOOLS,
    Grip,
    HandTables,
    Layer,
    Neck,
    PathCosts,
    School,
    Shape,
    Spot,
    best_paths,
    grip_table,
    layers_of_part,
)
from clear_steps.core.hand.demands import Links
from clear_steps.core.score import Finger, Note, Song, Technique
from clear_steps.core.score.timing import bar_times
from clear_steps.ladders import default_ladder
from tests.songs import line

NECK = Neck()


def shape(*spots: str, open_strings: tuple[int, ...] = ()) -> Shape:
    pressed = [Spot(*(int(number) for number in spot.split("."))) for spot in spots]
    return Shape(tuple(sorted(pressed, key=lambda spot: (spot.fret, -spot.string))), frozenset(open_strings))


def grips(*spots: str, open_strings: tuple[int, ...] = ()) -> tuple[Grip, ...]:
    return grip_table(shape(*spots, open_strings=open_strings), NECK, 6).grips


def costs(school: School = School.BALANCED) -> PathCosts:
    ladder = default_ladder()
    return PathCosts(ladder.curves["stretch"], ladder.curves["shift"], ladder.shapes, SCHOOLS[school])


def demands(song: Song) -> tuple[Layer, ...]:
    part = song.parts[0]
    return layers_of_part(part, bar_times(part, song.playing_tempo))


def fingering(song: Song, school: School = School.BALANCED) -> list[str]:
    path = best_paths(demands(song), HandTables(NECK, 6, [100.0], costs(school)))[0]
    return ["".join(sorted(grip.fingers)) for grip in path.grips]


def test_a_barre_cannot_cover_a_sounding_open_string() -> None:
    assert any(grip.barre_strings == 3 for grip in grips("3.2", "1.2"))
    assert not any(grip.barre_strings for grip in grips("3.2", "1.2", open_strings=(2,)))


def test_fingers_rise_with_the_fret_and_from_thick_to_thin() -> None:
    for grip in grips("5.3", "4.2", "2.1"):
        assert [spot.string for _, spot in sorted(grip.presses)] == [2, 4, 5]
    for grip in grips("4.2", "3.2"):
        if len(grip.fingers) == 2:
            assert [spot.string for _, spot in sorted(grip.presses)] == [4, 3]


def test_no_grip_is_forbidden_even_with_more_spots_than_fingers() -> None:
    found = grips("6.1", "5.2", "4.3", "3.4", "2.5", "1.6")
    assert found
    assert all(len(grip.presses) == 6 for grip in found)


def test_the_index_fixes_the_position_and_another_finger_alone_leaves_a_fret_of_freedom() -> None:
    positions = {(grip.fingers[0], grip.position) for grip in grips("2.5")}
    assert {position for finger, position in positions if finger is Finger.INDEX} == {5}
    assert {position for finger, position in positions if finger is Finger.RING} == {2, 3, 4}


@pytest.mark.parametrize(
    ("name", "frets", "fingers"),
    [
        ("C", "5.3+4.2+3.0+2.1+1.0", {5: "3", 4: "2", 2: "1"}),
        ("D", "4.0+3.2+2.3+1.2", {3: "1", 2: "3", 1: "2"}),
        ("Em", "6.0+5.2+4.2+3.0+2.0+1.0", None),
        ("F", "6.1+5.3+4.3+3.2+2.1+1.1", {6: "1", 5: "3", 4: "4", 3: "2", 2: "1", 1: "1"}),
        ("power chord", "6.3+5.5+4.5", {6: "1", 5: "3", 4: "4"}),
    ],
)
def test_usual_chords_get_their_usual_fingers(name: str, frets: str, fingers: dict[int, str] | None) -> None:
    """Common practice, no source."""
    grip = best_paths(demands(line(frets)), HandTables(NECK, 6, [100.0], costs()))[0].grips[0]
    if fingers:
        assert {spot.string: str(finger) for finger, spot in grip.presses} == fingers, name
    else:
        assert len(grip.fingers) == 2


def test_four_frets_in_a_row_take_four_fingers() -> None:
    assert fingering(line("3.5", "3.6", "3.7", "3.8")) == ["1", "2", "3", "4"]


def test_a_shape_merely_moved_keeps_its_fingers() -> None:
    assert len(set(fingering(line("6.1+5.3+4.3", "6.8+5.10+4.10", "6.3+5.5+4.5")))) == 1


def test_a_hammer_on_takes_a_higher_finger_and_a_slide_keeps_its_own() -> None:
    song = line("3.5", "3.7")
    events = song.parts[0].bars[0].events

    def arriving(technique: Technique) -> list[str]:
        second = replace(events[1], notes=(Note(3, 7, frozenset({technique})),))
        bar = replace(song.parts[0].bars[0], events=(events[0], second, *events[2:]))
        return fingering(replace(song, parts=(replace(song.parts[0], bars=(bar,)),)))

    hammered, slid = arriving(Technique.HAMMER_ON), arriving(Technique.SLIDE)
    assert hammered[0] < hammered[1]
    assert slid[0] == slid[1]


def test_a_pinned_finger_is_kept() -> None:
    song = line("3.5", "3.7")
    bar = song.parts[0].bars[0]
    pinned = replace(bar.events[0], notes=(replace(bar.events[0].notes[0], finger=Finger.LITTLE),))
    song = replace(
        song, parts=(replace(song.parts[0], bars=(replace(bar, events=(pinned, *bar.events[1:])),)),)
    )
    assert fingering(song)[0] == "4"


def test_schools_differ_where_one_may_stretch_or_move() -> None:
    wide = line("3.5", "3.9", "3.5", "3.10", "2.5", "2.9", length=Fraction(1, 2), tempo=80)
    positions: dict[School, list[int]] = {
        school: [
            grip.position
            for grip in best_paths(demands(wide), HandTables(NECK, 6, [100.0], costs(school)))[0].grips
        ]
        for school in (School.HOLD, School.MOVE)
    }
    moves = {school: sum(a != b for a, b in itertools.pairwise(own)) for school, own in positions.items()}
    assert moves[School.HOLD] < moves[School.MOVE]


@settings(max_examples=25)
@given(st.lists(st.tuples(st.integers(1, 6), st.integers(1, 15)), min_size=2, max_size=4))
def test_the_path_is_the_cheapest_of_all(spots: list[tuple[int, int]]) -> None:
    """Every sequence of grips, tried one by one from the same tables."""
    asked = demands(line(*(f"{string}.{fret}" for string, fret in spots)))
    layers = HandTables(NECK, 6, [100.0], costs())
    tables = [layers.grip_costs(demand.shape)[0] for demand in asked]
    moves = [layers.move_costs(a.shape, b.shape, b.links, b.seconds)[0] for a, b in pairwise(asked)]
    every = (
        sum(table[row] for table, row in zip(tables, rows, strict=True))
        + sum(move[a, b] for move, a, b in zip(moves, rows, rows[1:], strict=False))
        for rows in product(*(range(len(table)) for table in tables))
    )
    assert best_paths(asked, HandTables(NECK, 6, [100.0], costs()))[0].cost == pytest.approx(min(every))


def test_hands_in_one_batch_get_what_each_gets_alone() -> None:
    asked = demands(line("6.1+5.3+4.3", "3.5", "3.9", "2.12", "1.5"))
    spans = list(PRESET_SPANS_MM.values())
    together = best_paths(asked, HandTables(NECK, 6, spans, costs()))
    assert list(together) == [best_paths(asked, HandTables(NECK, 6, [span], costs()))[0] for span in spans]


def test_a_held_bass_keeps_its_finger_while_the_melody_moves() -> None:
    song = line("5.3+1.3", "1.5", "1.3", "1.3", length=Fraction(1))
    bar = song.parts[0].bars[0]
    events = tuple(replace(event, techniques=frozenset({Technique.LET_RING})) for event in bar.events)
    song = replace(song, parts=(replace(song.parts[0], bars=(replace(bar, events=events),)),))
    path = best_paths(demands(song), HandTables(NECK, 6, [100.0], costs()))[0]
    assert len({grip.finger_on(5) for grip in path.grips}) == 1


def test_links_name_strings_that_hang_on_the_event_before() -> None:
    assert demands(line("3.5", "3.7"))[1].links == Links()
