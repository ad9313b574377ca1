"""Directions in words, read back: nothing lost, nothing invented, no long sentences, nothing told twice."""

from dataclasses import replace
from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import Phase, given, settings

from clear_steps.core.figures import coming_back
from clear_steps.core.grade import GradeRequest
from clear_steps.core.grade.excerpt import Excerpts
from clear_steps.core.hand import is_fretted
from clear_steps.core.score import Part, Song, Technique
from clear_steps.core.teach.chunks import Chunk, likes, proposed_chunks
from clear_steps.core.teach.chunks.chunk import struck_in, within
from clear_steps.core.teach.chunks.naming import names
from clear_steps.core.teach.words import (
    MOST_WORDS,
    PHRASES,
    ChunkFacts,
    Language,
    sentences_of,
    told_chunks,
)
from clear_steps.core.teach.words.sentences import spoken
from clear_steps.demo import demo_texts
from clear_steps.formats import import_song
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.core.teach.words_reader import ENGLISH, SPANISH, Reader, ReadNote
from tests.songs import songs
from tests.textures import textured_songs

DATA = Path(__file__).parents[2] / "data"
PASSAGES = sorted(
    file for room in ("calibration", "figures", "untidy", "versions") for file in (DATA / room).rglob("*.tab")
)
TABLES = {Language.ENGLISH: ENGLISH, Language.SPANISH: SPANISH}
GENERATED = 1_000
ONE_HAND = GradeRequest(hands=("medium",))


def written_notes(part: Part, chunk: Chunk, excerpts: Excerpts) -> list[set[ReadNote]]:
    """What is struck in a chunk, from the score and the fingering alone."""
    found = []
    for row in within(chunk, struck_in(part)):
        grip = excerpts.grading.grips.get((row.at.bar, row.number))
        notes = set()
        for note in row.event.struck:
            techniques = row.event.techniques_of(note)
            bends = {each for each in techniques if each.startswith("bend_")}
            finger = (
                grip.finger_on(note.string)
                if grip and is_fretted(note) and Technique.TAP not in techniques
                else None
            )
            notes.add(
                ReadNote(
                    note.string,
                    0 if note.dead else note.fret,
                    note.dead,
                    str(finger or ""),
                    frozenset(techniques - bends - {Technique.DEAD, Technique.RELEASE}),
                    note.bend.half_tones or None if note.bend else None,
                    bool(note.bend and note.bend.released),
                    row.event.own_techniques,
                )
            )
        found.append(notes)
    return found


def written_onsets(part: Part, chunk: Chunk) -> list[list[tuple[int, Fraction]]]:
    rows: list[list[tuple[int, Fraction]]] = [[] for _ in range(chunk.first.bar, chunk.last.bar + 1)]
    for row in within(chunk, struck_in(part)):
        metre = part.bars[row.at.bar].metre
        beat, share = divmod((part.starts_at(row.at.bar) + row.at.onset) / metre.beat_quarters, 1)
        rows[row.at.bar - chunk.first.bar].append((int(beat) + 1, share))
    return rows


def check(song: Song, part: Part, language: Language, request: GradeRequest = GradeRequest()) -> None:
    excerpts = Excerpts(song, part, default_ladder(), request)
    chunks = proposed_chunks(part, coming_back(part, song.order), {})
    alike = likes(part, chunks)
    told = told_chunks(part, chunks, alike, names(part, chunks, alike), excerpts.grading.grips)
    said = sentences_of(told, PHRASES[language])
    reader = Reader(TABLES[language])
    for chunk, facts, sentences in zip(chunks, told, said, strict=True):
        assert max(len(sentence.split()) for sentence in sentences) <= MOST_WORDS, sentences
        reader.first_bar = part.bar_number(chunk.first.bar)
        read = reader.chunk(facts.name, sentences)
        assert [set(moment) for moment in read.moments] == written_notes(part, chunk, excerpts), sentences
        assert read.onsets == written_onsets(part, chunk), sentences
        check_spoken(facts, language, written_notes(part, chunk, excerpts))


def check_spoken(facts: ChunkFacts, language: Language, written: list[set[ReadNote]]) -> None:
    """What is read while a moment sounds says that moment, all of it and by itself."""
    for said, notes in zip(spoken(facts, PHRASES[language]), written, strict=True):
        sentences = tuple(f"{phrase[0].upper()}{phrase[1:]}." for phrase in said.words.split("; "))
        (moment,) = Reader(TABLES[language]).chunk(facts.name, sentences).moments
        assert set(moment) == notes, said.words


@pytest.mark.parametrize("language", Language)
@pytest.mark.parametrize("number", range(6))
def test_the_words_of_a_demo_song_say_all_of_it(number: int, language: Language) -> None:
    song = read_tab(demo_texts()[number]).song
    for part in song.parts:
        check(song, part, language)


@pytest.mark.parametrize("file", PASSAGES, ids=lambda file: file.stem)
def test_the_words_of_a_passage_say_all_of_it(file: Path) -> None:
    song = import_song(file.name, file.read_bytes()).song
    for part in song.parts:
        check(song, part, Language.ENGLISH)


def test_the_words_of_generated_parts_say_all_of_them() -> None:
    for number, song in enumerate(textured_songs(GENERATED, bars=2, seed=19)):
        language = Language.SPANISH if number % 8 == 0 else Language.ENGLISH
        check(song, song.parts[0], language, ONE_HAND)


@settings(max_examples=40, deadline=None, phases=[Phase.explicit, Phase.reuse, Phase.generate])
@given(songs())
def test_whatever_is_written_can_be_said(song: Song) -> None:
    part = replace(song.parts[0], scale_length_mm=648.0, capo=0)  # one neck: its tables are made once
    for language in Language:
        check(song, part, language, ONE_HAND)
