"""The same pitches at other places of the neck."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from statistics import median_low

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import each, top_fret, whole_bar, with_notes
from clear_steps.core.hand import is_fretted
from clear_steps.core.score import ARRIVING, Event, Note, Part, Technique

_MOST_NOTES_ALONE = 8  # in a busier bar one note elsewhere changes little
_STRING_STEPS = (1, -1, 2, -2)
_OPEN_POSITION = 4  # the highest fret of it
_CLOSE_FRETS = 3
_REACHED_FRETS = 3  # nothing goes farther up from where the hand mostly is: a leap is no easier place
_LOWEST_BENT_FRET = 3  # nearer the nut a string hardly gives way (common practice, no source)
_LOWEST_BENT_STRING = 4  # thicker ones are stiff (common practice, no source)


def other_places(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """All of the bar moved over one or two strings, or into open position, then single notes of it."""
    bar, top = part.bars[index], top_fret(part, index)
    shifted = [[_moved(part, event, step, top) for event in bar.events] for step in _STRING_STEPS]
    lowered = [
        _in_open_position(part, *pair) for pair in zip(bar.events, (*bar.events[1:], None), strict=True)
    ]
    around = _neighbours(part, index)
    for candidate in (*shifted, lowered):
        events = [event for event in candidate if event]
        if (
            len(events) == len(bar.events)
            and tuple(events) != bar.events
            and not _leap(_pressed(bar.events), _pressed(events), around)
        ):
            yield whole_bar(bar, index, events)
    if len(bar.events) <= _MOST_NOTES_ALONE:
        yield from _notes_alone(part, index, top)


def _notes_alone(part: Part, index: int, top: int) -> Iterator[tuple[Change, ...]]:
    bar = part.bars[index]
    around = _neighbours(part, index)
    for onset, event, following in zip(bar.onsets, bar.events, (*bar.events[1:], None), strict=True):
        if (
            len(event.notes) == 1
            and is_fretted(event.notes[0])
            and not _hangs_together(event.notes[0], following)
        ):
            for step in _STRING_STEPS[:2]:
                moved = _moved(part, event, step, top)
                others = _pressed(other for other in bar.events if other is not event)
                if (
                    moved is not None
                    and moved != event
                    and not _leap(_pressed([event]), _pressed([moved]), [others, *around])
                ):
                    yield (Change(index, onset, (event,), (moved,)),)


def closer_strings(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Notes struck together over skipped strings, the lower ones brought to the strings next to them."""
    bar, top = part.bars[index], top_fret(part, index)

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        if len(event.notes) < 2:
            return None
        closer = [event.notes[0]]
        for note in event.notes[1:]:
            strings = range(closer[-1].string + 1, note.string)
            nearer = (
                moved
                for string in strings
                if (moved := _at(part, note, string, top))
                and abs(moved.fret - closer[-1].fret) <= _CLOSE_FRETS
            )
            closer.append(next(nearer, note))
        return (with_notes(event, closer),)

    if not any(note.tied or note.techniques & ARRIVING for event in bar.events for note in event.notes):
        yield from each(part, index, rewrite)


def _hangs_together(note: Note, following: Event | None) -> bool:
    """Whether a slur or a tie leads into or out of the note, so that it cannot leave its string alone."""
    after = [other for other in following.notes if other.string == note.string] if following else []
    return (
        note.tied
        or bool(note.techniques & ARRIVING)
        or any(other.tied or other.techniques & ARRIVING for other in after)
    )


def _pressed(events: Iterable[Event]) -> list[int]:
    return [note.fret for event in events for note in event.notes if is_fretted(note)]


def _neighbours(part: Part, index: int) -> list[list[int]]:
    """What the bars before and after press."""
    near = (*part.bars[max(index - 1, 0) : index], *part.bars[index + 1 : index + 2])
    return [_pressed(bar.events) for bar in near]


def _leap(before: Sequence[int], after: Sequence[int], around: Iterable[Sequence[int]]) -> bool:
    """Whether pressed frets go up the neck, away from where they were and from where the hand mostly is in
    any of the stretches around them."""
    usual = [median_low(pressed) for pressed in around if pressed]
    if not before or not after or not usual or min(after) <= min(before):
        return False
    return median_low(after) > max(median_low(before), *usual) + _REACHED_FRETS


def _moved(part: Part, event: Event, step: int, top: int) -> Event | None:
    notes = [_at(part, note, note.string + step, top) for note in event.notes]
    if any(note is None for note in notes):
        return None
    return with_notes(event, [note for note in notes if note])


def _in_open_position(part: Part, event: Event, following: Event | None) -> Event | None:
    """The event with what lies higher at the nut; None where it cannot, or hangs on the string it has."""
    notes = []
    for note in event.notes:
        places = (_at(part, note, string, _OPEN_POSITION) for string in range(1, part.tuning.strings + 1))
        lower = (
            note
            if note.fret <= _OPEN_POSITION
            else min((place for place in places if place), key=lambda place: place.fret, default=None)
        )
        if lower is None or (lower != note and _hangs_together(note, following)):
            return None
        notes.append(lower)
    return with_notes(event, notes) if notes else event


def _at(part: Part, note: Note, string: int, top: int) -> Note | None:
    """The note on another string; harmonics and dead notes stay where they speak, a bend needs a string that
    gives way."""
    if not 1 <= string <= part.tuning.strings or note.dead or Technique.NATURAL_HARMONIC in note.techniques:
        return None
    fret = part.tuning.open_pitch(note.string) + note.fret - part.tuning.open_pitch(string)
    lowest = _LOWEST_BENT_FRET if note.bend else 0
    if not lowest <= fret <= top or (note.bend and string > _LOWEST_BENT_STRING):
        return None
    return replace(note, string=string, fret=fret, finger=None)
