"""Chunks: every note in one, borders where a teacher might cut, names, orders, carried over a revision."""

from dataclasses import replace
from fractions import Fraction
from itertools import combinations, islice, pairwise

import pytest
from hypothesis import given, settings

from clear_steps.core.figures import At, coming_back
from clear_steps.core.grade.excerpt import Excerpt, Excerpts
from clear_steps.core.score import Part, Song, Technique
from clear_steps.core.score.techniques import ARRIVING
from clear_steps.core.teach.chunks import (
    Chunk,
    Layer,
    Order,
    carried,
    from_starts,
    graded_chunks,
    layers,
    likes,
    ordered,
    proposed_chunks,
    with_layer,
)
from clear_steps.core.teach.chunks.chunk import Struck, struck_in
from clear_steps.core.teach.chunks.graded import SLOWEST
from clear_steps.core.teach.chunks.grips import begins_anew, gripped
from clear_steps.core.teach.chunks.naming import names
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.corpus import tunes
from tests.songs import songs

FLOUR_SACKS = read_tab(demo_texts()[1]).song
CORPUS_TUNES = 20


def chunks_of(song: Song, part: Part) -> tuple[Chunk, ...]:
    grading = Excerpts(song, part, default_ladder()).grading
    positions = {moment: grip.position for moment, grip in grading.grips.items()}
    return proposed_chunks(part, coming_back(part, song.order), positions)


def are_whole(part: Part, chunks: tuple[Chunk, ...]) -> bool:
    """Whether every struck moment lies in one, in order, and two have no more in common than one grip."""
    rows, grips = struck_in(part), gripped(part)
    held = {row.at for chunk in chunks for row in rows if chunk.first <= row.at <= chunk.last}
    shared = [
        [number for number, row in enumerate(rows) if after.first <= row.at <= before.last]
        for before, after in pairwise(chunks)
    ]
    one_grip = all(grips.count(both[0], both[-1] + 1) == 1 for both in shared if both)
    return held == {row.at for row in rows} and one_grip


def hangs_together(part: Part, before: Struck, row: Struck) -> bool:
    """Whether no border may lie between; nothing joins across a section, a rest or a dead note."""
    between = [
        event
        for index in range(before.at.bar, row.at.bar + 1)
        for onset, event in zip(part.bars[index].onsets, part.bars[index].events, strict=True)
        if before.at < At(index, onset) < row.at
    ]
    rested = any(not event.notes for event in between)
    if begins_anew(part, [before, row], 1) or rested or all(note.dead for note in before.event.struck):
        return False
    techniques = {each for note in row.event.notes for each in row.event.techniques_of(note)}
    tied = any(note.tied for note in row.event.notes)
    released = any(note.bend and not note.bend.half_tones for note in row.event.notes)
    strings = {note.string for note in before.event.notes} & {note.string for note in row.event.notes}
    return tied or bool(techniques & ARRIVING) or (released and bool(strings))


def might_be_cut(part: Part, before: Struck, row: Struck, positions: dict[tuple[int, int], int]) -> bool:
    """The rule that borders are judged by (from memory of how teachers cut): before the first note of a bar
    or of a phrase (after a rest, or after a note of two beats or twice the note before it); after a move of
    the hand on a beat; where a figure begins or ends on a beat."""
    rows = struck_in(part)
    if row.at.bar != before.at.bar or gripped(part).begins([each.at for each in rows].index(row.at)):
        return True
    bar = part.bars[row.at.bar]
    between = [
        event
        for onset, event in zip(bar.onsets, bar.events, strict=True)
        if before.at.onset <= onset < row.at.onset
    ]
    if any(not event.notes for event in between):
        return True
    length = row.at.onset - before.at.onset
    beat = bar.metre.beat_quarters
    if length >= 2 * beat:
        return True
    place = part.starts_at(row.at.bar) + row.at.onset
    if place % beat:
        return False
    moved = (
        positions.get((before.at.bar, before.number), 0),
        positions.get((row.at.bar, row.number), 0),
    )
    if 0 not in moved and abs(moved[0] - moved[1]) >= 2:
        return True
    found = coming_back(part)
    edges = [(place.first, place.last) for figure in found.figures for place in figure.places]
    return any(first == row.at or last == before.at for first, last in edges)


@settings(max_examples=40, deadline=None)
@given(songs())
def test_every_note_lies_in_a_chunk_and_no_slur_is_cut(song: Song) -> None:
    for part in song.parts:
        chunks = proposed_chunks(part, coming_back(part, song.order), {})
        assert are_whole(part, chunks)
        begin = {chunk.first for chunk in chunks[1:]}
        for before, row in pairwise(struck_in(part)):
            assert row.at not in begin or not hangs_together(part, before, row)


def test_borders_lie_where_a_teacher_might_cut() -> None:
    good = total = 0
    demo = [read_tab(text).song for text in demo_texts()]
    for song in (*demo, *islice(tunes(), CORPUS_TUNES)):
        for part in song.parts:
            grading = Excerpts(song, part, default_ladder()).grading
            positions = {moment: grip.position for moment, grip in grading.grips.items()}
            chunks = proposed_chunks(part, coming_back(part, song.order), positions)
            begin = {chunk.first for chunk in chunks[1:]}
            for before, row in pairwise(struck_in(part)):
                if row.at in begin:
                    total += 1
                    good += might_be_cut(part, before, row, positions)
    assert total > 150
    assert good >= 0.9 * total, f"{good} of {total}"


def test_chunks_have_a_size_that_is_learnt_at_a_time() -> None:
    sizes = [
        sum(chunk.first <= row.at <= chunk.last for row in struck_in(song.parts[0]))
        for song in islice(tunes(), CORPUS_TUNES)
        for chunk in chunks_of(song, song.parts[0])
    ]
    assert sum(3 <= size <= 9 for size in sizes) >= 0.9 * len(sizes)


def test_a_chunk_is_called_by_its_section_and_a_letter() -> None:
    part = FLOUR_SACKS.parts[0]
    chunks = chunks_of(FLOUR_SACKS, part)
    assert names(part, chunks)[:2] == ("Riff a", "Riff b")
    assert names(replace(part, sections=()), chunks)[:2] == ("a", "b")
    named = (replace(chunks[0], name="the climb"), *chunks[1:])
    assert names(part, named)[:2] == ("the climb", "Riff b")
    assert [like and like.chunk for like in likes(part, chunks)][:3] == [None, 0, 0]


def test_a_change_lies_inside_a_chunk_of_two_to_four_chords() -> None:
    song = read_tab(demo_texts()[2]).song
    part = song.parts[0]
    rows, grips = struck_in(part), gripped(part)
    chunks = chunks_of(song, part)
    for number, (before, row) in enumerate(pairwise(rows), start=1):
        if grips.begins(number) and grips.is_held(number - 1) and not begins_anew(part, rows, number):
            assert any(chunk.first <= before.at and row.at <= chunk.last for chunk in chunks)
    at = [row.at for row in rows]
    for chunk in chunks:
        assert grips.count(at.index(chunk.first), at.index(chunk.last) + 1) <= 4


@pytest.mark.parametrize("comfortable", [None, 3.0])
def test_no_chunk_is_begun_faster_than_an_easier_one(comfortable: float | None) -> None:
    for text in demo_texts():
        song = read_tab(text).song
        excerpts = Excerpts(song, song.parts[0], default_ladder())
        rows = graded_chunks(
            excerpts, chunks_of(song, song.parts[0]), coming_back(song.parts[0]), comfortable
        )
        known = sorted((row for row in rows if row.tempo), key=lambda row: row.step)
        for easier, harder in combinations(known, 2):
            assert harder.tempo is not None
            assert easier.tempo is not None
            assert easier.step == harder.step or harder.tempo <= easier.tempo
            far = harder.step - easier.step >= 2
            assert not far or harder.tempo <= max(0.8 * easier.tempo, SLOWEST)
        for row in rows:
            assert comfortable is None or row.step > comfortable or row.tempo == 100


def test_a_chunk_has_the_step_of_what_lies_in_it() -> None:
    song = read_tab(demo_texts()[4]).song
    excerpts = Excerpts(song, song.parts[0], default_ladder())
    chunks = chunks_of(song, song.parts[0])
    for row in graded_chunks(excerpts, chunks, coming_back(song.parts[0])):
        bars = excerpts.grading.bars[row.chunk.first.bar : row.chunk.last.bar + 1]
        assert 1 <= row.step <= max(bar.step for bar in bars) + 0.8  # over bar lines it may be harder
        assert row.switch is None or row.switch.step <= row.step + 0.01
        assert row.switch is None or row.chunk.first <= row.switch.first < row.switch.last <= row.chunk.last
    whole = Excerpt(At(0, Fraction(0)), At(0, song.parts[0].bars[0].quarters))
    assert excerpts.step(whole) == pytest.approx(excerpts.grading.bars[0].step, abs=0.01)


def test_slower_is_never_harder_and_the_tempo_to_begin_with_is_comfortable() -> None:
    song = FLOUR_SACKS
    excerpts = Excerpts(song, song.parts[0], default_ladder())
    chunk = Excerpt(At(0, Fraction(0)), At(0, Fraction(7, 2)))
    steps = [excerpts.step(chunk, percent) for percent in (50, 75, 100)]
    assert steps == sorted(steps)
    percent = excerpts.tempo_for(chunk, 3.5)
    assert percent is not None
    assert excerpts.step(chunk, percent) <= 3.5 < excerpts.step(chunk, percent + 5)


def test_the_five_orders() -> None:
    song, part = FLOUR_SACKS, FLOUR_SACKS.parts[0]
    excerpts = Excerpts(song, part, default_ladder())
    chunks = chunks_of(song, part)
    rows = graded_chunks(excerpts, chunks, coming_back(part, song.order))
    alike, steps = [row.like for row in rows], [row.step for row in rows]
    found = {by: ordered(part, song.order, chunks, alike, steps, by) for by in Order}
    for by in Order:
        assert sorted(found[by]) == list(range(len(chunks)))
    assert found[Order.TOP] == tuple(range(len(chunks)))
    firsts = [index for index in found[Order.HARDEST] if alike[index] is None]
    assert [steps[index] for index in firsts] == sorted((steps[index] for index in firsts), reverse=True)
    assert found[Order.USED][0] == 0  # the riff, three times and repeated


def test_riffs_come_before_chords() -> None:
    part = read_tab(
        "Tempo: 90\nTime: 4/4\nTuning: standard\n\n"
        "e|0--0--0--0-|-----------|\n"
        "B|1--1--1--1-|-----------|\n"
        "G|0--0--0--0-|-----------|\n"
        "D|2--2--2--2-|-----------|\n"
        "A|3--3--3--3-|3--5--3--2-|\n"
        "E|-----------|-----------|\n"
    ).song.parts[0]
    chunks = from_starts(part, [(At(0, Fraction(0)), ""), (At(1, Fraction(0)), "")])
    assert ordered(part, (), chunks, (None, None), (1.0, 1.0), Order.RIFFS) == (1, 0)


def test_two_voices_are_learnt_one_by_one() -> None:
    song = read_tab(demo_texts()[0]).song
    part = song.parts[0]
    chunks = chunks_of(song, part)
    assert layers(part, chunks)[0] == (Layer.BASS, Layer.MELODY, Layer.ALL)
    strings = {
        layer: {
            note.string
            for bar in with_layer(part, layer).bars
            for event in bar.events
            for note in event.notes
        }
        for layer in Layer
    }
    assert strings[Layer.BASS] | strings[Layer.MELODY] == strings[Layer.ALL]
    assert not strings[Layer.BASS] & strings[Layer.MELODY]
    muted = layers(FLOUR_SACKS.parts[0], chunks_of(FLOUR_SACKS, FLOUR_SACKS.parts[0]))[0]
    assert muted == (Layer.NOTES, Layer.ALL)
    plain = with_layer(FLOUR_SACKS.parts[0], Layer.NOTES)
    assert not any(Technique.PALM_MUTE in event.techniques for bar in plain.bars for event in bar.events)


def test_chunks_go_with_their_notes_when_the_song_is_revised() -> None:
    part = FLOUR_SACKS.parts[0]
    chunks = tuple(replace(chunk, name=f"c{at}") for at, chunk in enumerate(chunks_of(FLOUR_SACKS, part)))
    assert carried(chunks, part, part) == (chunks, ())
    before = replace(part, bars=(part.bars[-1], *part.bars))
    moved, lost = carried(chunks, part, before)
    assert not lost
    assert [(row.name, row.first.bar) for row in moved[1:]] == [
        (row.name, row.first.bar + 1) for row in chunks[1:]
    ]
    assert are_whole(before, moved)
    without = replace(part, bars=(*part.bars[:3], *part.bars[4:]), sections=())
    moved, lost = carried(chunks, part, without)
    assert [row.name for row in lost] == ["c3"]
    assert are_whole(without, moved)


@settings(max_examples=25, deadline=None)
@given(songs(), songs())
def test_whatever_is_written_anew_every_note_lies_in_a_chunk_or_all_are_lost(one: Song, other: Song) -> None:
    old, new = one.parts[0], other.parts[0]
    chunks = proposed_chunks(old, coming_back(old), {})
    moved, lost = carried(chunks, old, new)
    assert not moved or are_whole(new, moved)
    assert moved or len(lost) == len(chunks)


def test_every_demo_part_has_its_layers() -> None:
    for text in demo_texts():
        song = read_tab(text).song
        for part in song.parts:
            assert len(layers(part, chunks_of(song, part))) == len(chunks_of(song, part))
