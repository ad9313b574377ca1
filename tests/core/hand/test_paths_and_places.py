"""The k best paths, places for pitches, the tapping hand and habits."""

from dataclasses import replace
from fractions import Fraction
from itertools import pairwise, product

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.grade import GradeRequest, grade_part, hand_tables, pins_not_kept
from clear_steps.core.hand import (
    DemandsBook,
    Habits,
    LittleFinger,
    Moment,
    Pitch,
    Player,
    Spot,
    best_paths,
    can_be_placed,
    k_best_paths,
    layers_of_part,
    place,
    places_of,
)  # fmt: skip
from clear_steps.core.score import STANDARD, Bend, Finger, Part, Song, Technique, route_of
from clear_steps.core.score.timing import bar_times
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()
TABLES = hand_tables(Part(), LADDER)


def with_note(song: Song, at: int, **changes: object) -> Song:
    bar = song.parts[0].bars[0]
    event = bar.events[at]
    note = replace(event.notes[0], **changes)  # type: ignore[arg-type]
    events = (*bar.events[:at], replace(event, notes=(note, *event.notes[1:])), *bar.events[at + 1 :])
    return replace(
        song, parts=(replace(song.parts[0], bars=(replace(bar, events=events), *song.parts[0].bars[1:])),)
    )


@settings(max_examples=20)
@given(st.lists(st.tuples(st.integers(1, 6), st.integers(1, 12)), min_size=2, max_size=3), st.integers(2, 9))
def test_k_best_paths_are_the_k_cheapest_of_all(spots: list[tuple[int, int]], count: int) -> None:
    song = line(*(f"{string}.{fret}" for string, fret in spots))
    part = song.parts[0]
    layers = layers_of_part(part, bar_times(part, song.playing_tempo))
    own = [TABLES.grip_costs(layer.shape)[0] for layer in layers]
    moves = [TABLES.move_costs(a.shape, b.shape, b.links, b.seconds)[0] for a, b in pairwise(layers)]
    every = sorted(
        sum(int(costs[row]) for costs, row in zip(own, rows, strict=True))
        + sum(int(move[a, b]) for move, (a, b) in zip(moves, pairwise(rows), strict=True))
        for rows in product(*(range(len(costs)) for costs in own))
    )
    found = k_best_paths(layers, TABLES, count)
    assert [path.cost for path in found] == every[:count]
    assert found[0].cost == best_paths(layers, TABLES)[0].cost


def test_places_of_equal_pitch() -> None:
    """Standard tuning: 2nd string 5 = open 1st, 4th string 7 = 3rd string 2 (common practice, no source)."""
    assert {(spot.string, spot.fret) for spot in places_of(64, STANDARD, 0)} == {
        (1, 0),
        (2, 5),
        (3, 9),
        (4, 14),
        (5, 19),
    }
    assert {(3, 2), (4, 7)} <= {(spot.string, spot.fret) for spot in places_of(57, STANDARD, 0)}


@settings(max_examples=30)
@given(st.lists(st.sets(st.integers(40, 76), min_size=1, max_size=3), min_size=1, max_size=6))
def test_every_placed_pitch_sounds_as_asked_on_a_string_of_its_own(chords: list[set[int]]) -> None:
    moments = [Moment(0.5, tuple(Pitch(midi) for midi in sorted(chord))) for chord in chords]
    possible = [can_be_placed(moment.pitches, STANDARD, 0) for moment in moments]
    found = place(moments, STANDARD, 0, TABLES)
    assert (found is not None) == all(possible)
    for moment, spots in zip(moments, found or (), strict=False):
        assert [STANDARD.open_pitch(spot.string) + spot.fret for spot in spots] == [
            pitch.midi for pitch in moment.pitches
        ]
        assert len({spot.string for spot in spots}) == len(spots)


def test_what_hangs_on_the_note_before_keeps_its_string_and_what_is_fixed_stays() -> None:
    moments = [Moment(0.5, (Pitch(64, Spot(2, 5)),)), Moment(0.5, (Pitch(66, follows=0),))]
    assert place(moments, STANDARD, 0, TABLES) == ((Spot(2, 5),), (Spot(2, 7),))


def test_a_low_scale_is_placed_low() -> None:
    scale = [Moment(0.5, (Pitch(midi),)) for midi in (48, 50, 52, 53, 55, 57, 59, 60)]
    found = place(scale, STANDARD, 0, TABLES)
    assert found
    assert max(spot.fret for spots in found for spot in spots) <= 5


def test_a_fast_tune_stays_off_the_thick_strings_far_up_the_neck() -> None:
    tune = [
        Moment(0.15, (Pitch(midi),))
        for midi in (64, 67, 67, 69, 67, 64, 62, 60, 65, 64, 62, 60, 64, 60, 60, 55)
    ]
    found = place(tune, STANDARD, 0, TABLES)
    assert found
    assert max((spot.fret for (spot,) in found if spot.string >= 4), default=0) <= 7
    assert sum(spot.fret for (spot,) in found) / len(found) < 6


def test_a_note_is_placed_within_reach_of_one_that_is_held() -> None:
    bass = Moment(0.75, (Pitch(52),))
    struck = place([Moment(0.5, (Pitch(72),)), bass], STANDARD, 0, TABLES)
    held = place([Moment(0.5, (Pitch(72),)), replace(bass, held=(0,))], STANDARD, 0, TABLES)
    assert struck == ((Spot(1, 8),), (Spot(4, 2),)), "alone it lies low"
    assert held == ((Spot(1, 8),), (Spot(5, 7),))


def test_a_held_note_keeps_its_string() -> None:
    over = [
        Moment(0.5, (Pitch(67),)),
        Moment(0.5, (Pitch(64),), held=(0,)),
        Moment(0.5, (Pitch(65),), held=(1,)),
    ]
    found = place(over, STANDARD, 0, TABLES)
    assert found
    strings = [spots[0].string for spots in found]
    assert strings[0] not in strings[1:]
    assert place([replace(moment, held=()) for moment in over], STANDARD, 0, TABLES) == (
        (Spot(1, 3),),
        (Spot(1, 0),),
        (Spot(1, 1),),
    )


def test_a_tap_and_what_it_slides_to_are_the_picking_hands() -> None:
    song = with_note(
        with_note(line("1.5", "1.12", "1.14", "1.5"), 1, techniques=frozenset({Technique.TAP})),
        2,
        techniques=frozenset({Technique.SLIDE}),
    )
    demands = DemandsBook().of(song.parts[0], route_of(song.parts[0]))[0]
    assert [tap.spot.fret for tap in demands.taps] == [12, 14]
    assert all(spot.fret == 5 for demand in demands.demands for spot in demand.shape.spots)


def test_taps_have_moves_of_their_own() -> None:
    far = line(*["1.12", "1.19"] * 4, length=Fraction(1, 2), tempo=140)
    bar = far.parts[0].bars[0]
    events = tuple(
        replace(event, notes=(replace(event.notes[0], techniques=frozenset({Technique.TAP})),))
        for event in bar.events
    )
    song = replace(far, parts=(replace(far.parts[0], bars=(replace(bar, events=events),)),))
    found = grade_part(song, song.parts[0], LADDER).bars[0].findings["shift"]
    assert found.step > 1
    assert "tapping hand" in found.evidence


def fingers(song: Song, habits: Habits = Habits()) -> list[str]:
    grading = grade_part(song, song.parts[0], LADDER, GradeRequest(Player(habits=habits)))
    return ["".join(sorted(grip.fingers)) for _, grip in sorted(grading.grips.items())]


def test_a_player_who_avoids_the_little_finger_gets_another() -> None:
    song = line("3.5", "3.6", "3.7", "3.8", tempo=60)
    assert "4" in "".join(fingers(song))
    assert "4" not in "".join(fingers(song, Habits(LittleFinger.AVOIDED)))


def test_the_thumb_frets_a_bass_only_where_it_may() -> None:
    song = line(
        "6.2+4.5+3.4+2.3+1.6", tempo=60
    )  # five spots on four fingers, none of them a barre: the thumb takes one
    thumbed = GradeRequest(Player(habits=Habits(thumb_over=True)))
    assert "T" not in "".join(fingers(song))
    assert "T" in "".join(fingers(song, thumbed.player.habits))
    found = grade_part(song, song.parts[0], LADDER, thumbed).bars[0].findings["shapes"]
    assert found.step >= 4


@pytest.mark.parametrize("fret", [5, 9, 12])
def test_a_bend_is_made_by_a_strong_finger(fret: int) -> None:
    assert fingers(with_note(line(f"2.{fret}"), 0, bend=Bend(Fraction(2)))) == ["3"]


def test_a_pinned_position_is_kept() -> None:
    song = line("3.7", "3.5", tempo=60)
    bar = song.parts[0].bars[0]
    pinned = replace(bar, events=(replace(bar.events[0], position=4), *bar.events[1:]))
    song = replace(song, parts=(replace(song.parts[0], bars=(pinned,)),))
    grips = grade_part(song, song.parts[0], LADDER).grips
    assert grips[0, 0].position == 4
    assert grips[0, 0].fingers == (Finger.LITTLE,)


def test_free_fingers_help_behind_a_bend() -> None:
    song = with_note(line("2.9"), 0, bend=Bend(Fraction(2)))
    grip = grade_part(song, song.parts[0], LADDER).grips[0, 0]
    assert grip.fingers == (Finger.RING,)
    assert grip.helpers_on(2) == ((Finger.INDEX, Spot(2, 7)), (Finger.MIDDLE, Spot(2, 8)))
    assert grip.helpers_on(3) == ()


def test_a_pin_holds_while_the_note_repeats() -> None:
    song = with_note(line("3.5", "3.5", "3.5", "3.7", tempo=60), 0, finger=Finger.RING)
    assert fingers(song)[:3] == ["3", "3", "3"]


def test_a_pin_that_no_hand_can_keep_is_told() -> None:
    """The index on a higher fret than the little finger, both at once."""
    song = line("2.5+3.7", length=Fraction(1), tempo=60)
    event = song.parts[0].bars[0].events[0]
    notes = (
        replace(event.notes[0], finger=Finger.LITTLE),
        replace(event.notes[1], finger=Finger.INDEX),
    )
    bar = song.parts[0].bars[0]
    bar = replace(bar, events=(replace(event, notes=notes), *bar.events[1:]))
    part = replace(song.parts[0], bars=(bar,))
    crossed = replace(song, parts=(part,))
    told = pins_not_kept(part, grade_part(crossed, part, LADDER))
    assert len(told) == 2
    assert told[0].startswith(
        "Bar 1, beat 1: the little finger cannot lie on the 2nd string as written; the "
    )
    kept = replace(part, bars=(replace(bar, events=(event, *bar.events[1:])),))
    assert pins_not_kept(kept, grade_part(replace(song, parts=(kept,)), kept, LADDER)) == ()
