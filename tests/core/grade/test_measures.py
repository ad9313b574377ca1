"""Each measure against arithmetic done by hand; each names bar, place and figures."""

import itertools
from dataclasses import replace
from fractions import Fraction
from math import log2

import pytest
from hypothesis import given
from hypothesis import strategies as st

from clear_steps.core.grade import Finding, GradeRequest, Grading, grade_part
from clear_steps.core.grade.spread import Spread
from clear_steps.core.hand import Curve, Grip, Player, Spot
from clear_steps.core.score import Bend, Event, Finger, Metre, Note, Song, Technique
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()


def graded(song: Song, **request: object) -> Grading:
    return grade_part(song, song.parts[0], LADDER, GradeRequest(**request))  # type: ignore[arg-type]


def finding(song: Song, measure: str, **request: object) -> Finding:
    return graded(song, **request).bars[0].findings[measure]


def with_notes(song: Song, change: dict[int, Note]) -> Song:
    bar = song.parts[0].bars[0]
    events = tuple(
        replace(event, notes=(change[index],)) if index in change else event
        for index, event in enumerate(bar.events)
    )
    return replace(song, parts=(replace(song.parts[0], bars=(replace(bar, events=events),)),))


def test_a_curve_is_straight_between_its_points_and_from_nothing() -> None:
    curve = Curve(((1.0, 2.0), (2.0, 6.0)))
    assert [curve.step(raw) for raw in (0, 0.5, 1, 1.5, 2, 9)] == [0, 1, 2, 4, 6, 6]
    assert [curve.raw(step) for step in (1, 2, 4, 6)] == [0.5, 1, 1.5, 2]
    assert list(curve.steps_beyond([0.5, 3])) == [1, 10]


def test_a_held_stretch_counts_in_full_where_it_is_set_at_once() -> None:
    """Frets 1 and 5 lie 126 mm apart at 648 mm: 1.26 of a span of 100, Step 6.7 + 0.01/0.15 * 1.8; set at
    ease a fifth less counts."""
    found = finding(line("6.5+4.5", "6.1+4.5", tempo=60), "stretch")
    assert found.value == pytest.approx(126.2, abs=0.1)
    assert found.step == pytest.approx(6.7 + (1.2624 - 1.25) / 0.15 * 1.8, abs=0.02)
    at_ease = finding(line("6.1+4.5", tempo=60), "stretch")
    assert at_ease.step == pytest.approx(LADDER.curves["stretch"].step(1.2624 * 0.8), abs=0.01)
    assert (found.unit, found.place and found.place.strings) == ("mm", (6, 4))
    assert (
        "frets 1 and 5 at once with the first and little finger: 126 mm of a comfortable 100"
        in found.evidence
    )


def test_a_passing_reach_counts_less_when_slow_and_more_when_fast() -> None:
    """Frets 5 and 8 lie 77 mm apart: x 0.85 at 4 notes/s, x 1.1 at 8 notes/s."""
    slow = finding(line("3.5", "2.8", "3.5", "2.8", tempo=120), "stretch")
    fast = finding(line("3.5", "2.8", "3.5", "2.8", tempo=240), "stretch")
    assert slow.value == fast.value == pytest.approx(77.2, abs=0.1)
    assert slow.step == pytest.approx(LADDER.curves["stretch"].step(0.772 * 0.85), abs=0.02)
    assert fast.step == pytest.approx(LADDER.curves["stretch"].step(0.772 * 1.1), abs=0.02)


SPREAD = ["4.1", "4.3", "4.5", "4.3"] * 2  # never more than two frets from note to note, four in all


def test_fingers_that_lie_far_apart_within_a_moment_are_a_spread() -> None:
    """Frets 1 and 5 lie 126 mm apart, two notes of 0.125 s from one to the other: 0.85 of it counts, the hand
    lies open over both."""
    found = finding(line(*SPREAD, length=Fraction(1, 4), tempo=120), "stretch")
    assert found.value == pytest.approx(126.2, abs=0.1)
    assert found.step == pytest.approx(LADDER.curves["stretch"].step(1.262 * 0.85), abs=0.02)
    assert (
        "spread from fret 1 to fret 5 in one place of the hand: 126 mm of a comfortable 100, in 0.25 s"
        in found.evidence
    )


def test_a_spread_counts_less_the_more_time_there_is_and_nothing_in_the_end() -> None:
    """From 0.25 s on it falls to a half at 0.6 s; at 0.8 s only what lies between one note and the next is
    left."""
    steps = [
        finding(line(*SPREAD, length=Fraction(1, 4), tempo=tempo), "stretch").step
        for tempo in (120, 100, 80, 60, 50)
    ]
    assert steps == sorted(steps, reverse=True)
    slow = finding(line(*SPREAD, tempo=75), "stretch")
    assert slow.value < 70
    assert "spread" not in slow.evidence


@given(st.floats(0.05, 2), st.floats(0.05, 2), st.floats(1, 200))
def test_no_spread_counts_more_with_more_time(a: float, b: float, mm: float) -> None:
    quick, slow = (Spread(mm, (1, 5), seconds) for seconds in sorted((a, b)))
    assert slow.counted_mm <= quick.counted_mm


def test_the_same_spread_lies_closer_higher_up_and_a_hand_that_moves_spreads_no_more() -> None:
    high = [f"4.{int(place.split('.')[1]) + 8}" for place in SPREAD]
    low, up = (
        finding(line(*places, length=Fraction(1, 4), tempo=100), "stretch") for places in (SPREAD, high)
    )
    assert up.value == pytest.approx(79.5, abs=0.5)
    assert up.step < low.step - 1
    moving = finding(line("4.1", "4.3", "4.5", "4.7", "4.9", "4.10", "4.12", "4.14", tempo=60), "stretch")
    assert moving.value < 70


def test_a_longer_span_makes_the_same_stretch_easier() -> None:
    song = line("6.1+4.5", tempo=60)
    assert (
        finding(song, "stretch", player=Player(130)).step < finding(song, "stretch", player=Player(100)).step
    )


def test_past_the_most_a_hand_can_reach_is_step_ten_and_flagged() -> None:
    bar = graded(line("6.1+4.8")).bars[0]
    assert bar.past_hand
    assert bar.step == 10


def test_a_shift_is_the_time_needed_over_the_time_there_is() -> None:
    """The same shape from fret 1 to 10: 247.9 mm, fret 10 is 21.6 mm wide: 0.02 + 0.04 log2(1 + 247.9 / 21.6)
    + 247.9 / 2200, four fifths of it since the strings guide the fingers."""
    found = finding(line("6.1+5.3+4.3", "6.10+5.12+4.12", length=Fraction(1), tempo=120), "shift")
    assert found.value == pytest.approx(0.8 * (0.02 + 0.04 * 3.638 + 0.1127) / 0.5, abs=0.003)
    assert found.step == pytest.approx(LADDER.curves["shift"].step(found.value or 0))
    assert "from the 1st to the 10th fret, 248 mm in 0.50 s" in found.evidence


def test_leaping_at_every_note_is_harder_than_once() -> None:
    once = finding(line("6.1+5.3+4.3", "6.8+5.10+4.10", length=Fraction(1)), "shift")
    often = finding(
        line("6.1+5.3+4.3", "6.8+5.10+4.10", "6.1+5.3+4.3", "6.8+5.10+4.10", length=Fraction(1)), "shift"
    )
    assert often.step > once.step
    assert "three moves in the bar" in often.evidence


def test_an_open_string_before_a_shift_gives_it_time() -> None:
    direct = finding(line("3.2", "3.9"), "shift")
    eased = finding(line("3.2", "4.0", "3.9"), "shift")
    assert (direct.value or 0) > (eased.value or 0)


@pytest.mark.parametrize(("tempo", "rate"), [(60, 2.0), (120, 4.0), (180, 6.0)])
def test_eighths_are_two_notes_a_beat(tempo: int, rate: float) -> None:
    found = finding(line(*["3.5", "3.6", "3.7", "3.8"] * 2, tempo=tempo), "speed")
    assert found.value == pytest.approx(rate)
    assert found.step == pytest.approx(LADDER.curves["fretting_speed"].step(rate))
    assert "all through the bar" in found.evidence


@pytest.mark.parametrize(
    ("notes", "share", "words"),
    [(2, 0.75, "for one beat"), (4, 0.9, "for two beats"), (8, 1.0, "all through the bar")],
)
def test_a_burst_is_easier_than_a_stretch(notes: int, share: float, words: str) -> None:
    """Eighths for one, two and four beats of a bar at 180: 6 a second, of which so much counts."""
    song = line(*["3.5", "3.6", "3.7", "3.8"][: min(notes, 4)] * max(notes // 4, 1), tempo=180)
    found = finding(song, "speed")
    assert found.step == pytest.approx(LADDER.curves["fretting_speed"].step(6.0 * share))
    assert words in found.evidence


def test_a_bar_shorter_than_four_beats_counts_in_full() -> None:
    song = line(*["3.5", "3.6", "3.7", "3.8"], tempo=180)
    bar = replace(song.parts[0].bars[0], metre=Metre(2, 4), events=song.parts[0].bars[0].events[:4])
    song = replace(song, parts=(replace(song.parts[0], bars=(bar,)),))
    assert finding(song, "speed").step == pytest.approx(LADDER.curves["fretting_speed"].step(6.0))


def test_open_strings_beside_a_held_note_are_no_work_of_the_fretting_hand() -> None:
    """A drone between the notes of a melody: only the melody is fretted."""
    drone = finding(line(*["2.3", "4.0"] * 2, *["2.5", "4.0"] * 2, tempo=100), "speed")
    assert "picking hand" in drone.evidence
    alone = finding(line(*["2.3", "2.0"] * 4, tempo=100), "speed")
    assert "fretting hand" in alone.evidence, "the finger leaves its string"


def test_crossing_to_the_next_string_is_a_share_of_a_stroke_and_over_one_a_quarter() -> None:
    """Four eighths a second on open strings: so much more of a stroke at each but the first; the sentence
    has the notes, and why they are more work."""
    step = LADDER.curves["picking_speed"].step

    def found(*places: str) -> Finding:
        return finding(line(*places * 4, tempo=120), "speed")

    same, crossing, skipping = found("3.0", "3.0"), found("3.0", "2.0"), found("3.0", "1.0")
    assert same.step == pytest.approx(step(4.0))
    assert crossing.step == pytest.approx(step(4.0 * (8 + 7 * 0.15) / 8))
    assert skipping.step == pytest.approx(step(4.0 * (8 + 7 * 0.25) / 8))
    assert [each.value for each in (same, crossing, skipping)] == [4.0] * 3
    assert "turn" not in same.evidence
    assert skipping.evidence.endswith(
        "4.0 notes a second to play, all through the bar, on other strings in turn."
    )


def test_a_hand_that_stood_before_a_move_leaves_early() -> None:
    """Octaves struck once or four times in their place, the move in the same time."""
    once = finding(line(*["5.3+3.5", "5.5+3.7"] * 4, tempo=100), "shift")
    often = finding(line(*["5.3+3.5"] * 4, *["5.5+3.7"] * 4, tempo=100), "shift")
    seconds = 0.3
    assert often.value == pytest.approx((once.value or 0) * seconds / (seconds + 0.4 * 0.4))


def test_strings_guide_fingers_that_stay_on_them() -> None:
    along = finding(line("6.3+4.5", "6.10+4.12", length=Fraction(1), tempo=60), "shift")
    across = finding(line("6.3+4.5", "5.10+3.12", length=Fraction(1), tempo=60), "shift")
    assert along.value == pytest.approx((across.value or 0) * 0.8)


def test_a_repeated_open_string_is_work_of_the_picking_hand_only() -> None:
    found = finding(line(*["6.0"] * 8, tempo=120), "speed")
    assert found.step == pytest.approx(LADDER.curves["picking_speed"].step(4.0))
    assert "picking hand" in found.evidence


def test_pull_offs_take_work_off_the_picking_hand() -> None:
    picked = line("3.0", "6.0", "3.0", "6.0", tempo=200)
    slurred = with_notes(
        picked,
        {1: Note(3, 0, frozenset({Technique.PULL_OFF})), 3: Note(3, 0, frozenset({Technique.PULL_OFF}))},
    )
    assert finding(slurred, "speed").step < finding(picked, "speed").step


def test_technique_is_the_hardest_plus_how_often_plus_each_further_kind() -> None:
    """One two-tone bend (by the ring finger with two behind it) and one vibrato in a bar of 4 s:
    its row - 0.6 + 0.8 - 0.34 log2(8) + 0.2; what comes once is half as often."""
    song = line("1.15", "1.12", "r", "r", tempo=60)
    song = with_notes(
        song,
        {
            0: Note(1, 15, bend=Bend(Fraction(4)), finger=Finger.RING),
            1: Note(1, 12, frozenset({Technique.VIBRATO})),
        },
    )
    found = finding(song, "technique")
    bend = LADDER.technique_steps[Technique.BEND_TWO]
    assert found.step == pytest.approx(bend - 0.6 + 0.8 - 0.34 * 3 + 0.2, abs=1e-4)
    assert found.value == pytest.approx(0.5)
    assert (
        found.evidence
        == "There is one two-tone bend and one note with vibrato; the hardest is the two-tone bend at beat 1"
        " on the 1st string."
    )


def test_a_bend_among_palm_muted_notes_is_one_bend() -> None:
    """Only what is at least as hard makes it denser; many easy demands can still outweigh a single harder
    one."""
    muted = line(*["5.5"] * 8, length=Fraction(1, 2), tempo=120)
    notes = {at: Note(5, 5, frozenset({Technique.PALM_MUTE})) for at in range(8)}
    muted_bend = Note(5, 5, frozenset({Technique.PALM_MUTE}), bend=Bend(Fraction(2)), finger=Finger.MIDDLE)
    bent = notes | {7: muted_bend}
    assert finding(with_notes(muted, notes), "technique").step == 2, "a setting of the hand does not add up"
    assert finding(with_notes(muted, bent), "technique").step == pytest.approx(
        LADDER.technique_steps[Technique.BEND_WHOLE] + 0.8 - 0.34 * 2 + 0.2, abs=1e-4
    )
    slurs = {at: Note(5, 5, frozenset({Technique.SLIDE})) for at in range(1, 8)} | {
        0: Note(5, 5, frozenset({Technique.VIBRATO}))
    }
    assert finding(with_notes(muted, slurs), "technique").step == pytest.approx(
        2.5 + 0.8 + 0.34 * log2(7.5 / 2) + 0.2, abs=1e-4
    )


def test_wider_bends_are_harder() -> None:
    steps = [
        finding(with_notes(line("1.15"), {0: Note(1, 15, bend=Bend(Fraction(width, 2)))}), "technique").step
        for width in (1, 2, 4, 6, 8)
    ]
    assert steps == sorted(steps)
    assert len(set(steps)) == 5


@pytest.mark.parametrize(
    ("chord", "step"),
    [
        ("5.3+4.2+2.1", LADDER.shapes.three_fingers),
        ("6.1+5.3+4.3+3.2+2.1+1.1", LADDER.shapes.full_barre_low),
        ("6.5+5.7+4.7+3.6+2.5+1.5", LADDER.shapes.full_barre_high),
    ],
)
def test_a_shape_costs_its_fingers_or_its_barre(chord: str, step: float) -> None:
    """Set a second after another, half a second free for it: a change a second adds 1."""
    found = finding(line("3.2+2.3+1.2", chord, length=Fraction(1), tempo=60), "shapes")
    assert found.step == pytest.approx(step + 1 - LADDER.curves["free_time"].step(0.5))


def test_the_more_time_is_free_for_a_change_the_easier_it_is() -> None:
    """C to G at 80, strummed through, or with one or two beats of rest before the change."""
    c, g = "5.3+4.2+3.0+2.1+1.0", "6.3+5.2+4.0+3.0+2.0+1.3"

    def change(rests: int) -> Finding:
        bar = [c] * (4 - rests) + ["r"] * rests
        return graded(line(*bar, *[g] * 4, length=Fraction(1), tempo=80)).bars[1].findings["shapes"]

    through, one, two = (change(rests) for rests in (0, 1, 2))
    assert 0.3 <= through.step - one.step <= 0.5
    assert one.step > two.step
    assert "with 0.4 s free for it" in through.evidence


@pytest.mark.parametrize(("tempo", "least"), [(60, 0.3), (120, 0.6)])
def test_what_is_carried_along_costs_by_its_size_and_by_how_far_it_leaps(tempo: int, least: float) -> None:
    """An F shape a fret on, and seven frets on; it must land as a whole."""
    low, on, far = ("6.1+5.3+4.3+3.2+2.1+1.1", "6.2+5.4+4.4+3.3+2.2+1.2", "6.8+5.10+4.10+3.9+2.8+1.8")

    def found(*chords: str) -> Finding:
        return graded(line(*chords * 8, length=Fraction(2), tempo=tempo)).bars[1].findings["shapes"]

    held, near, leaping = found(low, low), found(low, on), found(low, far)
    assert held.step + least < near.step < leaping.step
    assert "and three more fingers are carried seven frets" in leaping.evidence


@pytest.mark.parametrize(
    ("presses", "strings", "step"),
    [
        ("23", 2, LADDER.shapes.two_fingers),
        ("234", 3, LADDER.shapes.three_fingers),
        ("2345", 4, LADDER.shapes.four_fingers),
        ("12345", 5, LADDER.shapes.full_barre_high),
    ],
)
def test_a_finger_flat_alone_costs_the_fingers_whose_work_it_does(
    presses: str, strings: int, step: float
) -> None:
    grip = Grip(5, tuple((Finger.INDEX, Spot(int(string), 5)) for string in presses), strings, 5, 0.0)
    assert LADDER.shapes.step(grip) == step


def test_thirds_in_eighths_grow_harder_evenly_with_the_tempo() -> None:
    """Two fingers or one flat finger, whichever is chosen: no jump from one to the other."""
    steps = [
        finding(line(*["3.5+2.5", "3.7+2.6"] * 4, tempo=tempo), "shapes").step for tempo in (60, 80, 100, 120)
    ]
    assert steps == sorted(steps)
    assert all(b - a < 1 for a, b in itertools.pairwise(steps))


def test_a_change_of_shape_costs_more_the_sooner_it_comes() -> None:
    """From C to G after one second, or after two."""
    c, g = "5.3+4.2+3.0+2.1+1.0", "6.3+5.2+4.0+3.0+2.0+1.3"
    soon, late = (
        finding(line(*[c] * beats, g, length=Fraction(1), tempo=60), "shapes").step for beats in (1, 2)
    )
    rates = LADDER.curves["shape_changes"]
    assert soon - late == pytest.approx(rates.step(1) - rates.step(0.5))


def test_only_what_is_set_anew_is_a_shape_to_set() -> None:
    """From C to A minor one finger goes elsewhere; a finger over a held barre is one finger."""
    common = line("5.3+4.2+3.0+2.1+1.0", "5.0+4.2+3.2+2.1+1.0", "r", "r", length=Fraction(1), tempo=60)
    assert finding(common, "shapes").step == 1.0
    barre = ["6.5+5.7+4.7+3.6+2.5+1.5", "6.5+5.7+4.7+3.6+2.8+1.5"] * 2
    found = graded(line(*barre * 4, length=Fraction(1), tempo=60)).bars[1].findings["shapes"]
    share = 0.22 + (0.7 - 0.22) * 1.0 / 1.3
    assert found.step == pytest.approx(share * LADDER.shapes.full_barre_high), (
        "a share of holding a barre at the 5th fret"
    )
    assert found.evidence == "A full barre at fret 5 is held."


def test_a_shape_that_is_held_is_cheap() -> None:
    held = (
        grade_part(song := line(*["5.3+4.2+3.0+2.1+1.0"] * 16), song.parts[0], LADDER)
        .bars[1]
        .findings["shapes"]
    )
    assert (held.step, held.evidence) == (1.0, "One shape, held or merely moved along.")


def test_an_arpeggio_sets_its_shape_finger_by_finger() -> None:
    song = line("5.3", "4.2", "2.1", "4.2", "5.3", "4.2", "2.1", "4.2", tempo=200)
    bar = song.parts[0].bars[0]
    ringing = tuple(replace(event, techniques=frozenset({Technique.LET_RING})) for event in bar.events)
    song = replace(song, parts=(replace(song.parts[0], bars=(replace(bar, events=ringing),)),))
    assert finding(song, "shapes").step == 1.0


def test_fingers_set_down_ahead_for_a_pull_off_are_no_shape() -> None:
    song = with_notes(line("3.7", "3.5", tempo=200), {1: Note(3, 5, frozenset({Technique.PULL_OFF}))})
    assert finding(song, "shapes").value is None


def test_a_bar_of_rests_finds_nothing_and_is_step_one() -> None:
    bar = graded(line("r")).bars[0]
    assert bar.step == 1
    assert all((found.step, found.value, found.place) == (0, None, None) for found in bar.findings.values())


def test_a_dead_strum_is_one_dead_stroke_and_stops_nothing_within_a_run_of_them() -> None:
    def strum(dead: bool) -> Event:
        techniques = frozenset({Technique.DEAD}) if dead else frozenset[Technique]()
        notes = tuple(Note(string, 0, techniques) for string in range(1, 7))
        return Event(Fraction(1, 2), notes)

    def graded(*dead: bool) -> dict[str, Finding]:
        song = line("1.0")
        bar = replace(song.parts[0].bars[0], events=tuple(map(strum, dead)))
        song = replace(song, parts=(replace(song.parts[0], bars=(bar,)),))
        return grade_part(song, song.parts[0], LADDER).bars[0].findings

    every = graded(*[True] * 8)
    assert every["technique"].evidence.startswith("There are eight dead notes")
    assert every["damping"].value is None
    assert "once" in graded(False, *[True] * 7)["damping"].evidence


def test_a_pickup_is_a_burst_in_a_bar_that_began_with_rest() -> None:
    """Two eighths before the first bar are no whole bar of eighths."""
    song = line("3.5", "3.6", tempo=120)
    pickup = replace(song.parts[0].bars[0], events=song.parts[0].bars[0].events[:2], pickup=True)
    song = replace(song, parts=(replace(song.parts[0], bars=(pickup, pickup)),))
    found = finding(song, "speed")
    assert found.step == pytest.approx(LADDER.curves["fretting_speed"].step(0.75 * 4.0))
    assert "for one beat" in found.evidence


def test_one_finger_flat_that_moves_is_no_new_shape() -> None:
    """A dropped tuning's chords by one finger, at two places."""
    found = graded(line(*["4.5+5.5+6.5", "4.3+5.3+6.3"] * 4, length=Fraction(1), tempo=100)).bars[1]
    assert "over three strings at fret 3 is carried two frets down" in found.findings["shapes"].evidence
