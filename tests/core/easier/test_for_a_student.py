"""Versions within a student's own limits instead of one number."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given, settings

from clear_steps.core.easier import KINDS, Easier, Wish, applied, is_reached, staircase, version_of
from clear_steps.core.grade import Ability, GradeRequest, HardestShape, Limits, grade_part
from clear_steps.core.hand import Player
from clear_steps.core.score import Song, Technique
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.songs import line, playable_songs

LADDER = default_ladder()
DEMO = [read_tab(text).song for text in demo_texts()]
ANY_STEP = 10.0
BEGINNER = Limits(
    3.0,
    frozenset({Technique.BEND_WHOLE, Technique.HAMMER_ON, Technique.PULL_OFF, Technique.TAP}),
    HardestShape.NO_BARRE,
)


def for_student(song: Song, limits: Limits, span_mm: float = 100.0) -> Easier:
    request = GradeRequest(Player(span_mm))
    return staircase(song, song.parts[0], LADDER, Wish((ANY_STEP,), limits=limits), request)[0]


def test_only_what_is_beyond_the_student_is_touched() -> None:
    fast = line(*["1.0", "1.1", "1.3", "1.1"] * 4, length=Fraction(1, 4))
    slow = line("1.0", "1.1", "1.3", "1.1", length=Fraction(1))
    part = replace(slow.parts[0], bars=(*slow.parts[0].bars, *fast.parts[0].bars))
    song = Song(tempo=Fraction(120), parts=(part,))
    found = for_student(song, Limits(notes_per_second=4.5))
    assert found.reached
    assert found.version.bars[0] == part.bars[0]
    assert {bar for edit in found.edits for bar in edit.bars} == {1}
    assert "notes a second" in found.edits[0].reason


@pytest.mark.parametrize("index", range(len(DEMO)))
def test_a_demo_piece_for_a_beginner_holds_to_the_limits_or_says_what_stands_in_the_way(index: int) -> None:
    song = DEMO[index]
    found = for_student(song, BEGINNER, 90.0)
    ability = Ability(Player(90.0), BEGINNER, LADDER)
    assert found.reached == is_reached(found.after, found.version, ANY_STEP, ability)
    if found.reached:
        rows = zip(
            found.after.bars, found.version.bars, found.after.fingered.hands[found.after.hand], strict=True
        )
        assert not any(ability.beyond(*row) for row in rows)
    else:
        assert all(row.limit and row.tried for row in found.blocking)
    assert found.after.step <= found.before.step + 1e-9


def test_within_the_limits_or_blocked_by_one_of_them() -> None:
    needed: list[int] = []

    @settings(max_examples=16)
    @given(playable_songs(most_bars=2))
    def law(song: Song) -> None:
        found = for_student(song, BEGINNER)
        needed.append(len(found.edits))
        request = GradeRequest(Player())
        assert found.version.bars == version_of(song.parts[0], found.edits).bars
        again = grade_part(song, found.version, LADDER, request)
        assert found.reached == is_reached(
            again, found.version, ANY_STEP, Ability(Player(), BEGINNER, LADDER)
        )
        assert found.reached or any(row.limit for row in found.blocking)
        assert found.after.step <= found.before.step + 1e-9

    law()
    assert sum(count > 0 for count in needed) > 4


@settings(max_examples=25)
@given(playable_songs(most_bars=2))
def test_a_kind_leaves_the_measures_alone_that_it_says_it_leaves(song: Song) -> None:
    part = song.parts[0]
    before = grade_part(song, part, LADDER)
    for kind in (kind for kind in KINDS.values() if kind.leaves):
        for index in range(len(part.bars)):
            for changes in kind.propose(part, index):
                made = applied(part, changes)
                assert made is not None
                after = grade_part(song, made, LADDER)
                was, now = before.bars[index].findings, after.bars[index].findings
                assert all(was[name].step == pytest.approx(now[name].step) for name in kind.leaves), kind.name
