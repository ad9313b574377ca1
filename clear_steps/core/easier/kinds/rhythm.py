"""Plainer rhythm: off-beat notes moved to the beat."""

from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import whole_bar
from clear_steps.core.score import Bar, Part


def beats_of(bar: Bar, beats: int = 1) -> Iterator[tuple[Fraction, Fraction]]:
    """Beats, or stretches of several, that begin and end with an event."""
    edges = {*bar.onsets, bar.quarters}
    start, length = Fraction(0), bar.metre.beat_quarters * beats
    while start < bar.quarters:
        stop = min(start + length, bar.quarters)
        if start in edges and stop in edges:
            yield start, stop
        start += length


def onto_the_beat(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A note after a rest on the beat comes on the beat."""
    bar = part.bars[index]
    events = list(bar.events)
    moved = False
    for at, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
        rests = not event.notes and onset % bar.metre.beat_quarters == 0
        if (
            rests
            and at + 1 < len(events)
            and events[at + 1].notes
            and event.quarters < bar.metre.beat_quarters
        ):
            events[at], events[at + 1] = (
                replace(events[at + 1], quarters=event.quarters),
                replace(event, quarters=events[at + 1].quarters),
            )
            moved = True
    if moved:
        yield whole_bar(bar, index, events)
