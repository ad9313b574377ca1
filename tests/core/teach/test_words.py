"""Directions in words, read beside the tab: nothing lost, nothing invented, short, nothing told twice."""

from dataclasses import replace
from fractions import Fraction
from itertools import pairwise
from pathlib import Path
from statistics import median

import pytest
from hypothesis import Phase, given, settings

from clear_steps.core.figures import coming_back
from clear_steps.core.grade import GradeRequest, grade_part
from clear_steps.core.score import Bend, Part, Song
from clear_steps.core.teach.chunks import Chunk, proposed_chunks, struck_in
from clear_steps.core.teach.chunks.chunk import within
from clear_steps.core.teach.words import MOST_WORDS, Directions, Language, directions
from clear_steps.demo import demo_texts
from clear_steps.formats import import_song
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.core.teach.words_reader import Reader
from tests.songs import songs
from tests.textures import textured_songs

DATA = Path(__file__).parents[2] / "data"
PASSAGES = sorted(
    file for room in ("calibration", "figures", "untidy", "versions") for file in (DATA / room).rglob("*.tab")
)
GENERATED = 300
ONE_HAND = GradeRequest(hands=("medium",))
ENGLISH_LEFT = (
    r"\b(?:run|power|sixth|harmonics?|position|string|fret|open|finger|beat|bar|the|then|hold|barre|twice"
    r"|times|down|up)\b"
)


def told(
    song: Song, part: Part, language: Language = Language.ENGLISH, request: GradeRequest = GradeRequest()
) -> tuple[tuple[Chunk, ...], tuple[Directions, ...]]:
    grips = grade_part(song, part, default_ladder(), request).grips
    positions = {moment: grip.position for moment, grip in grips.items()}
    chunks = proposed_chunks(part, coming_back(part, song.order), positions)
    return chunks, directions(part, chunks, grips, language)


def check(song: Song, part: Part, request: GradeRequest = GradeRequest()) -> list[int]:
    """Reads a part's directions back; how many words each chunk takes."""
    chunks, said = told(song, part, request=request)
    reader = Reader(part)
    for (before, chunk), row in zip(pairwise([None, *chunks]), said, strict=True):
        assert chunk is not None
        assert max(len(sentence.split()) for sentence in row.sentences) <= MOST_WORDS, row.sentences
        assert "at the same time" not in " ".join(row.sentences)
        reader.chunk(row.name, chunk, row.sentences, before.last if before else None)
        struck = {moment.at for moment, _ in row.spoken if not moment.held}
        assert struck == {each.at for each in within(chunk, struck_in(part))}
    return [sum(len(sentence.split()) for sentence in row.sentences) for row in said]


@pytest.mark.parametrize("number", range(6))
def test_the_words_of_a_demo_song_say_all_of_it(number: int) -> None:
    song = read_tab(demo_texts()[number]).song
    for part in song.parts:
        check(song, part)


@pytest.mark.parametrize("file", PASSAGES, ids=lambda file: file.stem)
def test_the_words_of_a_passage_say_all_of_it(file: Path) -> None:
    song = import_song(file.name, file.read_bytes()).song
    for part in song.parts:
        check(song, part)


def test_the_words_of_generated_parts_say_all_of_them_and_are_short() -> None:
    counts = [
        count
        for song in textured_songs(GENERATED, bars=4, seed=19)
        for count in check(song, song.parts[0], ONE_HAND)
    ]
    assert median(counts) <= 25
    assert sum(count < 40 for count in counts) >= 0.9 * len(counts)


@settings(max_examples=40, deadline=None, phases=[Phase.explicit, Phase.reuse, Phase.generate])
@given(songs())
def test_whatever_is_written_can_be_said(song: Song) -> None:
    for language in Language:
        told(song, song.parts[0], language, ONE_HAND)


STRUM = """Tempo: 90
Time: 4/4
Tuning: standard

chd|G               |                |C               |D               |
len|q   q   e e e e |q   q   e e e e |q   q   e e e e |q   q   e e e e |
  e|3---3---3-3-3-3-|3---3---3-3-3-3-|0---0---0-0-0-0-|2---2---2-2-2-2-|
  B|0---0---0-0-0-0-|0---0---0-0-0-0-|1---1---1-1-1-1-|3---3---3-3-3-3-|
  G|0---0---0-0-0-0-|0---0---0-0-0-0-|0---0---0-0-0-0-|2---2---2-2-2-2-|
  D|0---0---0-0-0-0-|0---0---0-0-0-0-|2---2---2-2-2-2-|0---0---0-0-0-0-|
  A|2---2---2-2-2-2-|2---2---2-2-2-2-|3---3---3-3-3-3-|----------------|
  E|3---3---3-3-3-3-|3---3---3-3-3-3-|----------------|----------------|
"""


def said_of(text: str, language: Language = Language.ENGLISH) -> list[str]:
    song = read_tab(text).song
    return [" ".join(row.sentences) for row in told(song, song.parts[0], language)[1]]


def test_a_pattern_is_told_once_and_a_chunk_goes_on_into_the_next_grip() -> None:
    first, second, *_ = said_of(STRUM)
    assert first == "G, two bars: down, down, down-up, down-up; C, the same, a bar."
    assert second == "From C; D, the same."


def test_the_same_in_spanish_has_nothing_english_left() -> None:
    first, second, *_ = said_of(STRUM, Language.SPANISH)
    assert first == "G, dos compases: abajo, abajo, abajo-arriba, abajo-arriba; C, igual, un compás."
    assert second == "Desde C; D, igual."


def line(length: str, frets: str) -> str:
    empty = "-" * len(frets)
    rows = "".join(f"  {name}|{frets if name == 'G' else empty}|\n" for name in "eBGDAE")
    return f"Tempo: 90\nTime: 4/4\nTuning: standard\n\nlen|{length}|\n{rows}"


def test_a_late_bend_is_a_moment_of_its_own() -> None:
    song = read_tab(line("q h q ", "5-7-8-")).song
    (bar,) = song.parts[0].bars
    struck, held, last = bar.events
    bent = replace(held.notes[0], fret=5, tied=True, bend=Bend(Fraction(2)))
    part = replace(song.parts[0], bars=(replace(bar, events=(struck, replace(held, notes=(bent,)), last)),))
    said = " ".join(" ".join(row.sentences) for row in told(song, part)[1])
    assert "3rd string 5. Hold it: 5, bend to the sound of the 7th" in said


def test_even_eighths_are_not_counted_and_a_note_off_the_beat_says_so() -> None:
    even, again = said_of(line("e e e e e e e e ", "5-7-8-7-5-7-8-7-"))
    assert even == "5th position; 3rd string 5, 7, 8, 7."
    assert again == "The same as a."
    assert "7 on the & of 2" in " ".join(said_of(line("q. e q q ", "5--7-8-7-")))


def test_double_stops_on_the_same_strings_name_them_once() -> None:
    text = line("q q q q ", "7-9--7-9--").replace("  B|----------|", "  B|8-10-8-10-|")
    assert said_of(text) == ["7th position; strings 3 and 2: 7 and 8, 9 and 10, again."]
