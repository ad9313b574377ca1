"""More than one thing in a text: songs, guitars, sections that are only named, boxes, strings left out."""

import pytest

from clear_steps.core.errors import InvalidValueError, ReadError
from clear_steps.core.score import TUNINGS, Technique
from clear_steps.formats.tabtext import read_tab, songs_in, with_heading
from tests.formats.habits import ARPEGGIO, RIFF

EMPTY = "-" * 17
BOX = "\n".join(f"{name}|-5{'---8-' if name in 'eBE' else '-7---'}|" for name in "eBGDAE")
SYSTEM = ARPEGGIO.split("\n\n")[1]
BASS = "\n".join(f"{name}|{'-3---3---3---3---' if name == 'A' else EMPTY}|" for name in "GDAE")


def over(label: str) -> str:
    return f"Title: L\nTempo: 90\nTime: 4/4\nTuning: standard\n\n{label}\n{SYSTEM}"


def test_guitars_that_take_turns_are_parts_and_sections_go_with_the_first() -> None:
    both = f"Gtr 1\n{SYSTEM}\nBass\n{BASS}\n"
    text = f"Two lamps\nTempo: 90\n\n[Verse]\n{both}\n[Chorus]\n{both}"
    reading = read_tab(text)
    first, second = reading.song.parts
    assert (first.name, len(first.bars), [each.name for each in first.sections]) == (
        "Gtr 1",
        4,
        ["Verse", "Chorus"],
    )
    assert (second.name, second.tuning, len(second.bars)) == ("Bass", TUNINGS["bass"], 2)
    assert any("2 guitars stand in the text" in guess.what for guess in reading.guesses)


def test_four_strings_named_as_a_guitars_upper_ones_are_no_bass() -> None:
    text = "Tempo: 90\nTime: 4/4\n\ne|-0---|\nB|---1-|\nG|-----|\nD|-----|\n"
    reading = read_tab(text)
    part = reading.song.parts[0]
    assert part.tuning == TUNINGS["standard"]
    assert [note.string for event in part.bars[0].events for note in event.notes] == [1, 2]
    assert any("4 of 6 strings" in guess.what for guess in reading.guesses)


def test_a_scale_box_alone_is_refused_and_beside_music_left_out() -> None:
    with pytest.raises(ReadError, match="scale box"):
        read_tab(f"A minor pentatonic\n\n{BOX}\n")
    reading = read_tab(f"Title: L\n\nthe box:\n{BOX}\n\n{SYSTEM}")
    assert len(reading.song.parts[0].bars) == 2
    assert any("scale box" in guess.what for guess in reading.guesses)


def test_sections_only_named_again_are_the_order() -> None:
    head = "Title: L\nTime: 4/4\nTuning: standard\n\n"
    again = "Verse 2 (same as verse 1)\n\nChorus x2\n"
    text = f"{head}Verse 1\n{SYSTEM}\nChorus\n{SYSTEM}\n{again}"
    reading = read_tab(text)
    assert reading.song.order == ("Verse 1", "Chorus", "Verse 1", "Chorus x2")
    assert [each.name for each in reading.song.parts[0].sections] == ["Verse 1", "Chorus"]


def test_lines_broken_by_a_mail_are_put_together() -> None:
    whole = "\n".join(line + line[2:] + line[2:] for line in SYSTEM.strip().split("\n"))
    broken = "\n".join(f"{line[:72]}\n{line[72:]}" for line in whole.split("\n"))
    head = "Title: L\nTime: 4/4\nTuning: standard\n\n"
    assert read_tab(head + broken).song == read_tab(head + whole).song


@pytest.mark.parametrize(
    ("label", "technique"),
    [
        ("  pm.......pm....", Technique.PALM_MUTE),
        ("  P.M. - - - - - |", Technique.PALM_MUTE),
        ("  PM----------|", Technique.PALM_MUTE),
        ("  let ring-------", Technique.LET_RING),
        ("  (let ring)", Technique.LET_RING),
    ],
)
def test_words_for_how_are_read_in_other_spellings(label: str, technique: Technique) -> None:
    assert technique in read_tab(over(label)).song.parts[0].bars[0].events[0].techniques


@pytest.mark.parametrize(
    ("label", "field", "value"),
    [
        ("  1.__________", "endings", (1,)),
        ("  1st time", "endings", (1,)),
        ("  x3", "repeat_times", 3),
    ],
)
def test_marks_of_a_bar_are_read_in_other_spellings(label: str, field: str, value: object) -> None:
    assert getattr(read_tab(over(label)).song.parts[0].bars[0], field) == value


@pytest.mark.parametrize(
    "label", ["  1e&a2e&a3e&a4e&a", "  1 - & - 2 - & -", "  Q Q Q. E", "   1/2", "  full"]
)
def test_what_stands_over_a_bar_and_fits_nothing_changes_no_rhythm(label: str) -> None:
    plain, read = read_tab(over("")).song.parts[0], read_tab(over(label)).song.parts[0]
    assert [event.quarters for event in read.bars[0].events] == [e.quarters for e in plain.bars[0].events]


def test_how_far_a_bend_goes_may_stand_over_it() -> None:
    text = over("   full").replace("B|-----1-", "B|-7b----")
    bends = [n.bend for event in read_tab(text).song.parts[0].bars[0].events for n in event.notes if n.bend]
    assert [bend.half_tones for bend in bends] == [2]


def test_songs_in_one_text_are_told_apart() -> None:
    second = RIFF.replace("Title: ", "")
    text = f"{ARPEGGIO}\n\n{second}\n\nThird lamp\n----------\n{SYSTEM}"
    assert [title for title, _ in songs_in(text)] == ["Paper kite", "Tin kettle", "Third lamp"]
    assert read_tab(songs_in(text)[1][1]).song.title == "Tin kettle"
    assert any("3 songs stand in the text" in guess.what for guess in read_tab(text).guesses)
    assert len(songs_in(ARPEGGIO)) == 1


@pytest.mark.parametrize(
    ("text", "key", "value", "line"),
    [
        (ARPEGGIO, "Tempo", "100", "Tempo: 100"),
        (ARPEGGIO.replace("Tempo: ", "tempo about "), "Tempo", "100", "Tempo: 100"),
        (ARPEGGIO, "Tuning", "tuned down 1/2 step", "Tuning: half step down"),
        (ARPEGGIO, "Capo", "2", "Capo: 2"),
        (SYSTEM, "Title", "New name", "Title: New name"),
    ],
)
def test_a_heading_is_changed_where_it_stands(text: str, key: str, value: str, line: str) -> None:
    changed = with_heading(text, key, value)
    assert line in changed.split("\n")
    assert read_tab(changed).song.parts[0].bars == read_tab(text).song.parts[0].bars
    assert sum(own.lower().startswith(key.lower()) for own in changed.split("\n")) == 1


def test_a_heading_without_a_value_goes_and_a_wrong_one_is_told() -> None:
    assert "Tempo" not in with_heading(ARPEGGIO, "Tempo", "")
    with pytest.raises(InvalidValueError, match="a number from 0 to 12"):
        with_heading(ARPEGGIO, "Capo", "40")
    with pytest.raises(InvalidValueError, match="one of Title"):
        with_heading(ARPEGGIO, "Shoe", "40")
