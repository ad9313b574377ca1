"""What is written reads back as an equal song, everything included."""

from hypothesis import given, settings

from clear_steps.core.score import Song
from clear_steps.demo import demo_texts
from clear_steps.formats.songjson import song_from_json, song_to_json
from clear_steps.formats.tabtext import read_tab, write_tab
from tests.every_mark import every_mark, every_mark_text
from tests.songs import songs


def test_text_reads_back_as_an_equal_song() -> None:
    seen = {"notes": 0, "bends": 0, "ties": 0, "words": 0, "tuplets": 0, "fingers": 0, "readings": 0}

    @settings(max_examples=150)
    @given(songs())
    def law(song: Song) -> None:
        text = write_tab(song)
        assert read_tab(text).song == song, text
        for part in song.parts:
            seen["readings"] += len(part.readings)
            for _, _, event in part.events():
                seen["notes"] += len(event.notes)
                seen["bends"] += sum(note.bend is not None for note in event.notes)
                seen["ties"] += sum(note.tied for note in event.notes)
                seen["words"] += bool(event.techniques)
                seen["tuplets"] += event.quarters.denominator % 3 == 0
                seen["fingers"] += sum(note.finger is not None for note in event.notes)

    law()
    assert all(count > 20 for count in seen.values()), seen


@settings(max_examples=50)
@given(songs())
def test_json_reads_back_as_an_equal_song(song: Song) -> None:
    assert song_from_json(song_to_json(song)) == song


def test_demo_pieces_are_written_as_they_are_stored() -> None:
    for text in demo_texts():
        assert write_tab(read_tab(text).song) == text


def test_a_song_of_every_mark_reads_back_whole() -> None:
    reading = read_tab(every_mark_text())
    assert reading.song == every_mark()
    assert reading.guesses == ()
