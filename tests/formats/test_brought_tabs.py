"""Tabs as people type, send and copy them: what a careful reader would read is read, and guesses are told."""

from dataclasses import replace

import pytest
from hypothesis import given, settings

from clear_steps.core.score import TUNINGS, Song
from clear_steps.formats import import_song
from clear_steps.formats.tabtext import read_tab, read_what_can_be, write_tab
from clear_steps.formats.tabtext.brought import as_we_write
from clear_steps.formats.tabtext.brought.tunings import said_tuning
from clear_steps.formats.tabtext.problems import Findings
from tests.songs import songs

SYSTEM = """e|-----------------|-----------------|
B|-------1-------1-|-------0-------0-|
G|-----0---0---0---|-----0---0---0---|
D|---2-------2-----|---2-------2-----|
A|-3---------------|-----------------|
E|-----------------|-3---------------|
"""
PLAIN = read_tab(f"Time: 4/4\nTuning: standard\n\n{SYSTEM}").song


@pytest.mark.parametrize(
    ("words", "tuning"),
    [
        ("EADGBE", "standard"),
        ("E A D G B e", "standard"),
        ("Standard (EADGBe)", "standard"),
        ("D A D G A D", "DADGAD"),
        ("DADGBE", "drop D"),
        ("dadgbe", "drop D"),
        ("eadgbe", "standard"),
        ("EbAbDbGbBbEb", "half step down"),
        ("Drop C (C G C F A D)", "drop C"),
        ("1/2 step down", "half step down"),
        ("down a half step", "half step down"),
        ("tuned down 1/2 step (Eb Ab Db Gb Bb Eb)", "half step down"),
        ("Eb standard", "half step down"),
        ("whole step down", "whole step down"),
        ("Drop D tuning", "drop D"),
        ("B E A D G B E", "7 strings"),
        ("open G", "open G"),
    ],
)
def test_a_tuning_is_understood_as_people_say_it(words: str, tuning: str) -> None:
    assert said_tuning(words) == tuning
    assert tuning in TUNINGS


@pytest.mark.parametrize("words", ["nice", "G", "whatever the record has", "C G"])
def test_words_that_name_no_tuning_name_none(words: str) -> None:
    assert said_tuning(words) is None


@pytest.mark.parametrize(
    ("heading", "field", "value"),
    [
        ("Tempo: 120 bpm", "tempo", 120),
        ("Tempo = 132", "tempo", 132),
        ("BPM: 96", "tempo", 96),
        ("q=120", "tempo", 120),
        ("tempo 98", "tempo", 98),
        ("about 96", "tempo", 96),
        ("84 bpm", "tempo", 84),
        ("Song: Paper lantern", "title", "Paper lantern"),
        ("Paper lantern", "title", "Paper lantern"),
        ("capo: 2nd fret", "capo", 2),
        ("Capo 2", "capo", 2),
        ("capo on the 3rd fret", "capo", 3),
        ("Capo: none", "capo", 0),
        ("no capo", "capo", 0),
        ("3/4 time", "metre", "3/4"),
        ("Time signature: 3/4", "metre", "3/4"),
        ("Drop D tuning", "tuning", "drop D"),
        ("Tuning - DADGBE", "tuning", "drop D"),
    ],
)
def test_a_heading_is_understood_as_people_write_it(heading: str, field: str, value: object) -> None:
    song = read_tab(f"{heading}\n\n{SYSTEM}").song
    part = song.parts[0]
    found = {
        "tempo": song.tempo,
        "title": song.title,
        "capo": part.capo,
        "metre": str(part.bars[0].metre),
        "tuning": part.tuning.name,
    }
    assert found[field] == value
    assert [bar.events[0].notes for bar in part.bars] == [bar.events[0].notes for bar in PLAIN.parts[0].bars]


SHELLS = {
    "quoted in a mail": "\n".join(f"> {line}" for line in SYSTEM.splitlines()),
    "numbered": "\n".join(f"  {at}  {line}" for at, line in enumerate(SYSTEM.splitlines(), start=1)),
    "a web page": f"<pre>\n{SYSTEM.replace('-1-', '-1-')}</pre>&nbsp;",
    "long dashes": SYSTEM.replace("-", "\u2014"),
    "other bar lines": SYSTEM.replace("|", "\u2502"),
    "other blanks": "\n".join(f"\u00a0{line}" for line in SYSTEM.splitlines()),
}


@pytest.mark.parametrize("shell", SHELLS)
def test_what_is_around_a_tab_is_taken_off(shell: str) -> None:
    assert read_tab(SHELLS[shell]).song.parts[0].bars == PLAIN.parts[0].bars


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_letters_of_any_usual_file_are_read(encoding: str) -> None:
    found = import_song("cafe.txt", f"Title: Caf\u00e9\n\n{SYSTEM}".encode(encoding))
    assert found.song.title == "Caf\u00e9"
    assert ("Western" in " ".join(found.guessed)) == (encoding == "cp1252")


def test_a_title_on_a_line_of_its_own_is_told_as_a_guess() -> None:
    reading = read_tab(f"Paper lantern\n\n{SYSTEM}")
    assert any("it is taken for the title" in guess.message for guess in reading.guesses)


def test_a_metre_over_a_bar_is_that_bars_alone() -> None:
    reading = read_tab(f"   3/4               4/4\n{SYSTEM}")
    assert [str(bar.metre) for bar in reading.song.parts[0].bars] == ["3/4", "4/4"]


def test_words_behind_a_system_are_no_repeat() -> None:
    lines = SYSTEM.splitlines()
    song = read_tab("\n".join([f"{lines[0]} play at 2x speed, box 3", *lines[1:]])).song
    assert [bar.repeat_times for bar in song.parts[0].bars] == [0, 0]


@pytest.mark.parametrize(
    "remark", ["Solo", "Verse:", "3/4 time", "about 96", "Capo 2", "Title: other", "play 3 times"]
)
def test_a_remark_that_looks_like_a_heading_is_written_so_that_it_stays_one(remark: str) -> None:
    part = replace(PLAIN.parts[0], remarks=((1, remark),))
    song = replace(PLAIN, parts=(part,))
    assert read_tab(write_tab(song)).song == song


@settings(max_examples=60)
@given(songs())
def test_what_we_write_goes_through_unchanged(song: Song) -> None:
    lines = write_tab(song).split("\n")
    findings = Findings()
    assert as_we_write(lines, findings) == lines
    assert not findings.guesses


def test_lines_that_cannot_be_placed_are_told_at_the_bar_before_them() -> None:
    ragged = "e|0--2--3--|\nB|0--2--3--5--7--8-|2--|\nG|----|\nD|--|\nA|-|\nE|0---|\n"
    reading, problems = read_what_can_be(f"{SYSTEM}\n{ragged}")
    assert reading is not None
    assert problems
    line = problems[0].line
    assert reading.bar_at(line, problems[0].column) is None
    assert reading.bar_before(line) == (0, 1)
    assert reading.bar_before(0) is None


def test_repeat_dots_on_one_string_stand_beside_the_notes_of_another() -> None:
    """A fault that spoilt files found: the first note stood before the bar began."""
    text = """Title: Gate
Tempo: 90

e|0---2---3---5---|
B|:---------------|
G|----------------|
D|----------------|
A|----------------|
E|---------------:|
"""
    part = read_tab(text).song.parts[0]
    assert part.bars[0].repeat_start
    assert part.bars[0].repeat_times == 2
    frets = [[note.fret for note in event.notes] for event in part.bars[0].events]
    assert frets == [[0], [2], [3], [5]]
    assert [event.quarters for event in part.bars[0].events] == [1, 1, 1, 1]
