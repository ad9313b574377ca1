"""Fingers that a teacher pins on notes."""

from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.playing import Finger
from clear_steps.core.score.song import Part


def with_finger(part: Part, bar: int, event: int, string: int, finger: Finger | None) -> Part:
    """The part with one note (bar and event by index, its string) pinned to a finger, or free again; raises
    InvalidValueError where no fretted note is struck."""
    if bar >= len(part.bars) or event >= len(part.bars[bar].events):
        raise InvalidValueError(
            "place", f"bar {bar}, event {event}", "a bar and an event of the part, by index"
        )
    old = part.bars[bar]
    written = old.events[event]
    note = next((note for note in written.struck if note.string == string), None)
    if note is None or note.fret == 0 or note.dead:
        raise InvalidValueError("string", string, "a string with a fretted note that is struck there")
    notes = tuple(replace(own, finger=finger) if own is note else own for own in written.notes)
    events = (*old.events[:event], replace(written, notes=notes), *old.events[event + 1 :])
    bars = (*part.bars[:bar], replace(old, events=events), *part.bars[bar + 1 :])
    return replace(part, bars=bars)
