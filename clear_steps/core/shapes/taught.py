"""Grips whose fingers are taught, told from one bar alone: so a bar that is met again needs no reading."""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from clear_steps.core.score import Bar, Tuning
from clear_steps.core.shapes.carried import POWER_CHORD, interval, taught_for
from clear_steps.core.shapes.moments import Moment
from clear_steps.core.shapes.places import Line, in_a_place, line_of
from clear_steps.core.shapes.stretch import Grip, Kind, Shapes, Stretch

_LEAST_STRINGS = 3  # of a grip that a name alone does not make held


class Around(NamedTuple):
    """What of the bars around one bears on its reading: the name in force when it begins, and their lines."""

    chord: str = ""
    before: Line | None = None
    after: Line | None = None


def around_bars(bars: Sequence[Bar]) -> Iterator[Around]:
    """For every bar."""
    lines = [None, *map(line_of, bars), None]
    chord = ""
    for at, bar in enumerate(bars):
        yield Around(chord, lines[at], lines[at + 2])
        chord = next((event.chord for event in reversed(bar.events) if event.chord), chord)


def taught_in(seen: Shapes, tuning: Tuning, around: Around = Around()) -> dict[int, Grip]:
    """By event (index) of a bar that is seen alone what the hand holds there, where fingers are taught."""
    moments = seen.moments
    found = {
        moment.index: Grip(moment.frets, taught_for(moment.frets, tuning))
        for moment in moments
        if interval(moment.frets, tuning) == POWER_CHORD
    }
    for stretch in seen.stretches:
        if stretch.kind is Kind.POSITION:
            found |= dict(in_a_place(moments, stretch, around.before, around.after))
        else:
            found |= dict(_held(moments, stretch))
    return {index: grip for index, grip in found.items() if grip.schools}


def _held(moments: Sequence[Moment], stretch: Stretch) -> Iterator[tuple[int, Grip]]:
    grips = {place.first: place.grip for place in stretch.places}
    grip = stretch.grip
    if grip is None or not (grips or _is_firm(moments[stretch.first : stretch.last + 1], grip)):
        return
    for at in range(stretch.first, stretch.last + 1):
        grip = grips.get(at, grip)
        if grip.schools:
            yield moments[at].index, grip


def _is_firm(moments: Sequence[Moment], grip: Grip) -> bool:
    """Whether it is held for more than a note that happens to be of it: struck whole, or strings of it in
    turn."""
    strings = {string for moment in moments for string in moment.frets}
    whole = {string for string, fret in grip.frets.items() if fret} <= strings
    return whole if len(moments) == 1 else len(strings & grip.frets.keys()) >= _LEAST_STRINGS
