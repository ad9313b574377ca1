"""Fingers that a teacher pins on notes: they hold wherever the same bar comes again."""

from collections.abc import Sequence
from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.events import event_at, with_event
from clear_steps.core.score.playing import Finger
from clear_steps.core.score.song import Bar, Event, Part


def with_finger(part: Part, bar: int, event: int, string: int, finger: Finger | None) -> Part:
    """The part with one note (bar and event by index, its string) pinned to a finger, or free again; raises
    InvalidValueError where no fretted note is struck."""
    written = event_at(part, bar, event)
    note = next((note for note in written.struck if note.string == string), None)
    if note is None or note.fret == 0 or note.dead:
        raise InvalidValueError("string", string, "a string with a fretted note that is struck there")
    notes = tuple(replace(own, finger=finger) if own is note else own for own in written.notes)
    return with_event(part, bar, event, replace(written, notes=notes))


def pinned_as(bars: Sequence[Bar]) -> tuple[int, ...]:
    """For every bar the one (index) whose pins it takes: its own, or where it has none those of the first bar
    that is the same but for them."""
    if not any(bar.pinned for bar in bars):
        return tuple(range(len(bars)))
    first: dict[tuple[Event, ...], int] = {}
    for index, bar in enumerate(bars):
        if bar.pinned:
            first.setdefault(bar.unpinned_events, index)
    return tuple(index if bar.pinned else first.get(bar.events, index) for index, bar in enumerate(bars))


def same_bars(bars: Sequence[Bar]) -> tuple[tuple[int, ...], ...]:
    """For every bar the others (indexes) that are the same but for pins; silent ones have none."""
    by_events: dict[tuple[Event, ...], list[int]] = {}
    for index, bar in enumerate(bars):
        by_events.setdefault(bar.unpinned_events, []).append(index)
    return tuple(
        tuple(other for other in by_events[bar.unpinned_events] if other != index and not bar.silent)
        for index, bar in enumerate(bars)
    )
