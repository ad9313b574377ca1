"""A note of a version changed, added or taken out by hand."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from clear_steps.core.easier import by_hand, halved, set_note, version_of
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Event, Note, Song
from tests.songs import line, playable_songs


def places(events: tuple[Event, ...]) -> list[list[tuple[int, int]]]:
    return [[(note.string, note.fret) for note in event.notes] for event in events]


def test_a_note_is_changed_added_and_taken_out() -> None:
    part = line("1.0", "1.3", length=Fraction(2)).parts[0]
    assert places(set_note(part, 0, 1, 1, 5)) == [[(1, 0)], [(1, 5)]]
    assert places(set_note(part, 0, 1, 3, 2)) == [[(1, 0)], [(1, 3), (3, 2)]]
    assert places(set_note(part, 0, 0, 1, None)) == [[], [(1, 3)]]


def test_a_note_held_on_changes_with_the_one_that_is_struck() -> None:
    part = line("1.0", length=Fraction(4)).parts[0]
    struck, held = Event(Fraction(2), (Note(1, 3),)), Event(Fraction(2), (Note(1, 3, tied=True),))
    part = replace(part, bars=(replace(part.bars[0], events=(struck, held)),))
    assert places(set_note(part, 0, 0, 1, 5)) == [[(1, 5)], [(1, 5)]]
    assert places(set_note(part, 0, 0, 1, None)) == [[], []]
    across = replace(part, bars=(part.bars[0], replace(part.bars[0], events=(held, held))))
    with pytest.raises(InvalidValueError, match="next bar"):
        set_note(across, 0, 0, 1, 5)


@pytest.mark.parametrize(
    ("event", "string", "fret", "what"),
    [(0, 9, 1, "string"), (0, 1, 40, "fret"), (9, 1, 1, "event"), (0, 3, None, "note")],
)
def test_what_cannot_be_played_is_refused(event: int, string: int, fret: int | None, what: str) -> None:
    part = line("1.0", "1.3", length=Fraction(2)).parts[0]
    with pytest.raises(InvalidValueError, match=what):
        set_note(part, 0, event, string, fret)


def test_an_event_is_halved_until_it_is_too_short() -> None:
    part = line("1.0", length=Fraction(4)).parts[0]
    events = halved(part, 0, 0)
    assert [(event.quarters, len(event.notes)) for event in events] == [(2, 1), (2, 0)]
    short = replace(part, bars=(replace(part.bars[0], events=(Event(Fraction(1, 16), (Note(1, 0),)),)),))
    with pytest.raises(InvalidValueError, match="halved"):
        halved(short, 0, 0)


@settings(max_examples=40)
@given(playable_songs(most_bars=2), st.data())
def test_a_note_by_hand_is_an_edit_that_can_be_refused(song: Song, data: st.DataObject) -> None:
    part = song.parts[0]
    bar = data.draw(st.integers(0, len(part.bars) - 1))
    event = data.draw(st.integers(0, len(part.bars[bar].events) - 1))
    try:
        events = set_note(part, bar, event, data.draw(st.integers(1, 6)), data.draw(st.integers(0, 12)))
    except InvalidValueError:
        return
    edit = by_hand(part, (), (), bar, events)
    version = version_of(part, [edit])
    assert version.bars[bar].events == events
    assert sum(each.quarters for each in events) == part.bars[bar].quarters
    assert version_of(part, [edit], [edit.id]) == part
