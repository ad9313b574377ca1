"""The ways offered: none calls a written chord by another name."""

from dataclasses import replace

import pytest

from clear_steps.core.easier import Wish, offers, staircase, ways, what_to_play
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
def test_chords_are_offered_whatever_the_chords_are_called(names: tuple[str, ...]) -> None:
    # Alone or over their bass: three ways at most are offered, those that keep most.
    assert {"chords to strum", "bass and chord"} & names_of_ways(*names)


def test_what_may_be_asked_for_is_told_apart_by_what_it_says() -> None:
    for role in Role:
        song = song_of(role, 3)
        part = song.parts[0]
        found = offers(song, part, range(2), LADDER)
        assert found
        assert len({(each.kind, each.says) for each in found}) == len(found)


def test_a_way_that_changes_nothing_is_none_and_the_nearest_comes_first() -> None:
    song = song_of(Role.LINE, 2)
    found = ways(song, song.parts[0], LADDER, Wish((1.0,)))
    assert all(way.easiest.edits for way in found[1:])
    reached = [way.easiest.reached for way in found]
    assert reached == sorted(reached, reverse=True)


def test_a_place_elsewhere_on_the_neck_is_said_to_the_player() -> None:
    song = song_of(Role.PICKED, 24)
    part = song.parts[0]
    edit = staircase(song, part, LADDER, Wish((3.0,)))[-1].edits[0]
    moved = replace(edit, kind="place", says="the same notes elsewhere on the neck")
    assert [saying.text for saying in what_to_play(part, [moved])] == [moved.says]
