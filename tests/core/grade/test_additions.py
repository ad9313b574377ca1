"""What is added after the norm: each row where it stands and where not; the hand that is asked for."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.grade import BarGrade, GradeRequest, asks_for_fingers, grade_part
from clear_steps.core.grade.additions import ADDITIONS, MOST_ADDED, second_demand
from clear_steps.core.score import Event, Instrument, Note, Picking, Song, Technique
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()
QUARTER = Fraction(1, 4)


def bar_of(song: Song, **request: object) -> BarGrade:
    return grade_part(song, song.parts[0], LADDER, GradeRequest(**request)).bars[0]  # type: ignore[arg-type]


def with_events(song: Song, events: tuple[Event, ...]) -> Song:
    part = song.parts[0]
    return replace(song, parts=(replace(part, bars=(replace(part.bars[0], events=events),)),))


def techniques_on(song: Song, technique: Technique, places: set[int]) -> Song:
    events = tuple(
        replace(event, techniques=frozenset({technique})) if at in places else event
        for at, event in enumerate(song.parts[0].bars[0].events)
    )
    return with_events(song, events)


def words(row: str) -> str:
    return ADDITIONS[row].words


EIGHTHS = line(*["6.3", "6.3", "6.5", "6.5"] * 2, tempo=100)


def test_what_is_added_is_put_on_the_norm() -> None:
    bar = bar_of(techniques_on(EIGHTHS, Technique.ACCENT, {1, 3, 5}))
    norm = sum(found.step**6 for found in bar.findings.values()) ** (1 / 6)
    assert bar.added == {words("accents"): 0.4}
    assert bar.step == pytest.approx(norm + 0.4)


def test_accents_on_the_beat_are_no_accents_against_it() -> None:
    assert bar_of(techniques_on(EIGHTHS, Technique.ACCENT, {0, 2, 4})).added == {}


def test_mutes_are_switched_where_they_come_and_go() -> None:
    assert words("mutes") in bar_of(techniques_on(EIGHTHS, Technique.PALM_MUTE, {0, 1, 4, 5})).added
    assert words("mutes") not in bar_of(techniques_on(EIGHTHS, Technique.PALM_MUTE, set(range(8)))).added


def test_groups_of_three_lie_across_a_beat_of_four() -> None:
    threes = line(*["3.2", "2.3", "1.2"] * 5, "3.2", length=QUARTER, tempo=60)
    fours = line(*["3.2", "2.3", "1.2", "2.3"] * 4, length=QUARTER, tempo=60)
    assert words("groups") in bar_of(threes).added
    assert words("groups") not in bar_of(fours).added


def test_dotted_notes_are_long_and_short_by_three_to_one() -> None:
    plain = line(*["3.2"] * 8, tempo=80).parts[0].bars[0].events
    dotted = tuple(
        replace(event, quarters=Fraction(3, 4) if at % 2 == 0 else QUARTER) for at, event in enumerate(plain)
    )
    song = line(*["3.2"] * 8, tempo=80)
    assert words("dotted") in bar_of(with_events(song, dotted)).added
    assert words("dotted") not in bar_of(song).added


def test_a_finger_is_added_to_a_grip_that_is_held() -> None:
    d, with_little = "4.0+3.2+2.3+1.2", "4.0+3.2+2.3+1.3"
    held = bar_of(line(d, d, with_little, d, length=Fraction(1), tempo=80))
    assert words("added_fingers") in held.added
    assert words("added_fingers") not in bar_of(line(*[d] * 4, length=Fraction(1), tempo=80)).added


def test_a_strum_over_an_open_string_is_no_drone() -> None:
    drone = line(*["4.0", "2.3", "4.0", "2.5"] * 2, tempo=80)
    strum = line(*["5.0+4.2+3.2+2.1+1.0"] * 8, tempo=80)
    assert words("drone") in bar_of(drone).added
    assert bar_of(drone).findings["independence"].value is None, "nothing but a melody is fretted"
    assert words("drone") not in bar_of(strum).added


@pytest.mark.parametrize(
    ("instrument", "fret", "found"),
    [
        (Instrument.ACOUSTIC, 15, True),
        (Instrument.ACOUSTIC, 14, False),
        (Instrument.CLASSICAL, 13, True),
        (Instrument.ELECTRIC, 17, False),
        (None, 17, False),
    ],
)
def test_past_the_body_the_hand_reaches_over_it(
    instrument: Instrument | None, fret: int, found: bool
) -> None:
    """Common practice, no source: 12 frets clear of the body on a classical guitar, 14 with steel strings."""
    song = line(*[f"1.{fret}"] * 4, length=Fraction(1), tempo=80)
    song = replace(song, parts=(replace(song.parts[0], instrument=instrument),))
    assert (words("body") in bar_of(song).added) is found


def test_all_together_they_add_so_much_at_most() -> None:
    song = techniques_on(
        line(*["3.2", "2.3", "1.2"] * 5, "3.2", length=QUARTER, tempo=60), Technique.ACCENT, {1, 3}
    )
    added = bar_of(song).added
    assert len(added) > 1
    assert sum(added.values()) == pytest.approx(MOST_ADDED)


def test_a_second_demand_counts_by_how_near_it_is_to_the_first_and_on_the_same_moments() -> None:
    together = {"speed": [(0.0, None)], "picking": [(0.0, None)]}
    apart = {"speed": [(0.0, None)], "picking": [(1.0, None)]}
    assert second_demand({"speed": 5.0, "picking": 5.0}, together) == (0.5, "picking")
    assert second_demand({"speed": 5.0, "picking": 4.125}, together)[0] == pytest.approx(0.25)
    assert second_demand({"speed": 5.0, "picking": 3.0}, together)[0] == 0
    assert second_demand({"speed": 5.0, "picking": 5.0}, apart)[0] == 0
    assert second_demand({"speed": 3.0, "picking": 3.0}, together)[0] == pytest.approx(0.25)


def test_one_gesture_is_one_demand() -> None:
    both = {"shapes": [(0.0, None)], "stretch": [(0.0, None)]}
    assert second_demand({"shapes": 5.0, "stretch": 5.0}, both)[0] == 0


def test_tenths_ask_for_fingers_where_no_hand_is_written() -> None:
    tenths = line("5.3+2.5", "5.5+2.6", "5.7+2.8", "5.5+2.6", length=Fraction(1), tempo=80)
    part = tenths.parts[0]
    assert asks_for_fingers(part)
    assert not asks_for_fingers(replace(part, picking=Picking.PICK))
    assert not asks_for_fingers(line(*["6.3+5.5"] * 4).parts[0])
    assert bar_of(tenths).findings["picking"].value is None


def test_a_bass_before_each_strum_is_aimed_at() -> None:
    g = "4.0+3.0+2.0+1.3"
    strums = line(*[g] * 4, length=Fraction(1), tempo=100)
    aimed = line("6.3", g, "5.2", g, length=Fraction(1), tempo=100)
    assert bar_of(strums).findings["picking"].value is None
    found = bar_of(aimed).findings["picking"]
    assert found.value == pytest.approx(2 / 2.4)
    assert found.evidence.startswith(
        "There are two single strings to find between strokes, the first at beat 1"
    )
    assert bar_of(aimed).step > bar_of(strums).step
    assert [note.string for note in aimed.parts[0].bars[0].events[0].notes] == [6]
    assert isinstance(aimed.parts[0].bars[0].events[0].notes[0], Note)
