"""One habit changed in a clean text: what a careful reader would read is read, nothing is other music
without a word."""

from fractions import Fraction

import pytest

from clear_steps.core.grade import grade_part, step_range
from clear_steps.core.score import Event, Part, Song
from clear_steps.formats import import_song
from clear_steps.formats.pitched import Imported
from clear_steps.ladders import default_ladder
from tests.formats.habits import ARPEGGIO, CLEAN, HABITS, SIGNS, UNKNOWN, Habit


def read(text: str | bytes) -> Imported:
    return import_song("song.tab", text if isinstance(text, bytes) else text.encode())


def music(song: Song) -> tuple[object, ...]:
    (part,) = song.parts
    return part.tuning, [
        [(event.quarters, [(note.string, note.fret) for note in event.notes]) for event in bar.events]
        for bar in part.bars
    ]


def test_there_are_as_many_changes_as_asked_for() -> None:
    assert len(HABITS) * len(CLEAN) + len(SIGNS) + len(UNKNOWN) >= 200
    assert len({habit.name for habit in HABITS}) == len(HABITS)


@pytest.mark.parametrize("name", CLEAN)
@pytest.mark.parametrize("habit", HABITS, ids=lambda habit: habit.name)
def test_a_habit_changes_no_music(habit: Habit, name: str) -> None:
    clean, changed = read(CLEAN[name]), habit.change(CLEAN[name])
    assert changed != CLEAN[name]
    found = read(changed)
    assert music(found.song) == music(clean.song), found.guessed
    assert habit.told.lower() in " / ".join(found.guessed).lower()
    assert clean.song.title in found.song.title.replace("Café ", "")
    if "tempo" not in habit.name:
        assert found.song.tempo == clean.song.tempo


def bar_with(sign: str) -> str:
    cell = f"-{sign}".ljust(16, "-")
    lines = (f"{name}|{cell if name == 'G' else '-' * 16}|" for name in "eBGDAE")
    return "Title: A sign\nTempo: 90\nTime: 4/4\nTuning: standard\n\n" + "\n".join(lines) + "\n"


def struck(part: Part) -> list[Event]:
    return [event for _, _, event in part.events() if event.notes]


@pytest.mark.parametrize(("ours", "typed"), SIGNS)
def test_a_sign_is_read_as_ours(ours: str, typed: str) -> None:
    wanted, found = (struck(read(bar_with(sign)).song.parts[0]) for sign in (ours, typed))
    assert [event.notes for event in found] == [event.notes for event in wanted]


@pytest.mark.parametrize("typed", UNKNOWN)
def test_an_unknown_sign_is_kept_at_its_note_and_told(typed: str) -> None:
    found = read(bar_with(typed))
    (event,) = struck(found.song.parts[0])
    assert [note.fret for note in event.notes] == [7]
    assert event.remark
    assert any("kept" in guess for guess in found.guessed)


def test_two_frets_of_two_digits_may_stand_under_the_last_of_them() -> None:
    text = ARPEGGIO.replace("B|-----1-------1---|", "B|----10-------1---|").replace(
        "G|---0-------0-----|---2", "G|---0-9-----0-----|---2"
    )
    events = struck(read(text).song.parts[0])
    assert [(note.string, note.fret) for note in events[2].notes] == [(2, 10), (3, 9)]


def steps_of(text: str) -> tuple[float, float]:
    song = read(text).song
    part = song.parts[0]
    grading = grade_part(song, part, default_ladder())
    return grading.step, step_range(song, part, default_ladder(), grading).low


def bar_of(cell: str) -> str:
    lines = (f"{name}|{cell if name == 'G' else '-' * len(cell)}|" for name in "eBGDAE")
    return "Title: A bar\nTempo: 90\nTime: 4/4\nTuning: standard\n\n" + "\n".join(lines) + "\n"


def test_one_odd_gap_is_a_slip_and_told() -> None:
    eighths = "-" + "5-" * 8
    found = read(bar_of(f"{eighths[:7]}-{eighths[7:]}"))
    assert music(found.song) == music(read(bar_of(eighths)).song)
    assert any("a dash off" in guess for guess in found.guessed)


def test_a_rhythm_that_no_grid_fits_widens_the_range_and_is_no_quicker_than_it_looks() -> None:
    odd = bar_of("5-5---5-----5-5-5----5")
    found = read(odd)
    assert found.song.parts[0].bars[0].uncertain
    assert min(event.quarters for event in found.song.parts[0].bars[0].events) >= Fraction(1, 4)
    step, low = steps_of(odd)
    assert low < step
    assert any("fits no even rhythm" in guess for guess in found.guessed)
