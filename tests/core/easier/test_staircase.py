"""Staircases, approaches, layers and edits by hand."""

import itertools
from dataclasses import replace
from fractions import Fraction
from statistics import fmean

import pytest
from hypothesis import given, settings

from clear_steps.core.easier import (
    APPROACHES,
    TOLERANCE,
    Approach,
    Pair,
    SetupWish,
    TuningAndCapo,
    Wish,
    broken_laws,
    by_hand,
    easier,
    possible_setups,
    staircase,
    version_of,
)
from clear_steps.core.easier.setups import NECK_WISHES
from clear_steps.core.easier.wanted import wanted_bars
from clear_steps.core.easier.ways import choices_of
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import grade_part
from clear_steps.core.score import STANDARD, TUNINGS, Event, Song
from clear_steps.core.score.moving import moved_events
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import line, playable_songs

LADDER = default_ladder()
DEMO = [read_tab(text).song for text in demo_texts()]


def test_each_easier_version_keeps_no_more_than_the_one_before() -> None:
    needed: list[int] = []

    @settings(max_examples=15)
    @given(playable_songs(most_bars=3))
    def law(song: Song) -> None:
        found = staircase(song, song.parts[0], LADDER, Wish((2.0, 3.0, 4.0)))
        assert [step.target for step in found] == [4.0, 3.0, 2.0]
        needed.append(len(found[-1].edits))
        for harder, next_one in itertools.pairwise(found):
            assert next_one.kept.overall <= harder.kept.overall + 1e-9
        for step in found:
            assert step.version.bars == version_of(song.parts[0], step.edits).bars
            assert step.reached == (
                max(step.after.step, *(bar.step for bar in step.after.bars)) <= step.target + TOLERANCE
            )
            assert step.reached or (step.blocking and all(row.tried for row in step.blocking))

    law()
    assert sum(count > 0 for count in needed) > 8


def test_a_single_target_goes_down_the_same_stairs() -> None:
    song = DEMO[3]
    alone = easier(song, song.parts[0], LADDER, 3.0)
    assert alone.edits == staircase(song, song.parts[0], LADDER, Wish((3.0,)))[0].edits


@pytest.mark.parametrize("approach", list(Approach))
def test_an_approach_leaves_the_kinds_alone_that_it_promises_to(approach: Approach) -> None:
    song = DEMO[1]
    found = staircase(song, song.parts[0], LADDER, Wish((3.0,), approach))[0]
    assert found.edits
    kinds = {
        option.kind
        for choices in choices_of(song.parts[0], wanted_bars(song.parts[0]), LADDER).values()
        for choice in choices
        if choice.name in APPROACHES[approach].without
        for option in choice.options
    }
    assert not {edit.kind for edit in found.edits} & kinds


def test_over_the_demo_the_groove_keeps_more_rhythm_than_melody_first_and_that_more_of_the_tune() -> None:
    kept = {
        approach: [
            staircase(song, song.parts[0], LADDER, Wish((3.0,), approach))[0].kept for song in DEMO[:5]
        ]
        for approach in (Approach.GROOVE, Approach.MELODY)
    }
    rhythm = {approach: fmean(own.rhythm for own in found) for approach, found in kept.items()}
    tune = {approach: fmean(own.tune for own in found) for approach, found in kept.items()}
    assert rhythm[Approach.GROOVE] >= rhythm[Approach.MELODY]
    assert tune[Approach.MELODY] >= tune[Approach.GROOVE]


def test_an_edit_by_hand_joins_the_others_and_builds_on_them() -> None:
    song = DEMO[0]
    part = song.parts[0]
    found = easier(song, part, LADDER, 3.0)
    bar = found.edits[0].bars[0]
    rest = (Event(part.bars[bar].quarters),)
    edit = by_hand(part, found.edits, (), bar, rest)
    assert edit.kind == "hand"
    assert set(edit.builds_on) == {other.id for other in found.edits if bar in other.bars}
    edits = (*found.edits, edit)
    assert version_of(part, edits).bars[bar].events == rest
    assert version_of(part, edits, [edit.builds_on[0]]).bars[bar].events != rest
    with pytest.raises(InvalidValueError, match="bar"):
        by_hand(part, found.edits, (), 999, rest)


def test_the_same_shapes_in_standard_tuning_keep_everything_and_say_where_they_sit() -> None:
    song = DEMO[1]
    part = replace(song.parts[0], tuning=TUNINGS["half step down"])
    song = replace(song, parts=(part,))
    found = staircase(song, part, LADDER, Wish((10.0,), setup=SetupWish.STANDARD_SHAPES))[0]
    edit = found.edits[0]
    assert (found.version.tuning, edit.setup and edit.setup.half_tones) == (STANDARD, 1)
    assert "a half tone above the original" in edit.effect
    assert found.kept.overall == 100
    assert found.kept.same_onsets == 100
    assert version_of(part, found.edits, [edit.id]) == part
    easier_too = staircase(song, part, LADDER, Wish((4.0,), setup=SetupWish.STANDARD_SHAPES))[0]
    assert easier_too.reached
    assert 0 < easier_too.kept.overall < 100


def test_the_same_music_elsewhere_sounds_the_same() -> None:
    song = line("6.5+4.7", "3.5", "2.6", "1.5", length=Fraction(1))
    part = song.parts[0]
    found = staircase(song, part, LADDER, Wish((10.0,), setup=SetupWish.CAPO_MUSIC))[0]
    assert found.version.capo > 0
    assert (found.kept.tune, found.kept.same_onsets) == (
        100,
        100,
    )  # strings that rang may stop sooner elsewhere
    for (_, _, before), (_, _, after) in zip(part.events(), found.version.events(), strict=True):
        assert sorted(map(part.pitch_of, before.notes)) == sorted(map(found.version.pitch_of, after.notes))


@pytest.mark.parametrize(
    ("wish", "message"),
    [
        (SetupWish.STANDARD_SHAPES, "tuning"),
        (SetupWish.STANDARD_MUSIC, "tuning"),
        (SetupWish.NO_CAPO_SHAPES, "capo"),
    ],
)
def test_a_setup_that_cannot_be_had_says_why(wish: SetupWish, message: str) -> None:
    song = line("1.0")
    with pytest.raises(InvalidValueError, match=message):
        staircase(song, song.parts[0], LADDER, Wish((10.0,), setup=wish))


@pytest.mark.parametrize("name", ["standard", "half step down", "drop C#", "open G"])
@pytest.mark.parametrize("capo", [0, 3])
def test_only_set_ups_that_can_be_had_are_offered(name: str, capo: int) -> None:
    song = line("6.5+4.7", "3.5", "2.6", "1.5", length=Fraction(1))
    part = replace(song.parts[0], tuning=TUNINGS[name], capo=capo)
    song = replace(song, parts=(part,))
    offered = {offer.wish: offer.half_tones for offer in possible_setups(song, part, LADDER)}
    for wish in (each for each in SetupWish if each and each not in NECK_WISHES):
        if wish in offered:
            found = staircase(song, part, LADDER, Wish((10.0,), setup=wish))[0]
            assert found.edits[0].setup
            assert found.edits[0].setup.half_tones == offered[wish]
        else:
            with pytest.raises(InvalidValueError):
                staircase(song, part, LADDER, Wish((10.0,), setup=wish))


NECKS = [
    TuningAndCapo(STANDARD, 2),
    TuningAndCapo(TUNINGS["drop D"]),
    TuningAndCapo(TUNINGS["DADGAD"], 3),
    TuningAndCapo(TUNINGS["whole step down"]),
    TuningAndCapo(TUNINGS["bass"]),
]


@pytest.mark.parametrize("neck", NECKS, ids=lambda neck: neck.words)
@pytest.mark.parametrize("chords", ["6.3+5.5+4.5+3.4+2.3+1.3", "5.5+4.7", "1.5"])
def test_any_neck_may_be_asked_for_and_what_can_stay_is_offered(neck: TuningAndCapo, chords: str) -> None:
    song = line(*[chords] * 4, length=Fraction(1))
    part = song.parts[0]
    offered = {offer.wish: offer.half_tones for offer in possible_setups(song, part, LADDER, neck)}
    for wish in NECK_WISHES:
        asked = Wish((10.0,), setup=wish, tuning_and_capo=neck)
        if wish not in offered:
            with pytest.raises(InvalidValueError):
                staircase(song, part, LADDER, asked)
            continue
        found = staircase(song, part, LADDER, asked)[0]
        assert (found.version.tuning, found.version.capo) == (neck.tuning, neck.capo)
        for (_, _, before), (_, _, after) in zip(part.events(), found.version.events(), strict=True):
            old = {part.pitch_of(note) + offered[wish] for note in before.notes}
            new = {found.version.pitch_of(note) for note in after.notes}
            if wish is SetupWish.SAME_CHORDS:
                assert {pitch % 12 for pitch in new} == {pitch % 12 for pitch in old}
            else:
                assert new == old


def test_on_another_neck_names_are_those_of_the_shapes_held() -> None:
    song = line(*["6.3+5.5+4.5+3.4+2.3+1.3"] * 4, length=Fraction(1))
    bar = song.parts[0].bars[0]
    named = replace(bar, events=(replace(bar.events[0], chord="G"), *bar.events[1:]))
    part = replace(song.parts[0], bars=(named,))
    song = replace(song, parts=(part,))
    for wish in (SetupWish.SAME_CHORDS, SetupWish.SAME_MUSIC):
        neck = TuningAndCapo(STANDARD, 3)
        found = staircase(song, part, LADDER, Wish((10.0,), setup=wish, tuning_and_capo=neck))[0]
        assert found.version.bars[0].events[0].chord == "E"
        assert not broken_laws(Pair(part, found.version))


def test_a_set_up_without_a_neck_says_what_is_missing() -> None:
    song = line("1.0")
    with pytest.raises(InvalidValueError, match="tuning and capo"):
        staircase(song, song.parts[0], LADDER, Wish((10.0,), setup=SetupWish.SAME_MUSIC))


@pytest.mark.parametrize("index", [0, 2])
def test_what_is_refused_is_not_done_and_another_way_is_found(index: int) -> None:
    song = DEMO[index]
    part = song.parts[0]
    (found,) = staircase(song, part, LADDER, Wish((3.0,)))
    first = found.edits[0]
    refused = frozenset(
        (bar, edit.kind) for edit in found.edits for bar in edit.bars if edit.kind == first.kind
    )
    (other,) = staircase(song, part, LADDER, Wish((3.0,), refused=refused))
    assert other.edits
    assert not refused & {(bar, edit.kind) for edit in other.edits for bar in edit.bars}
    assert other.after.step < other.before.step


@pytest.mark.parametrize("index", range(len(DEMO)))
def test_bars_that_recur_are_one_bar_in_the_version_wherever_the_target_allows(index: int) -> None:
    """Nothing else keeps them apart than the target: with the edits of any one of them the others would stand
    above it."""
    song = DEMO[index]
    part = song.parts[0]
    (found,) = staircase(song, part, LADDER, Wish((4.0,)))
    groups = [
        [at for at, bar in enumerate(part.bars) if bar.events == own.events and bar.metre == own.metre]
        for own in part.bars
    ]
    for group in (group for group in groups if len({found.version.bars[at].events for at in group}) > 1):
        for model in group:
            bars = tuple(
                found.version.bars[model] if at in group else bar for at, bar in enumerate(found.version.bars)
            )
            grading = grade_part(song, replace(found.version, bars=bars), LADDER)
            assert (
                max([grading.step, *(bar.step for bar in grading.bars)]) > 4.0 + TOLERANCE
                or not found.reached
            )


def test_a_bar_that_is_another_moved_along_the_neck_is_changed_alike() -> None:
    shape = ["3.8+4.8", "1.6", "2.8+3.4", "1.5", "2.6", "2.3", "4.5+5.6", "2.3+3.7"]
    higher = ["3.11+4.11", "1.9", "2.11+3.7", "1.8", "2.9", "2.6", "4.8+5.9", "2.6+3.10"]
    between = ["2.2", "1.0", "2.12", "2.2", "2.4", "3.3", "5.10", "2.2"]
    song = line(*shape, *between, *higher, tempo=140)
    part = song.parts[0]
    (found,) = staircase(song, part, LADDER, Wish((3.5,)))
    first, third = found.version.bars[0].events, found.version.bars[2].events
    assert found.reached
    assert first != part.bars[0].events
    assert third == moved_events(first, 3)
