"""The ways offered: none calls a written chord by another name."""

from dataclasses import replace

import pytest

from clear_steps.core.easier import Wish, ways
from clear_steps.core.score import Role
from clear_steps.ladders import default_ladder
from tests.rolesongs import song_of

LADDER = default_ladder()


def names_of_ways(*chords: str) -> set[str]:
    song = song_of(Role.PICKED, 1)
    part = song.parts[0]
    bars = tuple(
        replace(bar, events=(replace(bar.events[0], chord=chords[at % len(chords)]), *bar.events[1:]))
        for at, bar in enumerate(part.bars)
    )
    part = replace(part, bars=bars)
    return {way.name for way in ways(replace(song, parts=(part,)), part, LADDER, Wish((2.0,)))}


@pytest.mark.parametrize("names", [("C", "G", "Am"), ("Ab", "Db", "Eb"), ("Cm7", "Bdim", "F#m")])
def test_chords_to_strum_are_offered_whatever_the_chords_are_called(names: tuple[str, ...]) -> None:
    assert "chords to strum" in names_of_ways(*names)
