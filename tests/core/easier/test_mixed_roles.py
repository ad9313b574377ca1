"""Sections for different hands: no version crashes, and no way is offered that no hand plays."""

from dataclasses import replace

import pytest

from clear_steps.core.easier import Wish, easier, ways
from clear_steps.core.easier.answers import BASS_AND_CHORD
from clear_steps.core.easier.layers.together import basses_lie_in_their_grips
from clear_steps.core.score import Role, Section, Song
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.rolesongs import song_of

LADDER = default_ladder()
OTHERS = (Role.RIFF, Role.PICKED, Role.LINE, Role.CHORD_MELODY)


def mixed(first: Role, second: Role, seed: int) -> Song:
    """A song of two sections, each for its role."""
    one, two = song_of(first, seed), song_of(second, seed + 1)
    bars = (*one.parts[0].bars[:3], *two.parts[0].bars[:3])
    sections = (Section("Verse", 0, role=first), Section("Chorus", 3, role=second))
    return replace(one, parts=(replace(one.parts[0], bars=bars, sections=sections),))


@pytest.mark.parametrize("other", OTHERS)
@pytest.mark.parametrize("seed", range(3))
@pytest.mark.parametrize("strum_first", [True, False])
def test_a_song_with_strummed_and_other_sections_has_a_version(
    other: Role, seed: int, strum_first: bool
) -> None:
    roles = (Role.STRUM, other) if strum_first else (other, Role.STRUM)
    song = mixed(*roles, seed)
    found = easier(song, song.parts[0], LADDER, 2.0)
    assert len(found.version.bars) == 6
    assert found.after.step <= found.before.step


def tab(bars: str) -> str:
    """A tab whose rows are given from the thinnest string on, a column a beat."""
    rows = [f"{letter}|{row}|" for letter, row in zip("eBGDAE", bars.split(), strict=True)]
    return "Time: 4/4\nTuning: standard\n\n" + "\n".join(rows)


@pytest.mark.parametrize(
    ("text", "fits"),
    [
        (tab("--0---0- --1---1- --0---0- -------- 3---3--- --------"), True),  # C, its root with it
        (tab("--0---0- --1---1- --0---0- -------- -------- 5---5---"), False),  # A is none of C
        (tab("--8---8- --8---8- --9---9- -------- 3---3--- --------"), False),  # out of the hand's reach
        (tab("0---0--- -------- -------- -------- -------- --------"), False),  # no chord at all
    ],
    ids=["root in the grip", "another bass", "too far", "no chord"],
)
def test_a_bass_lies_in_the_grip_it_is_played_with(text: str, fits: bool) -> None:
    assert basses_lie_in_their_grips(read_tab(text).song.parts[0]) == fits


@pytest.mark.parametrize("seed", range(4))
def test_bass_and_chord_is_offered_only_where_a_hand_plays_it(seed: int) -> None:
    song = song_of(Role.STRUM, seed)
    for way in ways(song, song.parts[0], LADDER, Wish((3.0,))):
        if way.wish.layer == BASS_AND_CHORD:
            assert basses_lie_in_their_grips(way.easiest.version)
