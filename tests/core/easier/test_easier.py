"""Edits, what was kept, and the search: the properties of an easier version over generated songs."""

import re
from dataclasses import replace
from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule

from clear_steps.core.easier import (
    TOLERANCE,
    Easier,
    StoppedError,
    alike,
    applied,
    by_hand,
    compared,
    easier,
    kept,
    refused_with,
    set_note,
    standing,
    version_of,
)
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.grade import GradeRequest, grade_part
from clear_steps.core.score import Bend, Note, Part, Song, Technique
from clear_steps.demo import TARGETS, demo_texts, demo_versions
from clear_steps.formats.tabtext import read_tab, write_tab
from clear_steps.ladders import default_ladder
from tests.songs import line, playable_songs
from tests.versions import against_the_beat

LADDER = default_ladder()
DEMO = [read_tab(text).song for text in demo_texts()]

MOST_OF_ALL = 10  # kinds and options that every bar has
generated = settings(max_examples=25)
targets = st.sampled_from([2.0, 3.0, 4.0])


def found(song: Song, target: float) -> Easier:
    return easier(song, song.parts[0], LADDER, target)


def on_the_instrument(part: Part) -> bool:
    return all(
        1 <= note.string <= part.tuning.strings and 0 <= note.fret <= 36
        for _, _, event in part.events()
        for note in event.notes
    )


def test_a_version_is_easier_or_refused_with_its_proof() -> None:
    edited: list[int] = []

    @generated
    @given(playable_songs(), targets)
    def law(song: Song, target: float) -> None:
        result = found(song, target)
        edited.append(len(result.edits))
        assert result.after.step <= result.before.step + 1e-9
        for bar, old in zip(result.after.bars, result.before.bars, strict=True):
            assert bar.step <= max(old.step, target) + TOLERANCE + 1e-9
        if result.reached:
            assert max([result.after.step, *(bar.step for bar in result.after.bars)]) <= target + TOLERANCE
            assert result.blocking == ()
        else:
            assert result.blocking
            assert all(
                (row.tried and row.step > target) or result.after.step > target for row in result.blocking
            )

    law()
    assert sum(count > 0 for count in edited) * 3 > len(edited), edited


@generated
@given(playable_songs(), targets)
def test_a_version_is_well_made(song: Song, target: float) -> None:
    result = found(song, target)
    part, touched = song.parts[0], {bar for edit in result.edits for bar in edit.bars}
    assert on_the_instrument(result.version)
    for index, (bar, old) in enumerate(zip(result.version.bars, part.bars, strict=True)):
        assert bar.quarters == old.quarters == bar.metre.quarters
        assert index in touched or bar == old
    written = replace(song, parts=(result.version,))
    assert read_tab(write_tab(written)).song == written


@generated
@given(playable_songs(), targets)
def test_the_grade_after_is_that_of_the_finished_version_graded_afresh(song: Song, target: float) -> None:
    result = found(song, target)
    assert grade_part(song, version_of(song.parts[0], result.edits), LADDER) == result.after


@generated
@given(playable_songs(), targets)
def test_refusing_every_edit_gives_the_original_and_the_request_repeats(song: Song, target: float) -> None:
    result = found(song, target)
    assert version_of(song.parts[0], result.edits, [edit.id for edit in result.edits]) == song.parts[0]
    again = found(song, target)
    assert (again.edits, again.version) == (result.edits, result.version)


class RefusingAndTakingBack(RuleBasedStateMachine):
    """Whatever is refused and taken back in between, the kept edits give one and the same version."""

    @initialize(seed=st.integers(0, len(demo_texts()) - 1))
    def begin(self, seed: int) -> None:
        self.part = read_tab(demo_texts()[seed]).song.parts[0]
        self.edits = demo_versions()[seed].edits
        self.refused: set[int] = set()
        self.seen: dict[frozenset[int], Part] = {}

    @rule(pick=st.integers(0, 999))
    def refuse(self, pick: int) -> None:
        if self.edits:
            self.refused.add(self.edits[pick % len(self.edits)].id)

    @rule(pick=st.integers(0, 999))
    def take_back(self, pick: int) -> None:
        if self.refused:
            self.refused.discard(sorted(self.refused)[pick % len(self.refused)])

    @rule(pick=st.integers(0, 999), string=st.integers(1, 6), fret=st.integers(0, 12))
    def change_by_hand(self, pick: int, string: int, fret: int) -> None:
        bar = pick % len(self.part.bars)
        version = version_of(self.part, self.edits, self.refused)
        try:
            events = set_note(version, bar, pick % len(version.bars[bar].events), string, fret)
        except InvalidValueError:
            return
        self.edits = (*self.edits, by_hand(self.part, self.edits, self.refused, bar, events))
        assert version_of(self.part, self.edits, self.refused).bars[bar].events == events
        self.seen.clear()

    @invariant()
    def one_version(self) -> None:
        if not hasattr(self, "edits"):
            return
        version, gone = standing(self.part, self.edits, self.refused)
        assert refused_with(self.edits, self.refused) <= gone
        assert self.seen.setdefault(gone, version) == version
        kept_edits = [edit for edit in self.edits if edit.id not in gone]
        assert applied(self.part, [change for edit in kept_edits for change in edit.changes]) == version


RefusingAndTakingBack.TestCase.settings = settings(max_examples=15, stateful_step_count=12, deadline=None)
TestRefusingAndTakingBack = RefusingAndTakingBack.TestCase


def test_refusing_an_edit_refuses_what_builds_on_it() -> None:
    edits = next(
        shipped.edits for shipped in demo_versions() if any(edit.builds_on for edit in shipped.edits)
    )
    built = next(edit for edit in edits if edit.builds_on)
    assert built.id in refused_with(edits, built.builds_on)


def test_a_refused_edit_is_graded_anew() -> None:
    song = read_tab(demo_texts()[4]).song
    edits = demo_versions()[4].edits
    dearest = max(edits, key=lambda edit: edit.loss)
    whole = compared(song, song.parts[0], LADDER, edits, [], GradeRequest())
    less = compared(song, song.parts[0], LADDER, edits, [dearest.id], GradeRequest())
    assert less.version != whole.version
    assert less.grading.step >= whole.grading.step - 1e-9
    (bar,) = dearest.bars
    assert less.kept_by_bar[bar] > whole.kept_by_bar[bar]
    assert [kept for at, kept in enumerate(less.kept_by_bar) if at != bar] == [
        kept for at, kept in enumerate(whole.kept_by_bar) if at != bar
    ]


@pytest.mark.parametrize("piece", range(len(TARGETS)))
def test_shipped_versions_reach_their_target_and_fit_their_piece(piece: int) -> None:
    song = read_tab(demo_texts()[piece]).song
    shipped = demo_versions()[piece]
    now = compared(song, song.parts[0], LADDER, shipped.edits, [], GradeRequest())
    assert max([now.grading.step, *(bar.step for bar in now.grading.bars)]) <= shipped.target + TOLERANCE
    assert now.kept.still_the_tune()
    assert on_the_instrument(now.version)
    untouched = set(range(len(now.version.bars))) - {bar for edit in shipped.edits for bar in edit.bars}
    assert all(now.kept_by_bar[bar] == pytest.approx(100) for bar in untouched)


def test_a_shipped_version_is_what_the_search_finds() -> None:
    song = read_tab(demo_texts()[4]).song
    assert found(song, TARGETS[4]).edits == demo_versions()[4].edits


def test_a_search_can_be_stopped_and_tells_how_far_it_is() -> None:
    song = read_tab(demo_texts()[1]).song
    told: list[float] = []
    easier(song, song.parts[0], LADDER, 3.0, progress=lambda share: told.append(share) is None)
    assert told
    assert all(0 <= share <= 1 for share in told)
    assert told[-1] > told[0]
    with pytest.raises(StoppedError):
        easier(song, song.parts[0], LADDER, 3.0, progress=lambda share: False)


def test_a_bar_that_is_hard_to_enter_is_eased_in_the_bar_before() -> None:
    """No change of bar 9 itself helped: the whole shape leaps into it out of bar 8."""
    song = DEMO[1]
    result = easier(song, song.parts[0], LADDER, 6.0)
    assert result.reached
    assert 7 in {change.bar for edit in result.edits for change in edit.changes}
    assert result.kept.overall > 97


@pytest.mark.parametrize(("piece", "target", "measures"), [(0, 1.0, {"stretch"}), (5, 2.0, {"rhythm"})])
def test_a_target_nobody_can_meet_is_refused_with_what_each_kind_could_do(
    piece: int, target: float, measures: set[str]
) -> None:
    result = found(read_tab(demo_texts()[piece]).song, target)
    assert not result.reached
    assert {row.measure for row in result.blocking} & measures
    assert result.lowest > target + TOLERANCE
    assert all(len(row.tried) > MOST_OF_ALL for row in result.blocking)
    if piece == 5:  # bars that stand above: neither a way nor a kind left brings them down
        assert all(tried.step > target + TOLERANCE for row in result.blocking for tried in row.tried)


def test_an_unreachable_target_guts_no_song() -> None:
    song = DEMO[5]
    refused, reached = found(song, 2.0), found(song, 4.0)
    assert (refused.reached, reached.reached) == (False, True)
    assert refused.kept.overall > reached.kept.overall - 20
    assert refused.lowest < refused.after.step


def scores(original: Song, version: Song) -> dict[str, float]:
    result = kept(original.parts[0], version.parts[0])
    return {
        "tune": result.tune,
        "bass": result.bass,
        "harmony": result.harmony,
        "rhythm": result.rhythm,
        "same": result.same_onsets,
    }


def test_the_same_song_keeps_everything() -> None:
    song = line("6.3+1.3", "2.5", "3.5", "6.0")
    assert set(scores(song, song).values()) == {100.0}


def test_every_second_eighth_left_out_keeps_half_the_onsets_and_more_than_half_the_tune() -> None:
    """Of the tune beats count 1, 0.8, 0.8, 0.8 and halves 0.5 each, its phrase's ends 1.4 times
    as much: 3.8 of 6.0. Of the strokes the bar's first counts 1.2, beats 1, halves 0.5: 4.2 of 6.2."""
    full = line(*["3.5", "3.7"] * 4)
    thinned = line(*["3.5"] * 4, length=Fraction(1))
    result = scores(full, thinned)
    assert result["rhythm"] == pytest.approx(100 * 4.2 / 6.2)
    assert result["tune"] == pytest.approx(100 * 3.8 / 6.0)
    assert result["same"] == 50


def test_another_octave_counts_most_of_the_way_and_another_note_not_at_all() -> None:
    song = line("1.5")
    assert scores(song, line("4.7"))["tune"] == pytest.approx(75)
    assert scores(song, line("1.6"))["tune"] == 0
    assert scores(song, line("4.7"))["same"] == 100


def test_a_bend_is_kept_by_its_target() -> None:
    song = line("3.7")
    bar = song.parts[0].bars[0]
    bent = replace(bar.events[0], notes=(Note(3, 7, frozenset({Technique.VIBRATO}), Bend(Fraction(2))),))
    bent_song = replace(
        song, parts=(replace(song.parts[0], bars=(replace(bar, events=(bent, *bar.events[1:])),)),)
    )
    assert scores(bent_song, line("3.9"))["tune"] == 100
    assert scores(bent_song, line("3.7"))["tune"] == 0


def test_a_version_that_keeps_little_of_the_tune_says_so() -> None:
    full = line(*["3.5", "3.7", "2.5", "2.8"] * 2)
    assert not kept(full.parts[0], line("6.0").parts[0]).still_the_tune()
    assert kept(full.parts[0], line("6.0").parts[0]).still_the_tune(0.0)


def test_a_reason_names_what_the_change_lowers_and_the_effect_by_how_much() -> None:
    for song in DEMO:
        found = easier(song, song.parts[0], LADDER, 3.0)
        for edit in found.edits:
            assert edit.reason.startswith("Bar ") or edit.setup
            fall = re.search(r"; [a-z ]+ (\d+\.\d) to (\d+\.\d)$", edit.effect)
            told = not re.search(r"as the other bars|makes room|held over", edit.reason)
            assert fall, edit.effect
            assert not told or float(fall[1]) >= float(fall[2]), (edit.reason, edit.effect)


def test_the_same_done_in_one_section_is_one_change_as_a_teacher_counts() -> None:
    part = DEMO[2].parts[0]
    found = easier(DEMO[2], part, LADDER, 3.0)
    firsts = alike(part, found.edits)
    by_id = {edit.id: edit for edit in found.edits}
    assert len(set(firsts.values())) <= len(part.sections) * len({edit.kind for edit in found.edits})
    assert all(by_id[first].kind == by_id[own].kind and first <= own for own, first in firsts.items())


PASSAGES = [
    read_tab(file.read_text()).song
    for file in sorted((Path(__file__).parents[2] / "data/calibration").glob("*.tab"))
]


@pytest.mark.parametrize("song", PASSAGES, ids=[song.title for song in PASSAGES])
def test_the_search_is_never_worse_than_keeping_only_the_notes_on_the_beat(song: Song) -> None:
    margin = against_the_beat(song)
    assert margin is None or margin >= -0.05


def test_a_part_without_bars_is_its_own_version() -> None:
    song = line("1.0")
    empty = replace(song.parts[0], bars=())
    found = easier(replace(song, parts=(empty,)), empty, LADDER, 1.0)
    assert (found.reached, found.edits, found.kept.overall) == (True, (), 100.0)
