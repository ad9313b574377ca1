"""A stretch of written music as pitches to be placed, and put down again where they were placed."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from clear_steps.core.hand.demands import Spot
from clear_steps.core.hand.placing import Moment, Pitch, Placed
from clear_steps.core.score import ARRIVING, Bar, Event, Note, Part, Technique
from clear_steps.core.score.ringing import hearing_of, ringing_in
from clear_steps.core.score.timing import BarTime

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
Stays = Callable[[Note, bool], bool]
"""Whether a note must stay where it is written; told, too, whether it hangs on one before the stretch."""


def moments_of(part: Part, bars: range, times: Sequence[BarTime], stays: Stays) -> Iterator[Moment]:
    """The pitches of some bars (indexes), one moment an event that holds notes; slurred and tied ones keep
    their string."""
    before: tuple[Note, ...] = ()
    sounding: tuple[Note, ...] = ()  # struck in the moment before, then held in it
    waited = 0.0
    hearing = hearing_of(part)
    for index in bars:
        for event, ringing in zip(
            part.bars[index].events, ringing_in(part.bars[index], hearing), strict=True
        ):
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
