"""Plainer rhythm: the notes on strong beats, off-beat notes moved to the beat."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import whole_bar, without
from clear_steps.core.score import ARRIVING, Bar, Event, Metre, Part, Technique


@dataclass(frozen=True, slots=True)
class _Grid:
    """Places, in quarters, that come back with a period."""

    period: Fraction
    places: tuple[Fraction, ...] = (Fraction(0),)

    def holds(self, onset: Fraction) -> bool:
        return onset % self.period in self.places


def _grids(metre: Metre) -> list[_Grid]:
    """From the finest: halves of the beat, or in a metre of three eighths a beat those, then long and short;
    then beats."""
    beat = metre.beat_quarters
    if beat.numerator % 3:
        return [_Grid(beat / 2), _Grid(beat)]
    return [_Grid(beat / 3), _Grid(beat, (Fraction(0), beat * 2 / 3)), _Grid(beat)]


def fewer_notes(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Sixteenths to eighths to quarters (to long and short, where three eighths are a beat), a change a beat;
    then half notes and one note a bar.

    Where notes slide, also with what each leads to in its place: of a bend that became a slide the target is
    the tune.
    """
    written = part.bars[index]
    arrived = _arrived(written)
    grids = _grids(written.metre)
    for bar in (written, arrived) if arrived != written else (written,):
        for grid in grids:
            thinned = (_thinned(bar, index, start, stop, grid) for start, stop in beats_of(bar))
            if changes := tuple(change for change in thinned if change):
                yield _of(written, changes)
        for grid in (*grids, _Grid(2 * grids[-1].period), _Grid(bar.quarters)):
            if change := _thinned(bar, index, Fraction(0), bar.quarters, grid):
                yield _of(written, (change,))


def _arrived(bar: Bar) -> Bar:
    """Every note that slides into the next one as that one, from its own onset on."""
    events: list[Event] = []
    for event in bar.events:
        before = events[-1] if events else None
        slid = len(event.notes) == 1 and Technique.SLIDE in event.notes[0].techniques
        if before and slid and len(before.notes) == 1 and before.notes[0].string == event.notes[0].string:
            note = replace(before.notes[0], fret=event.notes[0].fret, finger=None)
            events[-1] = replace(before, quarters=before.quarters + event.quarters, notes=(note,))
        else:
            events.append(event)
    return replace(bar, events=tuple(events))


def _of(written: Bar, changes: tuple[Change, ...]) -> tuple[Change, ...]:
    """The same changes, made to the bar as it is written."""
    rows = list(zip(written.onsets, written.events, strict=True))
    return tuple(
        replace(change, before=tuple(event for onset, event in rows if change.start <= onset < change.stop))
        for change in changes
    )


def beats_alone(part: Part, index: int) -> tuple[Change, ...]:
    """What starts on a beat kept: the plainest thing to do, and the least that a search must be worth.

    A change a beat; one for the bar where a note holds over a beat.
    """
    bar = part.bars[index]
    beat, beats = bar.metre.beat_quarters, list(beats_of(bar))
    spans = beats if len(beats) * beat >= bar.quarters else [(Fraction(0), bar.quarters)]
    return tuple(
        change for start, stop in spans if (change := _thinned(bar, index, start, stop, _Grid(beat)))
    )


def thinned_to(part: Part, index: int, onsets: Iterable[Fraction]) -> Iterator[tuple[Change, ...]]:
    """What starts at some onsets kept: a change a beat, then the same as one for the bar."""
    bar, places = part.bars[index], tuple(onsets)
    spans = [
        (start, stop, _Grid(bar.quarters, tuple(place - start for place in places)))
        for start, stop in beats_of(bar)
    ]
    yield tuple(change for start, stop, grid in spans if (change := _thinned(bar, index, start, stop, grid)))
    if change := _thinned(bar, index, Fraction(0), bar.quarters, _Grid(bar.quarters, places)):
        yield (change,)


def beats_of(bar: Bar, beats: int = 1) -> Iterator[tuple[Fraction, Fraction]]:
    """Beats, or stretches of several, that begin and end with an event."""
    edges = {*bar.onsets, bar.quarters}
    start, length = Fraction(0), bar.metre.beat_quarters * beats
    while start < bar.quarters:
        stop = min(start + length, bar.quarters)
        if start in edges and stop in edges:
            yield start, stop
        start += length


def _thinned(bar: Bar, index: int, start: Fraction, stop: Fraction, grid: _Grid) -> Change | None:
    """Between two onsets, keep what stands on the grid; what is kept lasts to the next that is."""
    inside = [
        (onset, event) for onset, event in zip(bar.onsets, bar.events, strict=True) if start <= onset < stop
    ]
    if len(inside) < 2:
        return None
    kept = [
        (onset, event)
        for onset, event in inside
        if grid.holds(onset - start) or (not event.notes and onset == start)
    ]
    kept = [entry for entry in kept if entry[1].notes] or kept
    if not kept or kept[0][0] != start:
        kept.insert(0, (start, Event(Fraction(0))))
    ends = [onset for onset, _ in kept[1:]] + [stop]
    after = tuple(lasting(event, end - onset) for (onset, event), end in zip(kept, ends, strict=True))
    before = tuple(event for _, event in inside)
    return Change(index, start, before, after) if len(after) < len(before) else None


def lasting(event: Event, quarters: Fraction) -> Event:
    """The event, longer; a slur into it has lost the note it came from."""
    notes = tuple(replace(without(note, ARRIVING), tied=False) for note in event.notes)
    return replace(
        event,
        quarters=quarters,
        notes=notes,
        techniques=event.techniques if notes else frozenset(),
        stroke=event.stroke if notes else None,
    )


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
