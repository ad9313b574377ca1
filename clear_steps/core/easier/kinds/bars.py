"""Walking over a bar's events and putting others in their place."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.score import Bar, Event, Instrument, Note, Part, Technique

_TOP_FRET, _TOP_FRET_OF_AN_ELECTRIC = (
    12,
    17,
)  # from the nut; about where the body comes in the way (common practice, no source)
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


def top_fret(part: Part, index: int) -> int:
    """The highest fret (above the capo) a bar is moved to: where the hand still goes easily, or as high as
    the bar lies already."""
    easy = (_TOP_FRET_OF_AN_ELECTRIC if part.instrument is Instrument.ELECTRIC else _TOP_FRET) - part.capo
    written = max((note.fret for event in part.bars[index].events for note in event.notes), default=0)
    return min(max(easy, written), part.highest_fret)


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
    fewer = note.techniques.difference(techniques)
    return replace(note, techniques=fewer) if fewer != note.techniques else note


def plain(note: Note, string: int, fret: int) -> Note:
    """The same note at another place, with what a slur or a pin would still ask of the old one taken off."""
    return Note(string, fret, picking=note.picking, uncertain=note.uncertain, optional=note.optional)
