"""The fingers of a place of the hand: a line within three or four frets takes a finger a fret."""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from clear_steps.core.score import Bar, Event, Technique
from clear_steps.core.shapes.moments import Moment
from clear_steps.core.shapes.stretch import Grip, Stretch

_FINGERS = "1234"
_LEAST_NOTES = 3  # that show a place (from memory)
_BOX = (2, 3)  # frets from the lowest to the highest of one
_FIRST = 3  # up to this fret a line with open strings is in first position
_FREE = frozenset(
    {
        *(Technique.SLIDE, Technique.SHIFT_SLIDE, Technique.TAP, Technique.NATURAL_HARMONIC),
        *(Technique.SLIDE_IN_BELOW, Technique.SLIDE_IN_ABOVE),
    }
)


class Line(NamedTuple):
    """The frets that a bar of single notes stops, lowest and highest."""

    lowest: int
    highest: int

    def joined(self, other: "Line") -> "Line":
        """The frets of both."""
        return Line(min(self.lowest, other.lowest), max(self.highest, other.highest))

    @property
    def is_box(self) -> bool:
        """Whether a hand covers it in one place, its outer fingers on its outer frets."""
        return self.highest - self.lowest in _BOX


def line_of(bar: Bar) -> Line | None:
    """None of a bar that stops nothing, or more than one string at once."""
    if any(len(event.struck) > 1 for event in bar.events):
        return None
    stopped = [note.fret for event in bar.events for note in event.struck if note.fret and not note.dead]
    return Line(min(stopped), max(stopped)) if stopped else None


def in_a_place(
    moments: Sequence[Moment], stretch: Stretch, before: Line | None, after: Line | None
) -> Iterator[tuple[int, Grip]]:
    """By event (index) the note of a line with the finger that its place gives it; the bars before and after
    may show the place."""
    own = moments[stretch.first : stretch.last + 1]
    if any(len(moment.event.struck) > 1 for moment in own):
        return
    stopped = [fret for moment in own for fret in moment.frets.values() if fret]
    if len(stopped) < _LEAST_NOTES or min(stopped) == max(stopped):
        return
    line = Line(min(stopped), max(stopped))
    is_first = line.highest <= _FIRST and any(0 in moment.frets.values() for moment in own)
    box = Line(1, _FIRST) if is_first else _box(line, before, after)
    if box is None:
        return
    bent = {note.fret for moment in own for note in moment.event.struck if note.bend}
    for moment in own:
        ((string, fret),) = moment.frets.items() or ((0, 0),)
        if fret and fret not in bent and not _is_free(moment.event):
            taught = {string: _FINGERS[fret - box.lowest]}
            yield moment.index, Grip({string: fret}, (taught,), loose=True)


def _box(own: Line, before: Line | None, after: Line | None) -> Line | None:
    """With the bars around it where one place covers both."""
    wider = [own.joined(line) for line in (before, after) if line]
    both = [wider[0].joined(wider[1])] if len(wider) > 1 else []
    return next((line for line in (*both, *wider, own) if line.is_box), None)


def _is_free(event: Event) -> bool:
    """What is slid to has a finger of its own."""
    return any(note.techniques & _FREE for note in event.struck)
