"""The map of a song: counts, orders, endings, sections that are as another."""

import pytest

from clear_steps.core.score import (
    LAST_TIME,
    UNCOUNTED,
    Bar,
    Part,
    Section,
    map_problems,
    played_order,
    song_map,
)
from clear_steps.formats.tabtext import read_tab, write_tab

EMPTY = "\n".join(
    f"{name}|0---|1---|2---|" if name == "B" else f"{name}|----|----|----|" for name in "eBGDAE"
)
ONE = "\n".join(f"{name}|5---|" if name == "B" else f"{name}|----|" for name in "eBGDAE")


def part(*sections: Section, bars: int = 6) -> Part:
    return Part(bars=(Bar(),) * bars, sections=sections)


def test_counts_within_an_order() -> None:
    """A count in the order holds for that mention; without one the section's own does."""
    song = part(Section("Verse", 0, 2), Section("Chorus", 2), bars=3)
    assert played_order(song) == (0, 1, 0, 1, 2)
    assert played_order(song, ("Verse", "Chorus x3")) == (0, 1, 0, 1, 2, 2, 2)
    assert played_order(song, ("Verse x1", "Chorus", "Verse x3")) == (0, 1, 2, *(0, 1) * 3)


def test_a_name_that_ends_like_a_count_needs_a_blank() -> None:
    assert [passage.name for passage in song_map(part(Section("Matrix2", 0)), ("Matrix2",))] == ["Matrix2"]


def test_a_section_as_another_but_for_a_bar() -> None:
    song = part(Section("A", 0), Section("A2", 3, like="A", differs=(1,)), Section("B", 4))
    assert played_order(song) == (0, 1, 2, 3, 1, 2, 4, 5)
    assert map_problems(song) == ()


@pytest.mark.parametrize(
    ("sections", "told"),
    [
        ((Section("A", 0, like="Z", differs=(1,)),), "is as 'Z', which is no section"),
        ((Section("A", 0, like="B", differs=(1,)), Section("B", 1, like="A", differs=(1,))), "is as itself"),
        ((Section("A", 0), Section("B", 3, like="A", differs=(1, 2))), "holds 3 bars and says that 2"),
        ((Section("A", 0), Section("B", 5, like="A", differs=(9,))), "changes bar 9 of 'A', which has 5"),
    ],
)
def test_what_cannot_be_is_told_and_still_played(sections: tuple[Section, ...], told: str) -> None:
    song = part(*sections)
    assert any(told in words for words in map_problems(song))
    assert played_order(song)


def test_the_last_time_and_uncounted_repeats() -> None:
    first, again = Bar(repeat_start=True), Bar(endings=(1,), repeat_times=3)
    song = Part(bars=(first, again, Bar(endings=(LAST_TIME,))))
    assert played_order(song) == (0, 1, 0, 1, 0, 2)
    uncounted = Part(bars=(first, Bar(endings=(1,), repeat_times=UNCOUNTED), Bar(endings=(LAST_TIME,))))
    assert played_order(uncounted) == (0, 1, 0, 2)


def test_an_ending_that_is_never_played_is_told() -> None:
    song = Part(bars=(Bar(repeat_start=True), Bar(endings=(1,), repeat_times=2), Bar(endings=(4,))))
    assert map_problems(song) == ("ending 4 at bar 3 is never played: its repeat is not played that often",)


def test_a_section_as_another_is_read_and_written() -> None:
    text = f"Tempo: 90\nOrder: Verse x2, Verse 2\n\n[Verse]\n{EMPTY}\n\n[Verse 2 as Verse: 3 x2]\n{ONE}\n"
    song = read_tab(text).song
    assert song.parts[0].sections[1] == Section("Verse 2", 3, 2, "Verse", (3,))
    assert played_order(song.parts[0], song.order) == (*(0, 1, 2) * 2, *(0, 1, 3) * 2)
    assert read_tab(write_tab(song)).song == song


def test_bars_repeated_nobody_knows_how_often_are_read_and_written() -> None:
    text = "Tempo: 90\n\nbar|    |x?  |last.|\n" + "\n".join(
        f"{'  ' + name}|:0--|1--:|2---|" if name == "B" else f"{'  ' + name}|:---|---:|----|"
        for name in "eBGDAE"
    )
    song = read_tab(text).song
    assert [bar.repeat_times for bar in song.parts[0].bars] == [0, UNCOUNTED, 0]
    assert song.parts[0].bars[2].endings == (LAST_TIME,)
    assert read_tab(write_tab(song)).song == song


def test_problems_of_the_map_are_told_by_the_reader() -> None:
    reading = read_tab(f"Tempo: 90\n\n[Verse 2 as Verse: 1]\n{ONE}\n")
    assert any("which is no section" in guess.message for guess in reading.guesses)


def test_each_passage_knows_its_own_section_and_whether_it_was_counted() -> None:
    """Two sections may bear one name; an order with a name nobody knows shifts nothing."""
    song = part(Section("Verse", 0, None), Section("Verse", 2), Section("End", 4, None))
    assert [passage.section and passage.section.first_bar for passage in song_map(song)] == [0, 2, 4]
    found = song_map(song, ("Nowhere x2", "Verse", "End x1"))
    assert [(passage.name, passage.counted) for passage in found] == [("Verse", False), ("End", True)]
