"""Walking over a bar's events and putting others in their place."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.score import Bar, Event, Note, Part, Technique

Rewrite = Callable[[Event], tuple[Event, ...] | None]


def each(part: Part, index: int, rewrite: Rewrite) -> Iterator[tuple[Change, ...]]:
    """The rewrite of every event of a bar, a change each; None leaves an event as it is."""
    bar = part.bars[index]
    singles = []
    for onset, event in zip(bar.onsets, bar.events, strict=True):
        after = rewrite(event)
        if after is not None and after != (event,):
            singles.append(Change(index, onset, (event,), after))
    if singles:
        yield tuple(singles)


def whole_bar(bar: Bar, index: int, events: Iterable[Event]) -> tuple[Change, ...]:
    """One change that replaces a whole bar."""
    return (Change(index, Fraction(0), bar.events, tuple(events)),)


def with_notes(event: Event, notes: Iterable[Note]) -> Event:
    """The event with other notes, by string; without any it is a rest and loses what only notes have."""
    kept = tuple(sorted(notes, key=lambda note: note.string))
    if not kept:
        return Event(event.quarters, chord=event.chord, remark=event.remark, free=event.free)
    return replace(event, notes=kept)


def without(note: Note, techniques: Iterable[Technique]) -> Note:
    """The note without some techniques."""
    return replace(note, techniques=note.techniques - frozenset(techniques))


def plain(note: Note, string: int, fret: int) -> Note:
    """The same note at another place, with what a slur or a pin would still ask of the old one taken off."""
    return Note(string, fret, picking=note.picking, uncertain=note.uncertain, optional=note.optional)
