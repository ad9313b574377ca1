"""Edits that the teacher makes on a version: a bar written anew, a note changed, added or taken out."""

from collections.abc import Iterable, Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import HAND, Change, Edit, dependencies, standing
from clear_steps.core.easier.kinds.bars import with_notes
from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Bar, Event, Note, Part

_SHORTEST = Fraction(1, 16)  # of a quarter, that an event may be halved to


def by_hand(
    part: Part, edits: Sequence[Edit], refused: Iterable[int], bar: int, events: tuple[Event, ...]
) -> Edit:
    """A teacher's own edit of one bar of the version as it stands; raises InvalidValueError for a bar that
    is not there."""
    if not 0 <= bar < len(part.bars):
        raise InvalidValueError("bar", bar, f"0 to {len(part.bars) - 1}")
    version, gone = standing(part, edits, refused)
    kept = [edit for edit in edits if edit.id not in gone]
    change = Change(bar, Fraction(0), version.bars[bar].events, events)
    number = part.bar_number(bar)
    own_id = max((edit.id for edit in edits), default=0) + 1
    reason, effect = f"Bar {number}: the teacher's choice.", f"bar {number} changed by hand"
    return Edit(own_id, HAND, (change,), reason, effect, 0.0, dependencies(kept, (change,)))


def set_note(part: Part, bar: int, event: int, string: int, fret: int | None) -> tuple[Event, ...]:
    """The events of a bar with one note put on a string, or changed, or (without a fret) taken out; raises
    InvalidValueError."""
    if not 1 <= string <= part.tuning.strings:
        raise InvalidValueError("string", string, f"1 to {part.tuning.strings}")
    if fret is not None and not 0 <= fret <= part.highest_fret:
        raise InvalidValueError("fret", fret, f"0 to {part.highest_fret}")
    written = _event(part.bars[bar], event)
    there = next((note for note in written.notes if note.string == string), None)
    if there is None and fret is None:
        raise InvalidValueError("note", f"string {string}", "a string that is played here")
    others = [note for note in written.notes if note.string != string]
    made = with_notes(written, others if fret is None else [*others, _changed(there, string, fret)])
    events = part.bars[bar].events
    held = next(
        (count for count, after in enumerate(events[event + 1 :]) if not _is_held(after, string)),
        len(events) - event - 1,
    )
    if (
        held == len(events) - event - 1
        and bar + 1 < len(part.bars)
        and _is_held(part.bars[bar + 1].events[0], string)
    ):
        raise InvalidValueError(
            "note",
            f"string {string}",
            "a note that is not held into the next bar; write the bars anew instead",
        )
    after = (_held(each, string, fret) for each in events[event + 1 : event + 1 + held])
    return (*events[:event], made, *after, *events[event + 1 + held :])


def _is_held(event: Event, string: int) -> bool:
    return any(note.string == string and note.tied for note in event.notes)


def _held(event: Event, string: int, fret: int | None) -> Event:
    """A note held on from the one that changed, changed with it."""
    notes = (
        note if note.string != string else None if fret is None else replace(note, fret=fret)
        for note in event.notes
    )
    return with_notes(event, [note for note in notes if note])


def _changed(there: Note | None, string: int, fret: int) -> Note:
    return Note(string, fret) if there is None else replace(there, fret=fret, tied=False, finger=None)


def halved(part: Part, bar: int, event: int) -> tuple[Event, ...]:
    """The events of a bar with one of them half as long and a rest after it, for a note to be put there;
    raises InvalidValueError."""
    written = _event(part.bars[bar], event)
    half = written.quarters / 2
    if half < _SHORTEST:
        raise InvalidValueError("length", f"{written.quarters} quarter notes", "one long enough to be halved")
    events = part.bars[bar].events
    return (*events[:event], replace(written, quarters=half), Event(half), *events[event + 1 :])


def _event(bar: Bar, event: int) -> Event:
    if not 0 <= event < len(bar.events):
        raise InvalidValueError("event", event, f"0 to {len(bar.events) - 1}")
    return bar.events[event]
