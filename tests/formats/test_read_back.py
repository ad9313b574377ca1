"""What was read is written, read again and compared; every difference is told before anything is saved."""

import json
from collections.abc import Callable
from functools import cache

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.errors import ReadError
from clear_steps.demo import demo_texts
from clear_steps.formats import Imported, as_text, import_song, songs_of, write_song
from clear_steps.formats.tabtext import read_tab
from tests.formats.habits import ARPEGGIO

HEAD = "X:1\nT:Lantern\nM:4/4\nL:1/4\nQ:1/4=90\nK:C\n"
MEASURE = """<?xml version="1.0"?><score-partwise><work><work-title>Two
lines</work-title></work><part-list><score-part id="P1"><part-name>Guitar</part-name></score-part></part-list>
<part id="P1"><measure number="1"><attributes><divisions>1</divisions><time><beats>4</beats>
<beat-type>4</beat-type></time></attributes>{notes}</measure></part></score-partwise>"""


def note(step: str, quarters: int, *, fret: int | None = None, chord: str = "", tie: str = "") -> str:
    place = f"<notations><technical><string>1</string><fret>{fret}</fret></technical></notations>"
    return (
        f"<note>{chord}<pitch><step>{step}</step><octave>4</octave></pitch><duration>{quarters}</duration>"
        f"{tie}{'' if fret is None else place}</note>"
    )


def read(name: str, content: str) -> Imported:
    return as_text(import_song(name, content.encode()))


def spots(found: Imported, bar: int = 0) -> list[list[tuple[int, int, bool]]]:
    events = found.song.parts[0].bars[bar].events
    return [[(n.string, n.fret, n.tied) for n in event.notes] for event in events]


def test_of_two_notes_on_one_string_the_second_finds_another() -> None:
    chord = note("E", 1, fret=0) + note("F", 1, fret=1, chord="<chord/>")
    found = read("song.musicxml", MEASURE.format(notes=chord + note("G", 3)))
    first = spots(found)[0]
    assert len(first) == 2
    assert len({string for string, _, _ in first}) == 2
    assert found.changed == ()
    assert found.song.title == "Two lines"


def test_a_tie_to_another_pitch_is_struck_and_told() -> None:
    tied = note("E", 1) + note("G", 3, tie='<tie type="stop"/>')
    found = read("song.musicxml", MEASURE.format(notes=tied))
    assert not any(tied for event in spots(found) for _, _, tied in event)
    assert any("tied to another pitch" in guess for guess in found.guessed)
    assert found.changed == ()


def test_a_note_of_no_length_is_left_out_and_told() -> None:
    found = read("song.musicxml", MEASURE.format(notes=note("E", 0) + note("G", 4)))
    assert len(spots(found)) == 1
    assert len(spots(found)[0]) == 1
    assert any("it has no length" in told for told in found.not_placed)


def test_voices_written_inline_are_parts() -> None:
    found = read("tune.abc", f"{HEAD}[V:1] CDEF|GABc|\n[V:2] C,2G,2|C,2G,2|\n")
    assert [len(part.bars) for part in found.song.parts] == [2, 2]


def test_a_voice_laid_over_a_bar_is_left_out_and_told() -> None:
    found = read("tune.abc", f"{HEAD}CDEF & C,4|GABc|\n")
    assert len(found.song.parts[0].bars) == 2
    assert any("&" in told for told in found.not_placed)


def test_grace_notes_are_told_as_marks() -> None:
    found = read("tune.abc", HEAD + "{g}CDEF|GABc|\n")
    assert any("grace note" in guess for guess in found.guessed)


def as_json(change: Callable[[dict[str, object]], None]) -> str:
    rows = json.loads(write_song("song.json", read_tab(ARPEGGIO).song))
    change(rows)
    return json.dumps(rows)


def test_what_json_holds_and_tab_cannot_is_told() -> None:
    found = read("song.json", as_json(lambda rows: rows.update(title="One\nTwo\n[Verse]")))
    assert found.changed == ("the song: title 'One\\nTwo\\n[Verse]' becomes 'One Two [Verse]'",)


@pytest.mark.parametrize("string", [-1, 7])
def test_a_string_that_is_none_is_refused(string: int) -> None:
    def change(rows: dict) -> None:  # type: ignore[type-arg]  # plain JSON
        rows["parts"][0]["bars"][0]["events"][0]["notes"][0]["string"] = string

    with pytest.raises(ReadError, match="string in bar 1"):
        read("song.json", as_json(change))


def test_every_tune_of_a_file_can_be_read_alone() -> None:
    text = "%abc\nM:3/4\n\n" + "".join(f"X:{at}\nT:Lamp {at}\nK:C\nCDE|\n\n" for at in (1, 2, 3))
    songs = songs_of("lamps.abc", text.encode())
    assert [title for title, _ in songs] == ["Lamp 1", "Lamp 2", "Lamp 3"]
    assert import_song("lamp.abc", songs[2][1]).song.title == "Lamp 3"
    assert songs_of("lamp.abc", songs[0][1]) == ()


@cache
def files() -> dict[str, bytes]:
    song = read_tab(demo_texts()[1]).song
    tune = f'{HEAD}|:[CEG]2 c>d|(3efg a2 b|c\'4:|1 z4|2 "Am"A4|]\n'
    return {
        "song.tab": demo_texts()[1].encode(),
        "typed.tab": ARPEGGIO.encode(),
        "song.json": write_song("song.json", song),
        "song.musicxml": write_song("song.musicxml", song),
        "tune.abc": tune.encode(),
    }


@pytest.mark.parametrize("name", list(files()))
def test_whatever_is_read_of_a_damaged_file_is_in_the_text_or_told(name: str) -> None:
    content = files()[name]
    accepted: list[bool] = []

    @settings(max_examples=40)
    @given(st.lists(st.tuples(st.integers(0, len(content) - 1), st.binary(max_size=3)), max_size=3))
    def law(changes: list[tuple[int, bytes]]) -> None:
        damaged = content
        for at, new in changes:
            damaged = damaged[:at] + new + damaged[at + len(new) :]
        try:
            found = as_text(import_song(name, damaged))
        except ReadError:
            accepted.append(False)
            return
        accepted.append(True)
        assert found.changed or read_tab(found.text).song == found.song

    law()
    assert any(accepted)
