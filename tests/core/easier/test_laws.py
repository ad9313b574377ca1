"""The exact laws of a version, over made-up songs of every role."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.easier import LAWS, TOLERANCE, Pair, Wish, broken_laws, staircase, version_of
from clear_steps.core.score import Event, Part, Role
from clear_steps.formats.tabtext import read_tab, write_tab
from clear_steps.ladders import default_ladder
from tests.rolesongs import song_of

LADDER = default_ladder()
few = settings(max_examples=6)
seeds = st.integers(0, 10_000)


def pair(original: Part, version: Part) -> Pair:
    return Pair(original, version, shapes=LADDER.chord_shapes)


@pytest.mark.parametrize("role", list(Role))
def test_a_staircase_holds_to_the_exact_laws(role: Role) -> None:
    edited: list[int] = []

    @few
    @given(seeds)
    def law(seed: int) -> None:
        song = song_of(role, seed)
        part = song.parts[0]
        found = staircase(song, part, LADDER, Wish((3.0, 2.0)))
        edited.append(len(found[-1].edits))
        for step in found:
            broken = broken_laws(pair(part, step.version))
            assert not [(own.name, bars) for own, bars in broken if own.floor == 1.0], song.title
            assert step.after.step <= step.before.step + 1e-9
            for now, was in zip(step.after.bars, step.before.bars, strict=True):
                assert now.step <= max(was.step, step.target + TOLERANCE) + 1e-6
            assert version_of(part, step.edits) == step.version
            assert version_of(part, step.edits, [edit.id for edit in step.edits]) == part
            named = {bar for edit in step.edits for bar in edit.bars}
            for index, (bar, own) in enumerate(zip(step.version.bars, part.bars, strict=True)):
                assert bar.quarters == own.quarters
                assert index in named or bar == own
            written = replace(song, parts=(step.version,))
            assert read_tab(write_tab(written)).song.parts[0].bars == step.version.bars
        assert found[1].kept.overall <= found[0].kept.overall

    law()
    assert any(edited)


def test_equal_bars_go_to_one_place_even_where_their_neighbours_differ() -> None:
    song = song_of(Role.PICKED, 24)
    part = song.parts[0]
    assert part.bars[0].events == part.bars[3].events
    for step in staircase(song, part, LADDER, Wish((4.0, 3.0))):
        assert step.version.bars[0].events == step.version.bars[3].events


@pytest.mark.parametrize("role", list(Role))
def test_whatever_is_refused_the_rest_still_stands(role: Role) -> None:
    @few
    @given(seeds, st.data())
    def law(seed: int, data: st.DataObject) -> None:
        song = song_of(role, seed)
        part = song.parts[0]
        (found,) = staircase(song, part, LADDER, Wish((2.0,)))
        ids = [edit.id for edit in found.edits]
        refused = data.draw(st.lists(st.sampled_from(ids), unique=True)) if ids else []
        version = version_of(part, found.edits, refused)
        for before, bar in zip((None, *version.bars), version.bars, strict=False):
            held = {note.string: note.fret for note in before.events[-1].notes} if before else {}
            for event in bar.events:
                assert all(held.get(note.string) == note.fret for note in event.notes if note.tied)
                held = {note.string: note.fret for note in event.notes}

    law()


def with_first_bar(part: Part, *events: Event) -> Part:
    return replace(part, bars=(replace(part.bars[0], events=events), *part.bars[1:]))


def test_a_law_that_is_broken_names_its_bar() -> None:
    strum, riff = song_of(Role.STRUM, 1).parts[0], song_of(Role.RIFF, 3).parts[0]
    bar = strum.bars[0]
    silent = with_first_bar(strum, Event(bar.quarters))
    assert {law.name for law, bars in broken_laws(pair(strum, silent)) if 0 in bars} >= {"sounding"}
    named = replace(bar.events[0], chord="C")
    original = with_first_bar(strum, named, *bar.events[1:])
    other = with_first_bar(strum, replace(named, chord="D"), *bar.events[1:])
    assert {law.name for law, bars in broken_laws(pair(original, other)) if 0 in bars} >= {"names"}
    power = next(
        (index, at)
        for index, own in enumerate(riff.bars)
        for at, event in enumerate(own.events)
        if len(event.notes) == 2
    )
    events = list(riff.bars[power[0]].events)
    events[power[1]] = replace(events[power[1]], notes=events[power[1]].notes[:1])
    bars = list(riff.bars)
    bars[power[0]] = replace(bars[power[0]], events=tuple(events))
    upper = replace(riff, bars=tuple(bars))
    assert {law.name for law, found in broken_laws(pair(riff, upper)) if power[0] in found} >= {"roots"}


def test_every_law_has_a_name_of_its_own_and_says_what_holds() -> None:
    assert len({law.name for law in LAWS}) == len(LAWS)
    assert all(law.says and 0.8 <= law.floor <= 1.0 for law in LAWS)
