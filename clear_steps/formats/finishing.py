"""Bars of another format as they end: ties where something is held, words and chord names on what sounds."""

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.score import Bar, Event


def with_true_ties(bars: tuple[Bar, ...]) -> tuple[tuple[Bar, ...], int]:
    """The bars with ties only where the same fret of the string sounds before, and how many were none."""
    sounding: dict[int, int] = {}
    made, struck = [], 0
    for bar in bars:
        events = []
        for event in bar.events:
            notes = tuple(
                replace(note, tied=False) if note.tied and sounding.get(note.string) != note.fret else note
                for note in event.notes
            )
            struck += sum(a.tied and not b.tied for a, b in zip(event.notes, notes, strict=True))
            sounding.update({note.string: note.fret for note in notes})
            events.append(replace(event, notes=notes))
        made.append(replace(bar, events=tuple(events)))
    return tuple(made), struck


def with_texts(bar: Bar, texts: Sequence[tuple[Fraction, str]]) -> tuple[Event, ...]:
    """Words over the bar, as remarks on the events that start at or after them."""
    events = list(bar.events)
    for onset, text in texts:
        at = next((index for index, own in enumerate(bar.onsets) if own >= onset), len(events) - 1)
        if events:
            events[at] = replace(events[at], remark=" ".join(filter(None, (events[at].remark, text))))
    return tuple(events)


def with_chords(bar: Bar, chords: Sequence[tuple[Fraction, str]]) -> tuple[Event, ...]:
    """Chord names, on the events that sound when they come."""
    events = list(bar.events)
    for onset, name in chords:
        at = max((index for index, own in enumerate(bar.onsets) if own <= onset), default=0)
        if events:
            events[at] = replace(events[at], chord=",".join(filter(None, (events[at].chord, name))))
    return tuple(events)
