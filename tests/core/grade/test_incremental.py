"""A grader that remembers bars gives what a fresh one gives."""

from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.grade import Grader, grade_part
from clear_steps.core.score import Event, Note, Part, Song
from clear_steps.ladders import default_ladder
from tests.songs import playable_songs

LADDER = default_ladder()
CHANGES = st.tuples(st.integers(0, 3), st.integers(1, 9))  # a bar, and by how many frets


def with_other_frets(part: Part, bar: int, by: int) -> Part:
    def moved(event: Event) -> Event:
        notes: tuple[Note, ...] = tuple(replace(note, fret=(note.fret + by) % 15) for note in event.notes)
        return replace(event, notes=notes)

    own = part.bars[bar]
    return replace(
        part,
        bars=(*part.bars[:bar], replace(own, events=tuple(map(moved, own.events))), *part.bars[bar + 1 :]),
    )


def test_after_any_changes_the_grade_is_that_of_a_fresh_grader() -> None:
    changed: list[bool] = []

    @settings(max_examples=40)
    @given(
        playable_songs(), st.lists(st.tuples(st.integers(0, 3), st.integers(1, 9)), min_size=1, max_size=4)
    )
    def law(song: Song, changes: list[tuple[int, int]]) -> None:
        part = song.parts[0]
        grader = Grader(song, part, LADDER)
        grader.grade(part)
        for bar, by in changes:
            before = part
            part = with_other_frets(part, bar % len(part.bars), by)
            changed.append(part != before)
            kept, fresh = grader.grade(part), grade_part(song, part, LADDER)
            assert (kept.step, kept.bars, kept.grips) == (fresh.step, fresh.bars, fresh.grips)

    law()
    assert sum(changed) > 40
