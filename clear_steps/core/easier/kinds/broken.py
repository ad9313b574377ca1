"""Broken chords struck together: the hand holds the shape either way, the picking hand has less to do."""

import itertools
from collections.abc import Iterator, Sequence
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import with_notes
from clear_steps.core.easier.kinds.rhythm import beats_of
from clear_steps.core.score import Bar, Event, Note, Part, Technique

_FEWEST_STRINGS = 3
_MAY_RING = frozenset({Technique.LET_RING})
# half tones; notes as close as that are struck together only where they ring into one another as written
_CLASH = 2


def struck_together(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """The notes of every beat of a broken chord on the beat, a change a beat; then those of every two
    beats."""
    bar = part.bars[index]
    if not _is_broken_chord(bar):
        return
    for beats in (1, 2):
        spans = list(beats_of(bar, beats))
        if changes := tuple(
            change for start, stop in spans if (change := _gathered(part, index, start, stop))
        ):
            yield changes


def _is_broken_chord(bar: Bar) -> bool:
    """One shape held for the bar, three strings or more, a note at a time: each string has one fret, nothing
    is done to a note but let it ring."""
    frets: dict[int, int] = {}
    for event in bar.events:
        if len(event.notes) > 1 or event.techniques - _MAY_RING or event.own_techniques:
            return False
        if any(
            note.tied or note.techniques or note.bend or frets.setdefault(note.string, note.fret) != note.fret
            for note in event.notes
        ):
            return False
    return len(frets) >= _FEWEST_STRINGS


def _gathered(part: Part, index: int, start: Fraction, stop: Fraction) -> Change | None:
    """What lies between two onsets as one event, where it begins with a note and goes on to other strings."""
    bar = part.bars[index]
    events = tuple(
        event for onset, event in zip(bar.onsets, bar.events, strict=True) if start <= onset < stop
    )
    notes = _by_string(events)
    if len(notes) < 2 or not events[0].notes:
        return None
    first = events[0]
    if Technique.LET_RING not in first.techniques and _clash(part, notes):
        return None
    whole = Event(
        stop - start,
        first.notes,
        first.techniques,
        chord=first.chord,
        remark=first.remark,
        uncertain=first.uncertain,
    )
    return Change(index, start, events, (with_notes(whole, notes),))


def _clash(part: Part, notes: Sequence[Note]) -> bool:
    return any(b - a <= _CLASH for a, b in itertools.pairwise(sorted(map(part.pitch_of, notes))))


def _by_string(events: Sequence[Event]) -> list[Note]:
    return list({note.string: note for event in reversed(events) for note in event.notes}.values())
