"""Fingers and Steps follow the part as played, and what comes back keeps its fingers."""

from dataclasses import replace

import pytest

from clear_steps.core.grade import Grading, grade_part
from clear_steps.core.score import (
    Bar,
    Finger,
    Part,
    Section,
    Song,
    pinned_as,
    played_order,
    same_bars,
    with_finger,
)
from clear_steps.ladders import default_ladder
from tests.songs import line, song_by

LADDER = default_ladder()
ORDER = ("A", "B", "A", "C")


def in_sections(bars: dict[str, tuple[Bar, ...]], like: Song, names: str) -> Song:
    """A song of sections by name, written in some order and played in the same one."""
    written: list[Bar] = []
    sections = []
    for name in names:
        sections.append(Section(name, len(written)))
        written += bars[name]
    part = replace(like.parts[0], bars=tuple(written), sections=tuple(sections), readings=())
    return replace(like, parts=(part,), order=ORDER)


def graded(song: Song) -> Grading:
    return grade_part(song, song.parts[0], LADDER)


def generated(seed: int) -> tuple[Song, dict[str, tuple[Bar, ...]]]:
    song = song_by(seed, most_parts=1, most_bars=8)
    bars = tuple(replace(bar, tempo=None, pickup=False) for bar in song.parts[0].bars)
    third = max(len(bars) // 3, 1)
    return song, {name: bars[at * third :][:third] or bars for at, name in enumerate("ABC")}


@pytest.mark.parametrize("seed", range(60))
def test_a_section_moved_in_the_text_under_the_same_order_changes_nothing(seed: int) -> None:
    song, bars = generated(seed)
    first, moved = (graded(in_sections(bars, song, names)) for names in ("ABC", "CAB"))
    assert (moved.step, moved.peak, moved.typical) == (first.step, first.peak, first.typical)
    order = [
        [grading.bars[index].step for index in played_order(own.parts[0], ORDER)]
        for own, grading in (
            (in_sections(bars, song, "ABC"), first),
            (in_sections(bars, song, "CAB"), moved),
        )
    ]
    assert order[0] == order[1]


def fingers(song: Song) -> list[list[str]]:
    """By bar the finger of every single note."""
    grading = graded(song)
    rows: list[list[str]] = [[] for _ in song.parts[0].bars]
    for (bar, _), grip in sorted(grading.grips.items()):
        rows[bar].append(grip.presses[0][0].value)
    return rows


# A lick whose way in is from far below once and from its own place once.
LICK = ("2.8", "2.5", "3.7", "3.5", "4.7", "3.5", "3.7", "2.5")
BELOW = ("6.1", "6.3", "5.1", "5.3", "6.1", "6.3", "5.1", "5.3")
ABOVE = ("1.8", "1.10", "1.8", "2.10", "2.8", "2.10", "1.8", "1.10")


def test_equal_bars_have_equal_fingers_wherever_they_come_from() -> None:
    rows = fingers(line(*LICK, *BELOW, *LICK, *ABOVE, *LICK, tempo=110))
    assert rows[0] == rows[2] == rows[4]


def test_a_written_bar_has_the_hardest_of_its_ways_in_and_says_where_it_comes_from() -> None:
    far = ("1.15", "1.17", "1.15", "1.17", "1.15", "1.17", "1.15", "1.17")
    near = ("6.3", "6.2", "6.1", "6.3", "6.2", "6.1", "6.3", "6.1")
    song = line(*near, *BELOW, *far, tempo=120)
    part = song.parts[0]
    sections = tuple(Section(name, at) for at, name in enumerate("ABC"))
    song = replace(song, parts=(replace(part, sections=sections),))
    straight = graded(replace(song, order=("A", "B", "C")))
    around = graded(replace(song, order=("A", "B", "C", "B")))
    assert around.bars[1].step > straight.bars[1].step + 1
    assert "coming from bar 3" in around.bars[1].findings["shift"].evidence
    assert "coming from" not in straight.bars[1].findings["shift"].evidence


def test_bars_that_are_never_played_are_fingered_and_graded_too() -> None:
    song = line(*LICK, *BELOW, tempo=100)
    part = replace(song.parts[0], sections=(Section("A", 0), Section("B", 1)))
    grading = graded(replace(song, parts=(part,), order=("A",)))
    assert grading.fingered.route.apart == ((1,),)
    assert grading.bars[1].step > 1
    assert grading.step == pytest.approx(graded(line(*LICK, tempo=100)).step)


def test_a_part_without_bars_has_no_route() -> None:
    assert graded(Song("", parts=(Part(),))).step == 1


def with_pin(song: Song, bar: int, finger: Finger) -> Song:
    """The bar's first note pinned."""
    part = song.parts[0]
    return replace(song, parts=(with_finger(part, bar, 0, part.bars[bar].events[0].notes[0].string, finger),))


def test_a_pin_holds_in_every_bar_that_is_the_same() -> None:
    free = line(*LICK, *BELOW, *LICK, tempo=110)
    pinned = with_pin(free, 2, Finger.MIDDLE)
    before, after = fingers(free), fingers(pinned)
    assert before[0][0] == before[2][0] != "2"
    assert after[0][0] == after[2][0] == "2"
    assert pinned_as(pinned.parts[0].bars) == (2, 1, 2)
    assert same_bars(pinned.parts[0].bars) == ((2,), (), (0,))


def test_a_bar_with_pins_of_its_own_keeps_them() -> None:
    pinned = with_pin(with_pin(line(*LICK, *BELOW, *LICK), 0, Finger.MIDDLE), 2, Finger.LITTLE)
    assert [row[0] for row in fingers(pinned)] == ["2", fingers(pinned)[1][0], "4"]
