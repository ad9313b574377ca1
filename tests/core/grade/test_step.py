"""From measures to a Step: the definitions, and the properties over generated songs."""

import csv
import itertools
from dataclasses import replace
from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from clear_steps.core.figures import to_learn
from clear_steps.core.grade import Grader, GradeRequest, Grading, Weighing, grade_part
from clear_steps.core.hand import Player
from clear_steps.core.score import Bar, Event, Part, Section, Song, Technique, Tuning
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import line, playable_songs

LADDER = default_ladder()
CALIBRATION = Path(__file__).parents[2] / "data" / "calibration"
SLACK = 1e-9

generated = settings(max_examples=40)


def graded(song: Song, **request: object) -> Grading:
    return grade_part(song, song.parts[0], LADDER, GradeRequest(**request))  # type: ignore[arg-type]


def passage(name: str) -> Song:
    return read_tab((CALIBRATION / f"{name}.tab").read_text()).song


def test_a_bar_is_the_sixth_norm_of_its_measures() -> None:
    bar = graded(line("6.1+5.3+4.3", "6.8+5.10+4.10", tempo=100)).bars[0]
    assert bar.step == pytest.approx(sum(found.step**6 for found in bar.findings.values()) ** (1 / 6))


def test_peak_is_the_hardest_two_neighbours_and_typical_the_cubic_mean_by_beats() -> None:
    song = line(*["1.0"] * 8, *["3.5", "3.8"] * 4, *["1.0"] * 8, tempo=120)
    grading = graded(song)
    steps = [bar.step for bar in grading.bars]
    pairs = [(a + b) / 2 for a, b in itertools.pairwise(steps)]
    assert max(max(pairs), max(steps) - 0.5) <= grading.peak <= max(steps)
    assert grading.typical == pytest.approx((sum(step**3 for step in steps) / len(steps)) ** (1 / 3))
    assert grading.step == pytest.approx(0.6 * grading.peak + 0.4 * grading.typical + grading.stamina)


def test_a_single_hard_moment_is_a_peak_half_a_step_below_its_bar() -> None:
    """A stretch past the usual on the first beat, among whole notes."""
    song = line("1.0", "6.1+4.5", "1.0", "1.0", length=Fraction(4), tempo=60)
    grading = graded(song)
    assert grading.peak == pytest.approx(max(bar.step for bar in grading.bars) - 0.5)
    assert 1 in grading.peak_bars


@pytest.mark.parametrize("beats_later", [1, 2, 3])
def test_the_same_lick_begun_later_has_the_same_peak(beats_later: int) -> None:
    lick = ["3.5", "3.8", "2.5", "2.8", "1.5", "1.8", "1.5", "2.8"] * 2
    rest = ["r"] * 8

    def peak(later: int) -> float:
        places = [*rest, *["r"] * (2 * later), *lick, *["r"] * (8 - 2 * later % 8), *rest]
        return graded(line(*places, tempo=160)).peak

    assert peak(beats_later) == pytest.approx(peak(0), abs=0.05)


@pytest.mark.parametrize(
    ("weighing", "shares"), [(Weighing.HARDEST, (1.0, 0.0)), (Weighing.WHOLE, (0.2, 0.8))]
)
def test_schools_of_weighing_share_peak_and_typical(weighing: Weighing, shares: tuple[float, float]) -> None:
    grading = graded(line("3.5", "3.8", "2.5", "2.8", *["1.0"] * 12), weighing=weighing)
    assert grading.step == pytest.approx(
        shares[0] * grading.peak + shares[1] * grading.typical + grading.stamina
    )


def test_a_bar_played_four_times_is_never_easier_than_once() -> None:
    """Of one fingering: the first time its shape comes from nowhere, later it lies there."""
    bar = ["6.3+5.5+4.5", "6.5+5.7+4.7", "6.3+5.5+4.5", "6.3+5.5+4.5"]
    once, often = (graded(line(*bar * times, length=Fraction(1), tempo=120)) for times in (1, 4))
    assert often.step >= once.step
    assert often.bars[0].step > often.bars[2].step or often.bars[0].step == often.bars[2].step


def test_what_there_is_to_learn_is_no_part_of_the_step() -> None:
    """One riff four times, and four different bars of the same kind: a teacher's pair, judged beside the
    Step."""
    riff, bars = (passage(name) for name in ("one-bar-riff-four-times-100", "four-different-bars-100"))
    assert abs(graded(riff).step - graded(bars).step) < 0.3
    assert to_learn(bars, bars.parts[0]).bars > to_learn(riff, riff.parts[0]).bars + 1


def test_the_demand_to_go_on_without_rest_adds_stamina() -> None:
    short, long = line(*["3.5", "3.6"] * 8, tempo=180), line(*["3.5", "3.6"] * 80, tempo=180)
    assert graded(short).stamina == 0
    assert 0 < graded(long).stamina <= 0.7


def test_slower_never_grades_a_bar_or_the_song_harder() -> None:
    lively: list[float] = []

    @generated
    @given(playable_songs(), st.sampled_from([Fraction(1, 4), Fraction(1, 2), Fraction(9, 10)]))
    def law(song: Song, share: Fraction) -> None:
        fast = graded(song)
        slow = graded(song, practice_tempo=song.playing_tempo * share)
        lively.append(fast.step)
        assert slow.step <= fast.step + SLACK
        assert all(a.step <= b.step + SLACK for a, b in zip(slow.bars, fast.bars, strict=True))

    law()
    assert len({round(step, 1) for step in lively}) > 8, lively
    assert max(lively) > 5


@generated
@given(playable_songs(), st.sampled_from([(60.0, 75.0), (90.0, 100.0), (100.0, 140.0)]))
def test_a_longer_span_never_grades_the_song_harder(song: Song, spans: tuple[float, float]) -> None:
    small, large = (graded(song, player=Player(span)).step for span in spans)
    assert large <= small + SLACK


@generated
@given(playable_songs())
def test_names_of_sections_change_nothing(song: Song) -> None:
    renamed = tuple(
        replace(section, name=f"Part {number}") for number, section in enumerate(song.parts[0].sections)
    )
    other = replace(song, parts=(replace(song.parts[0], sections=renamed, name="other"),))
    assert graded(other) == graded(song)


@generated
@given(playable_songs())
def test_the_same_places_in_another_tuning_grade_the_same(song: Song) -> None:
    part = song.parts[0]
    lowered = replace(part, tuning=Tuning(tuple(pitch - 1 for pitch in part.tuning.pitches)))
    assert graded(replace(song, parts=(lowered,))) == graded(song)


@generated
@given(playable_songs())
def test_the_same_input_gives_the_same_answer(song: Song) -> None:
    assert graded(song) == graded(song)


@generated
@given(playable_songs())
def test_appending_the_hardest_bar_after_a_rest_never_lowers_the_peak(song: Song) -> None:
    part = replace(
        song.parts[0],
        sections=(),
        bars=tuple(
            replace(bar, repeat_start=False, repeat_times=0, endings=()) for bar in song.parts[0].bars
        ),
    )
    song = replace(song, parts=(part,), order=())
    before = graded(song)
    assume(before.peak_bars)
    worst = part.bars[max(before.bars, key=lambda bar: bar.step).index]
    rest = Bar(worst.metre, (Event(worst.metre.quarters),))
    longer = graded(replace(song, parts=(replace(part, bars=(*part.bars, rest, worst)),)))
    assume(longer.bars[-1].step >= max(bar.step for bar in before.bars) - SLACK)
    assume(all(longer.grips[place] == grip for place, grip in before.grips.items()))  # for one fingering
    assert longer.peak >= before.peak - SLACK


ORNAMENTS = frozenset(
    {
        Technique.VIBRATO,
        Technique.TRILL,
        Technique.GRACE,
        Technique.SLAP,
        Technique.PALM_MUTE,
        Technique.TREMOLO,
    }
)


@generated
@given(playable_songs())
def test_for_one_fingering_deleting_an_ornament_never_raises_a_bar(song: Song) -> None:
    plain = replace(song, parts=(_without(song.parts[0]),))
    before, after = graded(song), graded(plain)
    assume(before.grips == after.grips)
    assert all(a.step <= b.step + SLACK for a, b in zip(after.bars, before.bars, strict=True))


def _without(part: Part) -> Part:
    def bare(event: Event) -> Event:
        notes = tuple(
            replace(note, techniques=note.techniques - ORNAMENTS, bend=None) for note in event.notes
        )
        return replace(event, techniques=event.techniques - ORNAMENTS, notes=notes)

    return replace(
        part, bars=tuple(replace(bar, events=tuple(bare(event) for event in bar.events)) for bar in part.bars)
    )


TO_LEARN = "one-bar-riff-four-times-100"  # differs in what there is to learn


# Teachers agree on these (common practice, no source).
def test_calibration_pairs_are_in_order() -> None:
    rows = [row for row in csv.DictReader((CALIBRATION / "pairs.csv").open()) if row["easier"] != TO_LEARN]
    margins = {
        (row["easier"], row["harder"]): graded(passage(row["harder"])).step
        - graded(passage(row["easier"])).step
        for row in rows
    }
    assert len(margins) == 15
    assert {pair: margin for pair, margin in margins.items() if margin < 0.3} == {}


def test_calibration_passages_lie_in_their_bands() -> None:
    outside = {}
    for row in csv.DictReader((CALIBRATION / "bands.csv").open()):
        step = graded(passage(row["passage"])).step
        if not float(row["from_step"]) <= step <= float(row["to_step"]):
            outside[row["passage"]] = step
    assert outside == {}


def test_sections_played_twice_weigh_twice() -> None:
    song = line(*["1.0"] * 8, *["3.5", "3.8"] * 4)
    part = song.parts[0]
    once = replace(part, sections=(Section("A", 0), Section("B", 1)))
    thrice = replace(part, sections=(Section("A", 0), Section("B", 1, 3)))
    assert graded(replace(song, parts=(thrice,))).typical > graded(replace(song, parts=(once,))).typical


@settings(max_examples=25)
@given(playable_songs(most_bars=3))
def test_a_glimpse_is_what_the_whole_grade_gives_for_the_hand_it_chose(song: Song) -> None:
    part = song.parts[0]
    grader = Grader(song, part, LADDER)
    whole = grader.grade(part)
    for index, bar in enumerate(whole.bars):
        glimpsed, grips = grader.glimpse(part, index, whole.hand)
        assert glimpsed == bar
        assert tuple(grips) == tuple(whole.fingered.hands[whole.hand][index])
