"""Cautions stand where the risk is, and nowhere else."""

import pytest

from clear_steps.core.grade import GradeRequest, grade_part
from clear_steps.core.hand import Player
from clear_steps.core.teach import Caution, cautions
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder

EASY = """Tempo: 80

e|----------------|
B|1---3---1---0---|
G|----------------|
D|----------------|
A|----------------|
E|----------------|
"""
WIDE = EASY.replace("B|1---3---1---0---|", "B|6---6---6---6---|").replace(
    "A|----------------|", "A|1---1---1---1---|"
)
BARRES = """Tempo: {tempo}

e|1-------1-------|1-------1-------|
B|1-------1-------|1-------1-------|
G|2-------2-------|2-------2-------|
D|3-------3-------|3-------3-------|
A|3-------3-------|3-------3-------|
E|1-------1-------|1-------1-------|
"""
DRIVEN = """Tempo: {tempo}

pck|{stroke} {stroke} {stroke} {stroke} {stroke} {stroke} {stroke} {stroke} |
  e|----------------|
  B|----------------|
  G|----------------|
  D|----------------|
  A|----------------|
  E|0-0-0-0-0-0-0-0-|
"""


def told(text: str, span_mm: float = 100.0) -> dict[str, Caution]:
    song = read_tab(text).song
    player = Player(span_mm)
    grading = grade_part(song, song.parts[0], default_ladder(), GradeRequest(player))
    return {caution.kind: caution for caution in cautions(song.parts[0], grading, player)}


def test_an_easy_bar_calls_for_nothing() -> None:
    assert told(EASY) == {}


def test_a_reach_past_the_span_is_told_at_its_bar() -> None:
    found = told(EASY + WIDE.removeprefix("Tempo: 80\n"))["stretch"]
    assert found.bars == (1,)
    assert "rather than push" in found.words


def test_what_the_fingering_chose_is_no_caution() -> None:
    """From note to note there is always a nearer way: the hand moves."""
    line = EASY.replace("B|1---3---1---0---|", "B|1-5-1-5-1-5-1-5-|").replace("Tempo: 80", "Tempo: 160")
    assert "stretch" not in told(line, 75.0)


def test_a_small_hand_is_warned_before_its_span_is_reached() -> None:
    """Frets 1 and 3 lie 67 mm apart: far within a usual hand, close to the span of one of 72 mm."""
    close = EASY.replace("B|1---3---1---0---|", "B|3---3---3---3---|").replace(
        "A|----------------|", "A|1---1---1---1---|"
    )
    assert told(close, 95.0) == {}
    assert "small hand" in told(close, 74.0)["stretch"].words, "67 mm are more than nine tenths of 74"
    assert told(close, 75.0) == {}


def test_only_a_small_hand_is_warned_early() -> None:
    """Frets 2 and 5 lie 92 mm apart on this guitar, 84 mm where its strings are 592 mm long."""
    wide = EASY.replace("B|1---3---1---0---|", "B|5---5---5---5---|").replace(
        "A|----------------|", "A|2---2---2---2---|"
    )
    shorter = f"Scale: 592\n{wide}"
    assert "small hand" in told(shorter, 90.0)["stretch"].words
    assert told(shorter, 91.0) == {}


@pytest.mark.parametrize(("tempo", "warned"), [(80, True), (81, False)])
def test_a_barre_is_long_by_the_clock(tempo: int, warned: bool) -> None:
    """Two bars of it last six seconds at 80."""
    assert ("barre" in told(BARRES.format(tempo=tempo))) is warned


@pytest.mark.parametrize(
    ("stroke", "tempo", "warned"), [("D", 90, True), ("D", 89, False), ("U", 100, False)]
)
def test_down_strokes_for_long(stroke: str, tempo: int, warned: bool) -> None:
    bars = DRIVEN.format(tempo=tempo, stroke=stroke)
    twice = bars + bars.split("\n", 1)[1]
    assert ("picking" in told(twice)) is warned


def test_tremolo_for_long() -> None:
    still = DRIVEN.replace(
        "pck|{stroke} {stroke} {stroke} {stroke} {stroke} {stroke} {stroke} {stroke} |\n", ""
    )
    trembling = still.replace("  e|", "how|trem------------|\n  e|")
    assert told(still.format(tempo=60)) == {}
    assert told(trembling.format(tempo=60))["picking"].bars == (0,), "four seconds are long"
    assert told(trembling.format(tempo=61)) == {}
    once = still.replace("  e|", "how|trem            |\n  e|")
    assert told(once.format(tempo=60)) == {}, "one note of it is no drive"


def test_raised_strings_say_newton_and_per_cent() -> None:
    """Tension grows with the square of the frequency, so two half tones are 26 % (Mersenne's law)."""
    found = told(f"Tuning: open E\n{EASY}")["tension"]
    assert "string 5 by 2: about 110 N, 26 % more" in found.words
    assert "string 3 by 1:" in found.words
    assert "tension" not in told(f"Tuning: drop D\n{EASY}")
