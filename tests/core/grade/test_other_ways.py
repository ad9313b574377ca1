"""Other ways to play a passage: on other strings, by fewer fingers, with what must be stopped."""

from itertools import pairwise

from clear_steps.core.grade.alternatives import alternatives
from clear_steps.core.grade.clashes import clash_words
from clear_steps.core.grade.way import Alternative
from clear_steps.core.score import Part, Song
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.core.hand.test_taught import line

BENT = """Tempo: 90

  e|--------------------|
  B|--------------------|
  G|2---3---2---2b4-5---|
  D|--------------------|
  A|--------------------|
  E|--------------------|
"""


def ways(song: Song) -> dict[str, Alternative]:
    return {way.title: way for way in alternatives(song, song.parts[0], 0, 0, default_ladder())}


def frets(part: Part) -> list[tuple[int, int]]:
    return [(note.string, note.fret) for event in part.bars[0].events for note in event.notes]


def test_a_phrase_is_offered_on_the_next_thicker_string_its_bend_included() -> None:
    way = ways(read_tab(BENT).song)["The same on the 4th string"]
    assert frets(way.part) == [(4, 7), (4, 8), (4, 7), (4, 7), (4, 10)]
    assert way.part.bars[0].events[3].notes[0].bend


def test_a_slur_from_before_the_passage_keeps_its_string() -> None:
    tied = BENT.replace("G|2---3---2---2b4-5---|", "G|2---3---2---2---5---|h7---8---7---------|")
    song = read_tab(
        tied.replace("--------------------|\n", "--------------------|--------------------|\n")
    ).song
    told = alternatives(song, song.parts[0], 1, 1, default_ladder())
    assert not any(way.title.startswith("The same on") for way in told)


QUARTERS = """
  e|----------------|
  B|----------------|
  G|2---3---2---2b4-|
  D|----------------|
  A|----------------|
  E|----------------|
"""


def test_other_fingers_do_not_creep_to_the_next_fret() -> None:
    """Of the 24 cheapest paths one went from fret 3 to fret 2 by the second finger."""
    after = QUARTERS.replace("2---3---2---2b4-", "5---------------")
    song = read_tab(f"Tempo: 90\n{QUARTERS}{after}").song
    for way in alternatives(song, song.parts[0], 0, 1, default_ladder()):
        notes = [event.notes[0] for event in way.part.bars[0].events]
        if " instead of " in way.title:
            assert all(a.finger != b.finger for a, b in pairwise(notes) if abs(a.fret - b.fret) == 1)


def test_no_two_ways_have_one_title() -> None:
    titles = [way.title for way in alternatives(*_whole(read_tab(BENT).song), default_ladder())]
    assert len(set(titles)) == len(titles)


def _whole(song: Song) -> tuple[Song, Part, int, int]:
    return song, song.parts[0], 0, 0


def test_a_way_by_index_and_ring_finger_alone_is_offered() -> None:
    song = line("2.5", "2.8", "3.5", "3.7", "2.6", "2.5", "3.7", "3.5")
    part = ways(song)["With the index and the ring finger only"].part
    fingers = {note.finger for event in part.bars[0].events for note in event.notes}
    assert fingers == {"1", "3"}


def test_an_open_string_that_rings_into_a_neighbour_is_told_with_what_stops_it() -> None:
    written = line("4.5", "4.2", "4.4", "4.2").parts[0]
    on_the_4th = line("3.0", "4.2", "4.4", "4.2").parts[0]
    on_the_2nd = line("3.0", "2.0", "2.7", "4.2").parts[0]
    assert clash_words(written, on_the_4th, range(1)) == (
        "the open 3rd string clashes with the F# at bar 1, beat 2: stop it by laying the finger there flat"
        " over it"
    )
    assert clash_words(written, on_the_2nd, range(1)) == (
        "the open 3rd string clashes with the F# at bar 1, beat 2: stop it with the tip of the finger there"
    )


def test_what_rang_as_written_and_what_is_struck_again_does_not_clash() -> None:
    written = line("3.0", "4.2", "4.4", "4.2").parts[0]
    again = line("3.0", "3.2", "4.4", "4.2").parts[0]
    assert clash_words(written, written, range(1)) == ""
    assert clash_words(line("4.5", "4.7", "4.4", "4.2").parts[0], again, range(1)) == ""
