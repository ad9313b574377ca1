"""Alternatives, sentences, ranges, rungs, differences, readings."""

from dataclasses import replace
from fractions import Fraction

import pytest

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.figures import ComingBack, coming_back
from clear_steps.core.grade import (
    MEASURES,
    GradeRequest,
    alternatives,
    difference,
    grade_part,
    rungs,
    step_range,
    three_sentences,
)  # fmt: skip
from clear_steps.core.score import (
    Bend,
    Event,
    Metre,
    Part,
    Song,
    reading_in_use,
    with_reading,
    with_reading_in_use,
)
from clear_steps.core.score.words import bar_words, beat_words, count_sign, ordinal
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import line

LADDER = default_ladder()
STRUMMED = "Market morning"  # every grip in the place and by the fingers that everybody is taught
DEMO = [read_tab(text).song for text in demo_texts()]


def graded_step(song: Song, part: Part) -> float:
    return grade_part(song, part, LADDER).step


@pytest.mark.parametrize("song", DEMO, ids=lambda song: song.title)
def test_every_alternative_sounds_as_written_and_has_the_step_it_says(song: Song) -> None:
    part = song.parts[0]
    ways = alternatives(song, part, 1, 2, LADDER)
    assert ways[0].title == "As written"
    assert len(ways) > 1 or song.title == STRUMMED
    for way in ways:
        for before, after in zip(part.bars, way.part.bars, strict=True):
            for event, other in zip(before.events, after.events, strict=True):
                assert sorted(map(part.pitch_of, event.notes)) == sorted(map(way.part.pitch_of, other.notes))
        assert way.part.bars[0] == part.bars[0]
        assert way.part.bars[3:] == part.bars[3:]
        grading = grade_part(song, way.part, LADDER)
        assert grading.step == pytest.approx(way.song_step)
        assert tuple(bar.step for bar in grading.bars[1:3]) == pytest.approx(way.bar_steps)


def test_a_run_up_one_string_can_be_played_across_the_strings_with_fewer_moves() -> None:
    ways = alternatives(
        line("1.3", "1.5", "1.7", "1.8", "1.10", "1.12", "1.14", "1.15", tempo=120),
        line("1.3").parts[0],
        0,
        0,
        LADDER,
    )
    assert ways  # as written there is only one note
    song = line("1.3", "1.5", "1.7", "1.8", "1.10", "1.12", "1.14", "1.15", tempo=160)
    ways = alternatives(song, song.parts[0], 0, 0, LADDER)
    assert min(way.step for way in ways) < ways[0].step - 0.5
    assert any("Step easier than as written" in way.sentence for way in ways)


def test_a_passage_outside_the_part_is_refused() -> None:
    song = line("1.3")
    with pytest.raises(InvalidValueError, match="passage"):
        alternatives(song, song.parts[0], 0, 4, LADDER)


@pytest.mark.parametrize("song", DEMO, ids=lambda song: song.title)
def test_every_demo_piece_is_told_in_three_sentences(song: Song) -> None:
    sentences = three_sentences(
        song.parts[0], grade_part(song, song.parts[0], LADDER), coming_back(song.parts[0])
    )
    assert len(sentences) == 3
    assert all(sentence.endswith(".") for sentence in sentences)


@pytest.mark.parametrize(("bars", "where"), [(1, "its one bar stands"), (2, "all bars stand")])
def test_a_song_that_is_as_hard_all_through_is_told_so(bars: int, where: str) -> None:
    """It was said to lie between Step 3.0 and 3.0, and to be best begun with a bar as hard as the other."""
    song = line(*["6.0"] * 8 * bars, tempo=100)
    grading = grade_part(song, song.parts[0], LADDER)
    sentences = three_sentences(song.parts[0], grading, ComingBack())
    assert sentences[1] == f"It is as hard all through: {where} at Step {grading.bars[0].step:.1f}."
    assert "good place to begin" not in sentences[2]


def test_what_is_not_sure_gives_a_range() -> None:
    song = line(*["3.5", "3.7", "2.5", "2.8"] * 4, tempo=120)
    part = song.parts[0]
    sure = step_range(song, part, LADDER, grade_part(song, part, LADDER))
    assert (sure.low, sure.reasons) == (sure.high, ())
    guessed = replace(song, tempo_assumed=True)
    ranged = step_range(guessed, part, LADDER, grade_part(guessed, part, LADDER))
    assert ranged.low < graded_step(song, part) < ranged.high
    assert ranged.reasons == ("the tempo is assumed",)
    events = part.bars[0].events
    doubtful = replace(
        part.bars[0],
        events=(replace(events[0], notes=(replace(events[0].notes[0], uncertain=True),)), *events[1:]),
    )
    part = replace(part, bars=(doubtful, *part.bars[1:]))
    assert step_range(song, part, LADDER, grade_part(song, part, LADDER)).reasons == (
        "one note is uncertain",
    )


def test_optional_notes_give_a_range_that_begins_without_them() -> None:
    full, less = line(*["6.3+5.5+4.5+3.4+2.3+1.3"] * 4), line(*["6.3"] * 4)
    events = tuple(
        replace(
            event,
            notes=tuple(replace(note, optional=note.string < 6) for note in event.notes),
        )
        for event in full.parts[0].bars[0].events
    )
    part = replace(full.parts[0], bars=(replace(full.parts[0].bars[0], events=events),))
    ranged = step_range(full, part, LADDER, grade_part(full, part, LADDER))
    assert ranged.low == graded_step(less, less.parts[0])
    assert ranged.high == graded_step(full, full.parts[0])
    assert ranged.reasons == ("20 notes are optional",)


def test_ten_rungs_say_what_each_measure_allows() -> None:
    found = rungs(LADDER)
    assert [rung.step for rung in found] == list(range(1, 11))
    assert all({name for name, _ in rung.sentences} == set(MEASURES) for rung in found)
    spans = [float(dict(rung.sentences)["stretch"].split(" mm")[0].split()[-1]) for rung in found]
    assert spans == sorted(spans)
    assert "two-tone bends" in dict(found[6].sentences)["technique"]


def test_the_measure_behind_a_difference_is_the_one_without_which_both_agree() -> None:
    song = line(*["3.1", "3.12"] * 8, length=Fraction(1, 2), tempo=110)
    grading = grade_part(song, song.parts[0], LADDER)
    assert difference(song, song.parts[0], grading, 3.0).measure == "shift"
    assert difference(song, song.parts[0], grading, grading.step).measure == ""
    assert difference(song, song.parts[0], grading, 10.0, GradeRequest()).measure in MEASURES


def test_readings_are_kept_side_by_side_and_one_is_in_use() -> None:
    part = line("3.5", "3.7").parts[0]
    first = part.bars[0]
    begun = with_reading(part, 0, "as she plays it live")
    assert reading_in_use(begun, 0) == "as she plays it live"
    louder = replace(begun, bars=(replace(first, events=(Event(Fraction(4)),)),))
    back = with_reading_in_use(louder, 0, "as first written")
    assert back.bars[0] == first
    again = with_reading_in_use(back, 0, "as she plays it live")
    assert again.bars[0].events == (Event(Fraction(4)),)
    with pytest.raises(InvalidValueError, match="name of the reading"):
        with_reading(again, 0, "as first written")
    with pytest.raises(InvalidValueError, match="reading"):
        with_reading_in_use(again, 0, "nobody's")


def test_a_technique_of_the_teachers_own_counts_by_the_ladders_step() -> None:
    quiet = "".join(f"  {name}|------------|\n" for name in "BGDAE")
    song = read_tab(f"Tempo: 90\n\nlen|q  q  q  q  |\nhow|   *harp    |\n  e|0--3--0--3--|\n{quiet}").song
    assert grade_part(song, song.parts[0], LADDER).bars[0].findings["technique"].step == 0
    finding = (
        grade_part(song, song.parts[0], replace(LADDER, own_techniques={"harp": 6.0}))
        .bars[0]
        .findings["technique"]
    )
    assert finding.step > 5
    assert "harp" in finding.evidence


def test_ordinals_are_said_as_people_say_them() -> None:
    said = [ordinal(number) for number in (1, 2, 3, 4, 10, 11, 12, 13, 14, 20, 21, 22, 23, 24)]
    assert " ".join(said) == "1st 2nd 3rd 4th 10th 11th 12th 13th 14th 20th 21st 22nd 23rd 24th"


def test_no_way_is_played_in_a_position_that_a_hand_has_not() -> None:
    for song in DEMO:
        for way in alternatives(song, song.parts[0], 0, 1, LADDER):
            assert " 0th " not in way.sentence
            assert "-" not in way.sentence.split(";")[0].split(",")[0]


def test_other_ways_never_bend_an_open_string_and_say_why_they_are_easier() -> None:
    bent = line("3.4", "3.4", "2.5", "3.4", tempo=60)
    bar = bent.parts[0].bars[0]
    bend = replace(bar.events[0].notes[0], bend=Bend(Fraction(2)))
    bar = replace(bar, events=(replace(bar.events[0], notes=(bend,)), *bar.events[1:]))
    song = replace(bent, parts=(replace(bent.parts[0], bars=(bar,)),))
    ways = alternatives(song, song.parts[0], 0, 0, LADDER)
    notes = [note for way in ways for event in way.part.bars[0].events for note in event.notes]
    assert all(note.fret for note in notes if note.bend)


def test_an_easier_way_names_the_measure_that_makes_it_so() -> None:
    song = line("6.1", "6.5", "6.1", "6.5", "6.1", "6.5", "6.1", "6.5", tempo=120)
    ways = alternatives(song, song.parts[0], 0, 0, LADDER)
    easier = [way for way in ways[1:] if way.step < ways[0].step - 0.1]
    assert easier
    assert all("easier than as written, most by " in way.sentence for way in easier)
    assert len({way.title for way in ways}) == len(ways)


def test_a_second_place_of_a_lick_is_found_wherever_it_lies() -> None:
    """The box at the 5th fret lies at the 10th too, on the next thicker strings."""
    song = line("2.5", "2.8", "1.5", "1.8", "1.5", "2.8", "2.5", "2.8", tempo=90)
    ways = alternatives(song, song.parts[0], 0, 0, LADDER)
    assert any(way.positions[0] >= 8 for way in ways[1:])


def test_an_easy_song_is_not_said_to_be_hard() -> None:
    easy = line(*["6.0"] * 4, length=Fraction(1), tempo=60)
    told = three_sentences(easy.parts[0], grade_part(easy, easy.parts[0], LADDER), ComingBack())[0]
    assert told.startswith("Most is asked by the speed, in bar 1: ")


@pytest.mark.parametrize(
    ("metre", "onsets", "signs"),
    [
        (Metre(4, 4), ("0", "1/2", "5/4", "7/4", "7/3"), ["1", "&", "e", "a", "t"]),
        (Metre(7, 8), ("0", "3"), ["1", "7"]),
        (Metre(6, 8), ("0", "1/2", "1", "3/2", "2"), ["1", "t", "l", "2", "t"]),
    ],
)
def test_what_is_counted_and_what_is_told_agree_on_the_beat(
    metre: Metre, onsets: tuple[str, ...], signs: list[str]
) -> None:
    assert [count_sign(Fraction(onset), metre) for onset in onsets] == signs
    for onset, sign in zip(onsets, signs, strict=True):
        words = beat_words(Fraction(onset), metre)
        assert not sign.isdigit() or words == f"beat {sign}"


def test_parts_of_a_beat_that_nobody_counts_are_named() -> None:
    assert beat_words(Fraction(1, 5), Metre(4, 4)) == "the 2nd fifth of beat 1"
    assert beat_words(Fraction(11, 6), Metre(4, 4)) == "the last sixth of beat 2"


def test_the_pickup_is_no_bar_0_and_bars_far_apart_are_not_said_to_be_alike() -> None:
    assert bar_words(0) == "the pickup"
    assert bar_words(0, 3) == "the pickup and bar 3"
    assert bar_words(2, 5, 7) == "bars 2, 5 and 7"
    apart = line("3.0", "3.0", "r", "r", "r", "r", "r", "r", *["3.2", "3.9"] * 4, tempo=140)
    where = three_sentences(apart.parts[0], grade_part(apart, apart.parts[0], LADDER), ComingBack())[1]
    assert where.startswith("The bars lie between Step ")
    assert where.endswith("; the hardest is bar 2.")
