"""A stretch of written music as pitches to be placed, and put down again where they were placed."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from clear_steps.core.hand.demands import Spot
from clear_steps.core.hand.placing import Moment, Pitch, Placed
from clear_steps.core.score import ARRIVING, Bar, Event, Note, Part, Technique
from clear_steps.core.score.timing import BarTime
from clear_steps.core.shapes.ringing import ringing_notes

_PRESSED = frozenset(
    {
        Technique.VIBRATO,
        Technique.SLIDE,
        Technique.SHIFT_SLIDE,
        Technique.SLIDE_IN_BELOW,
        Technique.SLIDE_IN_ABOVE,
        Technique.SLIDE_OUT_UP,
        Technique.SLIDE_OUT_DOWN,
        Technique.HAMMER_ON,
    }
)
AT_ITS_PLACE = frozenset({Technique.NATURAL_HARMONIC, Technique.TAP})  # what sounds nowhere else
_MOST_AT_ONCE = 2  # strings whose shape stays one where the strings lie otherwise
Stays = Callable[[Note, bool], bool]
"""Whether a note must stay where it is written; told, too, whether it hangs on one before the stretch."""


def moments_of(part: Part, bars: range, times: Sequence[BarTime], stays: Stays) -> Iterator[Moment]:
    """The pitches of some bars (indexes), one moment an event that holds notes; slurred and tied ones keep
    their string."""
    before: tuple[Note, ...] = ()
    sounding: tuple[Note, ...] = ()  # struck in the moment before, then held in it
    waited = 0.0
    rings = ringing_notes(part)
    for index in bars:
        for event, ringing in zip(part.bars[index].events, rings[index], strict=True):
            if event.notes:
                held = tuple(at for at, note in enumerate(sounding) if note in ringing.notes)
                yield Moment(waited, tuple(_pitch(part, note, before, stays) for note in event.notes), held)
                waited, before, sounding = 0.0, event.notes, (*event.notes, *(sounding[at] for at in held))
            waited += float(event.quarters) * times[index].quarter_seconds


def _pitch(part: Part, note: Note, before: Sequence[Note], stays: Stays) -> Pitch:
    midi = part.tuning.open_pitch(note.string) + part.capo + note.fret
    hangs = note.tied or bool(note.techniques & ARRIVING)
    follows = (
        next((at for at, other in enumerate(before) if other.string == note.string), None) if hangs else None
    )
    fixed = Spot(note.string, note.fret) if stays(note, hangs and follows is None) else None
    return Pitch(midi, fixed, follows, bool(note.bend or note.techniques & _PRESSED))


def on_other_strings(part: Part, rows: range, further: int) -> Part | None:
    """A part whose bars of `rows` lie so many strings thicker (or thinner), the pitches as they are; None
    where a note has no place there, sounds at its own alone or hangs on one before, or where more than two
    are struck at once."""
    bars = list(part.bars)
    before: set[int] = set()  # strings that something of the passage sounds on
    for index in rows:
        events = []
        for event in bars[index].events:
            moved = _on_other_strings(part, event, further)
            strings = {note.string for note in event.notes if note.tied or note.techniques & ARRIVING}
            if moved is None or not strings <= before:
                return None
            before |= {note.string for note in event.notes}
            events.append(moved)
        bars[index] = replace(bars[index], events=tuple(events))
    return replace(part, bars=tuple(bars))


def _on_other_strings(part: Part, event: Event, further: int) -> Event | None:
    notes = []
    for note in event.notes:
        string = note.string + further
        if not 1 <= string <= part.tuning.strings or note.dead or note.techniques & AT_ITS_PLACE:
            return None
        fret = note.fret + part.tuning.open_pitch(note.string) - part.tuning.open_pitch(string)
        if not min(note.fret, 1) <= fret <= part.highest_fret:
            return None
        notes.append(replace(note, string=string, fret=fret, finger=None))
    return replace(event, notes=tuple(notes)) if len(notes) <= _MOST_AT_ONCE else None


def put_down(bars: Sequence[Bar], placed: Sequence[Placed]) -> list[Bar]:
    """The bars with their notes at other spots, in the order of `moments_of`."""
    spots = iter(placed)
    return [
        replace(
            bar, events=tuple(_moved(event, next(spots)) if event.notes else event for event in bar.events)
        )
        for bar in bars
    ]


def _moved(event: Event, spots: Placed) -> Event:
    notes = (
        replace(note, string=spot.string, fret=spot.fret, finger=None)
        for note, spot in zip(event.notes, spots, strict=True)
    )
    return replace(event, notes=tuple(sorted(notes, key=lambda note: note.string)))
