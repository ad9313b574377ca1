"""Picking, damping, rhythm and independence against arithmetic done by hand."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.easier.salience import salience_of
from clear_steps.core.grade import Finding, grade_part
from clear_steps.core.grade.measures.rhythm import degree, syncopation
from clear_steps.core.score import Bar, Event, Metre, Note, Picking, Song, Technique
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()
FOUR, THREE, SIX = Metre(4, 4), Metre(3, 4), Metre(6, 8)


def finding(song: Song, measure: str) -> Finding:
    return grade_part(song, song.parts[0], LADDER).bars[0].findings[measure]


def plucked(song: Song, picking: Picking) -> Song:
    return replace(song, parts=(replace(song.parts[0], picking=picking),))


def with_bar(song: Song, bar: Bar) -> Song:
    return replace(song, parts=(replace(song.parts[0], bars=(bar, *song.parts[0].bars[1:])),))


def test_string_skips_are_counted_per_second_and_fingers_make_them_lighter() -> None:
    """Eighths at 120 on strings 5, 2, 5, 2: three skips in two seconds."""
    song = line("5.2", "2.3", "5.2", "2.3", tempo=120)
    found = finding(song, "picking")
    assert found.value == pytest.approx(1.5)
    assert found.step == pytest.approx(LADDER.curves["picking"].step(1.5))
    assert found.evidence == "There are three string skips, the first to the & of beat 1 on the 2nd string."
    assert finding(plucked(song, Picking.FINGERS), "picking").value == pytest.approx(0.45)
    assert finding(line("3.2", "2.3", "3.2", "2.3"), "picking").value is None


def test_far_strings_at_once_are_more_than_a_bare_pick_can_do() -> None:
    song = plucked(line("5.0+1.0"), Picking.PICK)
    assert "cannot be struck with a bare pick" in finding(song, "picking").evidence
    assert finding(plucked(song, Picking.FINGERS), "picking").value is None


@pytest.mark.parametrize(
    ("onset", "metre", "weight"),
    [
        ("0", FOUR, 0),
        ("2", FOUR, -1),
        ("1", FOUR, -2),
        ("3", FOUR, -2),
        ("1/2", FOUR, -3),
        ("1/4", FOUR, -4),
        ("1", THREE, -1),
        ("3/2", SIX, -1),
        ("1/2", SIX, -2),
    ],
)
def test_a_place_weighs_by_the_level_of_the_metre_it_stands_on(onset: str, metre: Metre, weight: int) -> None:
    """Longuet-Higgins & Lee 1984, from memory: the bar weighs 0, each finer level one less."""
    assert metre.weight_at(Fraction(onset)) == weight


@pytest.mark.parametrize(
    ("onsets", "amount"),
    [
        ("0 1 2 3", 0),
        ("0 1/2 1 3/2 2 5/2 3 7/2", 0),
        ("0 3/2 3", 2),
        ("1/2 3/2 5/2 7/2", 4),
        ("0 3/4 3/2 9/4 11/4 7/2", 7),
        ("0 2", 0),
        ("1", 1),
    ],
    ids=[
        "on the beat",
        "even eighths",
        "an eighth tied over the half bar",
        "all off-beats",
        "sixteenths against the beat",
        "halves",
        "late by a beat",
    ],
)
def test_syncopation_is_what_a_note_lacks_against_the_place_it_holds_over(onsets: str, amount: int) -> None:
    """Worked by hand from the weights above."""
    assert syncopation(tuple(Fraction(onset) for onset in onsets.split()), FOUR)[0] == amount


def test_off_the_beat_is_harder_than_on_it() -> None:
    assert finding(line(*["3.5", "r"] * 4), "rhythm").value is None
    found = finding(line("r", "3.5", "r", "3.5", "r", "3.5"), "rhythm")
    assert found.step > 2
    assert found.evidence.startswith("Notes off the beat")


@pytest.mark.parametrize(
    ("amount", "word"), [(1, "a little"), (3, "a little"), (4, "clearly"), (7, "clearly"), (8, "strongly")]
)
def test_how_much_off_the_beat_is_said_in_a_word(amount: int, word: str) -> None:
    assert degree(amount) == word


def test_the_word_stands_in_the_sentence() -> None:
    assert "clearly" in finding(line(*["r", "3.5"] * 3), "rhythm").evidence


@pytest.mark.parametrize(
    ("metre", "step"), [(Metre(7, 8), 3.5), (Metre(5, 4), 3.5), (Metre(3, 4), 0.0), (Metre(6, 8), 0.0)]
)
def test_an_odd_bar_has_a_step_of_its_own(metre: Metre, step: float) -> None:
    bar = Bar(metre, (Event(metre.quarters, (Note(3, 5),)),))
    assert finding(with_bar(line("3.5"), bar), "rhythm").step == step


def test_tuplets_count_and_more_so_among_straight_notes() -> None:
    triplets = tuple(Event(Fraction(1, 3), (Note(3, 5 + at % 3),)) for at in range(12))
    assert finding(with_bar(line("3.5"), Bar(events=triplets)), "rhythm").step == 3
    mixed = (*triplets[:9], Event(Fraction(1), (Note(3, 5),)))
    assert finding(with_bar(line("3.5"), Bar(events=mixed)), "rhythm").step == 4


def test_free_time_is_exempt() -> None:
    song = line("r", "3.5", "r", "3.5")
    bar = song.parts[0].bars[0]
    free = replace(bar, events=tuple(replace(event, free=True) for event in bar.events))
    assert finding(with_bar(song, free), "rhythm").value is None


def test_a_melody_over_a_held_note_is_two_voices_and_an_arpeggio_of_a_held_shape_is_not() -> None:
    def ringing(*words: str) -> Song:
        song = line(*words, tempo=120)
        bar = song.parts[0].bars[0]
        return with_bar(
            song,
            replace(
                bar,
                events=tuple(
                    replace(e, techniques=frozenset({Technique.LET_RING})) for e in bar.events if e.notes
                ),
            ),
        )

    melody = finding(ringing("5.3+1.3", "1.5", "1.3", "1.5", "1.3", "1.5", "1.3", "1.5"), "independence")
    assert melody.value == pytest.approx(7 / 2)
    assert (
        finding(ringing("5.3", "4.2", "2.1", "4.2", "5.3", "4.2", "2.1", "4.2"), "independence").value is None
    )


def test_strings_that_must_be_stopped_are_counted_per_second() -> None:
    """Two open notes and two fretted ones, each stopped by a rest, in two seconds: an open string is touched,
    a finger only lifted."""
    found = finding(line("6.0", "r", "6.0", "r", "6.3", "r", "6.3", "r", tempo=120), "damping")
    assert found.value == pytest.approx(2.0)
    assert found.step == pytest.approx(LADDER.curves["damping"].step((2 * 0.6 + 2 * 0.3) / 2))


def test_a_staccato_is_a_note_and_a_rest() -> None:
    short = line("6.0", "6.3", "5.2", "5.0", length=Fraction(1), tempo=90)
    bar = short.parts[0].bars[0]
    events = tuple(replace(event, techniques=frozenset({Technique.STACCATO})) for event in bar.events)
    staccato = replace(short, parts=(replace(short.parts[0], bars=(replace(bar, events=events),)),))
    rests = line("6.0", "r", "6.3", "r", "5.2", "r", "5.0", "r", tempo=90)
    assert finding(staccato, "damping").step == pytest.approx(finding(rests, "damping").step)


def test_a_pickup_is_counted_to_the_end_of_its_metre_and_is_no_syncopation() -> None:
    """Two eighths before the first bar stand on beat 4 and after it; the last bar's three beats end where it
    ends."""
    song = line("3.2", "2.3", length=Fraction(1, 2))
    pickup = replace(song.parts[0].bars[0], events=song.parts[0].bars[0].events[:2], pickup=True)
    quarters = line(*["3.2"] * 7, length=Fraction(1)).parts[0].bars
    last = replace(
        quarters[1],
        events=(
            quarters[1].events[0],
            *[replace(quarters[1].events[0], quarters=Fraction(1, 2))] * 3,
            Event(Fraction(1, 2)),
        ),
        pickup=True,
    )
    part = replace(song.parts[0], bars=(pickup, quarters[0], last))
    assert [part.starts_at(index) for index in range(3)] == [3, 0, 0]
    graded = grade_part(replace(song, parts=(part,)), part, LADDER)
    assert [bar.findings["rhythm"].value for bar in graded.bars] == [None, None, None]
    assert "beat 4" in graded.bars[0].findings["speed"].evidence
    assert salience_of(part)[0][0] < salience_of(part)[1][0], "a pickup's first note is no bar's first"
