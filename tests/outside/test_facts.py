"""Facts from outside the project; the source stands beside each check."""

import json
from fractions import Fraction
from itertools import combinations, pairwise

import networkx as nx
import numpy as np
import pytest
from music21 import pitch as m21_pitch

from clear_steps.core.easier.kinds.technique import bend_to_fret
from clear_steps.core.grade.measures.rhythm import syncopation
from clear_steps.core.hand import (
    SCHOOLS,
    HandTables,
    Neck,
    PathCosts,
    School,
    best_paths,
    fret_distance_mm,
    layers_of_part,
    movement_seconds,
)
from clear_steps.core.hand.moves import FITTS_A_SECONDS, FITTS_B_SECONDS, TRAVEL_MM_A_SECOND
from clear_steps.core.score import (
    STANDARD,
    TUNINGS,
    Bar,
    Bend,
    Event,
    Metre,
    Note,
    Part,
    midi_to_hz,
    name_of,
    parse_length,
)
from clear_steps.core.score.timing import bar_times
from clear_steps.ladders import default_ladder
from tests.songs import line


@pytest.mark.parametrize(("fret", "mm"), [(1, 36.4), (5, 162.6), (12, 324.0)])
def test_frets_lie_by_equal_temperament(fret: int, mm: float) -> None:
    """L (1 - 2^(-n/12)), lutherie handbooks; figures by arithmetic."""
    assert fret_distance_mm(648, fret) == pytest.approx(mm, abs=0.06)


def test_each_fret_takes_a_share_of_what_is_left() -> None:
    """The luthiers' `rule of 18`: the constant is 17.817."""
    assert 648 / fret_distance_mm(648, 1) == pytest.approx(17.817, abs=0.001)


@pytest.mark.parametrize(("low", "high", "mm"), [(1, 5, 126), (5, 8, 77), (12, 17, 81), (14, 19, 72)])
def test_the_same_number_of_frets_is_wider_near_the_nut(low: int, high: int, mm: int) -> None:
    """Arithmetic."""
    assert round(fret_distance_mm(648, high) - fret_distance_mm(648, low)) == mm


def test_a_capo_counts_frets_from_itself() -> None:
    """Common practice, no source: with a capo the 1st fret is the first above it."""
    assert Neck(capo=3).fret_mm(2) == pytest.approx(Neck().fret_mm(5))


@pytest.mark.parametrize("midi", range(28, 90, 7))
def test_pitches_are_those_of_music21_and_iso_16(midi: int) -> None:
    """MIDI numbers, A4 = 440 Hz (ISO 16); music21's pitch objects."""
    theirs = m21_pitch.Pitch(name_of(midi).replace("b", "-"))
    assert theirs.midi == midi
    assert midi_to_hz(midi) == pytest.approx(theirs.frequency)


@pytest.mark.parametrize(
    ("first", "second"),
    [((2, 5), (1, 0)), ((4, 7), (3, 2)), ((5, 5), (4, 0)), ((6, 5), (5, 0)), ((3, 4), (2, 0))],
)
def test_places_of_equal_pitch(first: tuple[int, int], second: tuple[int, int]) -> None:
    """Common practice and arithmetic, no source."""
    part = Part()
    assert part.pitch_of(Note(*first)) == part.pitch_of(Note(*second))


def test_the_lowered_sixth_is_the_open_fourth_an_octave_below() -> None:
    """Common practice, no source: MIDI 38 and 50."""
    assert (TUNINGS["drop D"].open_pitch(6), STANDARD.open_pitch(4)) == (38, 50)


def test_a_half_tone_down_with_the_first_capo_is_standard_pitch() -> None:
    """Arithmetic."""
    assert tuple(pitch + 1 for pitch in TUNINGS["half step down"].pitches) == STANDARD.pitches


def test_a_doubled_distance_costs_one_more_bit() -> None:
    """Fitts 1954, MT = a + b log2(1 + D / W), and the way at a steady pace."""
    way = 30 / TRAVEL_MM_A_SECOND
    assert movement_seconds(30, 30) == pytest.approx(FITTS_A_SECONDS + FITTS_B_SECONDS + way)
    longer = movement_seconds(2 * 90 + 30, 30) - movement_seconds(90, 30)
    assert longer == pytest.approx(FITTS_B_SECONDS + 120 / TRAVEL_MM_A_SECOND)
    assert movement_seconds(10, 20) < movement_seconds(20, 20) < movement_seconds(20, 10)


def test_the_path_is_as_cheap_as_networkx_finds_it() -> None:
    """The same layered graph and tables, solved by networkx: equal cost."""
    ladder = default_ladder()
    costs = PathCosts(
        ladder.curves["stretch"], ladder.curves["shift"], ladder.shapes, SCHOOLS[School.BALANCED]
    )
    for frets in combinations(("3.5", "2.8", "1.3", "6.1+5.3+4.3", "4.12", "2.7+1.7"), 4):
        song = line(*frets, length=Fraction(1, 2))
        part = song.parts[0]
        asked = layers_of_part(part, bar_times(part, song.playing_tempo))
        layers = HandTables(Neck(), 6, [100.0], costs)
        graph = nx.DiGraph()
        for row, cost in enumerate(layers.grip_costs(asked[0].shape)[0]):
            graph.add_edge("start", (0, row), weight=cost)
        for at, (a, b) in enumerate(pairwise(asked)):
            moves = layers.move_costs(a.shape, b.shape, b.links, b.seconds)[0]
            for (before, after), move in np.ndenumerate(moves):
                graph.add_edge(
                    (at, before), (at + 1, after), weight=move + layers.grip_costs(b.shape)[0][after]
                )
        last = len(asked) - 1
        for row in range(len(layers.table(asked[-1].shape).grips)):
            graph.add_edge((last, row), "stop", weight=0.0)
        theirs = nx.dijkstra_path_length(graph, "start", "stop")
        assert best_paths(asked, HandTables(Neck(), 6, [100.0], costs))[0].cost == pytest.approx(theirs)


@pytest.mark.parametrize(("half_tones", "share"), [(2, 0.794), (1, 0.891)])
def test_tension_falls_with_the_square_of_the_frequency(half_tones: int, share: float) -> None:
    """Physics of the ideal string: a whole step down leaves 79.4 %, a half step 89.1 %."""
    lowered = midi_to_hz(40 - half_tones) / midi_to_hz(40)
    assert lowered**2 == pytest.approx(share, abs=5e-4)


@pytest.mark.parametrize(
    ("low", "high", "half_tones"),
    [((6, 3), (4, 5), 12), ((5, 3), (3, 5), 12), ((3, 2), (1, 2), 9), ((3, 5), (1, 4), 8)],
)
def test_shapes_of_intervals(low: tuple[int, int], high: tuple[int, int], half_tones: int) -> None:
    """An octave two strings and two frets up; sixths on the 3rd and 1st strings (common practice and
    arithmetic, no source)."""
    assert STANDARD.open_pitch(high[0]) + high[1] - STANDARD.open_pitch(low[0]) - low[1] == half_tones


@pytest.mark.parametrize(("fret", "half_tones", "like"), [(10, 2, 12), (15, 4, 19)])
def test_a_bend_sounds_like_the_fret_it_reaches(fret: int, half_tones: int, like: int) -> None:
    """A whole-tone bend at 10 sounds like fret 12, two tones at 15 like 19 (arithmetic)."""
    part = Part(bars=(Bar(events=(Event(Fraction(4), (Note(2, fret, bend=Bend(Fraction(half_tones))),)),)),))
    change = next(iter(bend_to_fret(part, 0)))[0]
    assert change.after[0].notes[0].fret == like


def test_counting() -> None:
    """Seven eighths of triplets hold 21 notes; a bar of 4/4 in sextuplets 24 (arithmetic)."""
    seven = parse_length("s3")
    six = parse_length("s6")
    assert seven
    assert Metre(7, 8).quarters / seven == 21
    assert six
    assert Metre(4, 4).quarters / six == 24


@pytest.mark.parametrize(
    ("onsets", "amount"),
    [
        ((0, 1, 2, 3), 0),
        ((0, Fraction(1, 2), Fraction(3, 2), Fraction(5, 2), Fraction(7, 2)), 4),
        ((0, 1, Fraction(5, 2)), 2),
    ],
)
def test_syncopation_is_the_weight_that_a_note_holds_over(onsets: tuple[Fraction, ...], amount: int) -> None:
    """Longuet-Higgins & Lee 1984 as given in the literature (from memory): notes on beats hold over nothing.

    Worked by hand with weights 0 for the bar, -1 its half, -2 beats, -3 halves of beats: the & of 1 over beat
    2 is 1, the & of 2
    over 3 is 2, the & of 3 over 4 is 1, the & of 4 holds to the bar's end and is not counted; beat 2 over 3
    is 1, the & of 3 over 4 is 1.
    """
    assert syncopation(tuple(Fraction(onset) for onset in onsets), Metre(4, 4))[0] == amount


def test_a_reach_across_the_strings_is_a_true_distance() -> None:
    """Pythagoras on equal temperament and string spacings interpolated between nut and bridge."""
    neck = Neck()
    assert neck.across_mm(5, 0) == pytest.approx(35.0)
    assert neck.true_mm((6, 5), (6, 5)) == 0
    along = neck.fret_mm(8) - neck.fret_mm(5)
    assert neck.true_mm((3, 5), (3, 8)) == pytest.approx(along)
    assert neck.true_mm((6, 5), (1, 8)) == pytest.approx((along**2 + neck.across_mm(5, 6.5) ** 2) ** 0.5)


def test_the_ladder_names_a_source_for_every_row() -> None:
    from importlib.resources import files

    rows = json.loads(files("clear_steps.ladders").joinpath("default.json").read_bytes())
    assert all(row["source"] for row in [*rows["curves"], *rows["techniques"], rows["shapes"]])
