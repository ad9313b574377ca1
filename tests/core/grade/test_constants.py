"""Constants of judgement, pinned by what a teacher would see: changed by a fifth, something here fails.

Where a figure is exact arithmetic elsewhere (`test_measures.py`), it is not repeated.
"""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.grade import Finding, Grading, grade_part
from clear_steps.core.grade.measures import rhythm
from clear_steps.core.hand import Neck, Player, passing_factor
from clear_steps.core.hand.moves import passing_share
from clear_steps.core.score import (
    Bar,
    Event,
    Metre,
    Note,
    Part,
    Picking,
    PickingFinger,
    Song,
    Stroke,
    Technique,
)
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()


def graded(song: Song) -> Grading:
    return grade_part(song, song.parts[0], LADDER)


def finding(song: Song, measure: str) -> Finding:
    return graded(song).bars[0].findings[measure]


def one_bar(*events: Event, tempo: int = 120, metre: Metre = Metre(4, 4), **part: object) -> Song:
    bar = Bar(metre, events)
    return Song(tempo=Fraction(tempo), parts=(Part(bars=(bar,), **part),))  # type: ignore[arg-type]


def struck(string: int, fret: int = 0, length: Fraction = Fraction(1, 2), **event: object) -> Event:
    return Event(length, (Note(string, fret),), **event)  # type: ignore[arg-type]


def test_how_much_a_passing_reach_counts_by_the_time_there_is() -> None:
    assert [passing_factor(rate) for rate in (1 / 0.6, 4, 6, 8, 20)] == pytest.approx(
        [0.6, 0.85, 0.975, 1.1, 1.1]
    )
    assert [passing_share(seconds) for seconds in (0.1, 0.25, 0.425, 0.6, 2)] == pytest.approx(
        [1, 1, 0.5, 0, 0]
    )


def test_down_strokes_alone_count_a_fifth_more_above_four_a_second() -> None:
    def step(tempo: int, stroke: Stroke | None) -> float:
        song = one_bar(*[struck(6, stroke=stroke) for _ in range(8)], tempo=tempo)
        return finding(song, "speed").step

    curve = LADDER.curves["picking_speed"]
    assert step(150, Stroke.DOWN) == pytest.approx(curve.step(5 * (1 + 7 * 1.2) / 8))
    assert step(90, Stroke.DOWN) == pytest.approx(curve.step(3))


def test_fingers_find_a_far_string_with_a_third_of_the_work_of_a_pick() -> None:
    far = [struck(6), struck(1)] * 4
    pick, fingers = (
        finding(one_bar(*far, picking=own), "picking").value for own in (Picking.PICK, Picking.FINGERS)
    )
    assert fingers == pytest.approx((pick or 0) * 0.3)


def test_far_strings_at_once_are_two_skips_of_a_pick_and_an_octave_a_third_of_one() -> None:
    def skips(low: int, high: int, **part: object) -> float:
        events = [Event(Fraction(1), (Note(high, 0), Note(low, 0))) for _ in range(4)]
        return (finding(one_bar(*events, **part), "picking").value or 0) / 2

    assert skips(6, 3, picking=Picking.PICK) == pytest.approx(2.0)
    assert skips(6, 3) == 0, "nobody would take a pick"
    assert skips(5, 3) == pytest.approx(0.3)


def test_tuplets_by_name_and_mixed_with_straight_notes_a_step_more() -> None:
    def found(length: Fraction, count: int, straight: int) -> Finding:
        tuplets = [struck(6, length=length) for _ in range(count)]
        return finding(one_bar(*tuplets, *[struck(6) for _ in range(straight)]), "rhythm")

    third, fifth, seventh = Fraction(1, 3), Fraction(1, 5), Fraction(1, 7)
    assert found(third, 12, 0).step == 3
    assert found(third, 6, 4).step == 4
    assert (found(fifth, 20, 0).step, found(fifth, 20, 0).evidence) == (
        4,
        "The beat is divided in quintuplets.",
    )
    assert (found(seventh, 28, 0).step, found(seventh, 28, 0).evidence) == (
        4.5,
        "The beat is divided in septuplets.",
    )
    assert found(Fraction(1, 11), 44, 0).step == rhythm._OTHER_TUPLETS[0] == 5


def test_even_notes_have_no_syncopation_however_the_voices_lie() -> None:
    thumb_and_fingers = [struck(5, 3), struck(3), struck(2, 1), struck(1)] * 2
    assert finding(one_bar(*thumb_and_fingers, picking=Picking.FINGERS), "rhythm").step == 0
    pushed = [
        struck(6, length=Fraction(3, 2)),
        struck(6, length=Fraction(1)),
        struck(6, length=Fraction(3, 2)),
    ]
    assert finding(one_bar(*pushed), "rhythm").step > 2


def test_an_odd_metre_stands_at_three_and_a_half_and_free_time_has_none() -> None:
    sevens = [struck(6) for _ in range(7)]
    assert finding(one_bar(*sevens, metre=Metre(7, 8)), "rhythm").step == 3.5
    free = [struck(6, free=True) for _ in range(7)]
    assert finding(one_bar(*free, metre=Metre(7, 8)), "rhythm").step == 0


def test_free_time_gives_half_as_much_time_again() -> None:
    strict, free = (
        finding(one_bar(*[struck(6, free=own) for _ in range(8)]), "speed").value for own in (False, True)
    )
    assert free == pytest.approx((strict or 0) / 1.5)


def test_palm_mute_is_a_setting_and_a_dead_stroke_counts_once() -> None:
    muted = [struck(6, techniques=frozenset({Technique.PALM_MUTE})) for _ in range(8)]
    assert finding(one_bar(*muted), "technique").step == 2
    dead = tuple(Note(string, 0, frozenset({Technique.DEAD})) for string in (1, 2, 3))
    found = finding(one_bar(*[Event(Fraction(1), dead) for _ in range(4)]), "technique")
    assert found.value == pytest.approx(2), "four strokes in two seconds"


def test_a_held_full_barre_keeps_seven_tenths_of_its_step() -> None:
    barre = ["6.1+5.3+4.3+3.2+2.1+1.1"] * 8
    bars = graded(line(*barre, length=Fraction(1), tempo=60)).bars
    barre = LADDER.shapes.full_barre_low
    assert bars[1].findings["shapes"].step == pytest.approx((0.22 + 0.48 * 1.0 / 1.3) * barre)
    quick = graded(line(*["6.1+5.3+4.3+3.2+2.1+1.1"] * 8, length=Fraction(1), tempo=80)).bars
    assert quick[1].findings["shapes"].step == pytest.approx(0.7 * barre)


def test_stamina_begins_after_eight_beats_and_is_full_after_eighty() -> None:
    def added(bars: int) -> float:
        return graded(line(*["6.0"] * 16 * bars, length=Fraction(1, 4), tempo=150)).stamina

    assert added(2) == 0
    assert added(11) == pytest.approx(0.7 * (44 - 8) / 72)
    assert added(20) == pytest.approx(0.7)


def test_a_bass_guitar_is_measured_as_one() -> None:
    """34 inches against 25.5 (common practice, no source): frets a third wider."""
    assert Neck(864).fret_mm(5) == pytest.approx(Neck(648).fret_mm(5) * 4 / 3)
    assert Player().reach_mm == pytest.approx(1.4 * Player().span_mm)


def test_letters_of_the_picking_hand_say_that_fingers_pluck_without_a_header() -> None:
    far = [struck(6), struck(1)] * 4
    lettered = [
        Event(event.quarters, (replace(event.notes[0], picking=PickingFinger.THUMB),)) for event in far
    ]
    bare, plucked = (finding(one_bar(*events), "picking").value for events in (far, lettered))
    assert plucked == pytest.approx((bare or 0) * 0.3)


def test_a_reach_counts_three_hundredths_more_for_every_finger_between() -> None:
    """Frets 5 and 8 held by two, three and four fingers."""
    curve = LADDER.curves["stretch"]
    held = Neck().fret_mm(8) - Neck().fret_mm(5)
    for chord, more in (("6.5+3.8", 0.0), ("6.5+4.7+3.8", 0.03), ("6.5+5.6+4.7+3.8", 0.06)):
        assert finding(line("6.5", chord, tempo=60), "stretch").step == pytest.approx(
            curve.step(0.8 * held * (1 + more) / 100)
        )
