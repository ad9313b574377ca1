"""Shapes: how hard a grip is to set, and how soon it changes."""

from clear_steps.core.grade.finding import Finding, Place, nothing, number_words
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import FULL_BARRE_STRINGS, HARDEST_STEP, Grip, Spot

UNIT = "changes/s"
_CHEAP_STEP = 1.0  # a shape held, or merely moved
_HOLDABLE_FRETS = 4
_NO_SPOTS: frozenset[Spot] = frozenset()


def shapes(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The hardest grip to set, plus what the rate of change adds; unit changes per second."""
    worst: tuple[float, float, Moment] | None = None
    held: frozenset[Spot] = frozenset()
    set_at: float | None = None
    rate, found_any = 0.0, False
    for moment in bar.moments:
        spots = _chord_spots(moment)
        if moment.grip is None or not spots:
            continue
        found_any = True
        before = held or _held_before(moment)
        if spots <= before or _moved(before, spots):
            held = before if spots <= before else spots
            continue
        grown = held and _goes_with(held, spots, moment)  # an arpeggio sets its shape finger by finger
        if not grown:
            rate = 0.0 if set_at is None else 1 / (moment.seconds - set_at)
            set_at = moment.seconds
        step = min(
            ladder.shapes.step(moment.grip, bar.capo) + ladder.curves["shape_changes"].step(rate),
            HARDEST_STEP,
        )
        if worst is None or step > worst[0]:
            worst = (step, rate, moment)
        held = held | spots if grown else spots
    if worst is None:
        return (
            Finding(_CHEAP_STEP, 0.0, UNIT, None, "One shape, held or merely moved along.")
            if found_any
            else nothing(UNIT)
        )
    step, rate, moment = worst
    return Finding(step, rate, UNIT, Place(moment.onset, moment.strings), _evidence(bar, moment, rate))


def _chord_spots(moment: Moment) -> frozenset[Spot]:
    """What is pressed on two strings or more; fingers set down ahead on one string are no shape."""
    if moment.grip is None or len(moment.grip.presses) < 2:
        return _NO_SPOTS
    spots = frozenset(spot for _, spot in moment.grip.presses)
    return spots if len({spot.string for spot in spots}) > 1 else _NO_SPOTS


def _goes_with(held: frozenset[Spot], spots: frozenset[Spot], moment: Moment) -> bool:
    """Whether the hand can keep what it holds: no string is lifted or stopped elsewhere, nothing lies far
    off."""
    frets = {spot.string: spot.fret for spot in held}
    opened = {note.string for note in moment.sounding.struck if note.fret == 0}
    every = [spot.fret for spot in held | spots]
    return (
        not opened & set(frets)
        and all(frets.get(spot.string, spot.fret) == spot.fret for spot in spots)
        and max(every) - min(every) <= _HOLDABLE_FRETS
    )


def _held_before(moment: Moment) -> frozenset[Spot]:
    return frozenset(spot for _, spot in moment.move.way.before.presses) if moment.move else frozenset()


def _moved(before: frozenset[Spot], spots: frozenset[Spot]) -> bool:
    """The same strings and relative frets, somewhere else on the neck."""
    if not before:
        return False
    low_before, low = min(spot.fret for spot in before), min(spot.fret for spot in spots)
    return len(spots) > 1 and {(s.string, s.fret - low_before) for s in before} == {
        (s.string, s.fret - low) for s in spots
    }


def _evidence(bar: PlayedBar, moment: Moment, rate: float) -> str:
    assert moment.grip is not None  # only grips are judged
    change = f", {1 / rate:.1f} s after the last shape" if rate else ""
    chord = f" ({moment.event.chord})" if moment.event.chord else ""
    return f"At {bar.beat_words(moment.onset)} {_grip_words(moment.grip)} to set{chord}{change}."


def _grip_words(grip: Grip) -> str:
    fingers = number_words(len(grip.fingers))
    count = f"{fingers} finger{'s' if len(grip.fingers) > 1 else ''}"
    if grip.barre_strings >= FULL_BARRE_STRINGS:
        return f"a full barre at fret {grip.barre_fret}, {count} in all,"
    if grip.barre_strings:
        return (
            f"a barre over {number_words(grip.barre_strings)} strings at fret {grip.barre_fret}, {count} in"
            " all,"
        )
    return count
