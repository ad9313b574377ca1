"""Shapes: how hard a grip is to set, and how soon it changes."""

from clear_steps.core.grade.finding import Finding, Place, beat_words, nothing
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import FULL_BARRE_STRINGS, HARDEST_STEP, Grip, Spot

UNIT = "changes/s"
_CHEAP_STEP = 1.0  # a shape held, or merely moved
_COUNT_WORDS = ("no", "one", "two", "three", "four", "five")


def shapes(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The hardest grip to set, plus what the rate of change adds; unit changes per second."""
    worst: tuple[float, float, Moment] | None = None
    held: frozenset[Spot] | None = None
    changed_at: float | None = None
    found_any = False
    for moment in bar.moments:
        if moment.grip is None or ladder.shapes.step(moment.grip) == 0:
            continue
        found_any = True
        spots = frozenset(spot for _, spot in moment.grip.presses)
        before = held if held is not None else _held_before(moment)
        if before is not None and (spots <= before or _moved(before, spots)):
            held = spots if not spots <= before else before
            continue
        rate = 0.0 if changed_at is None else 1 / (moment.seconds - changed_at)
        step = min(ladder.shapes.step(moment.grip) + ladder.curves["shape_changes"].step(rate), HARDEST_STEP)
        if worst is None or step > worst[0]:
            worst = (step, rate, moment)
        held, changed_at = spots, moment.seconds
    if worst is None:
        return Finding(_CHEAP_STEP, 0.0, UNIT, None, "One shape, held or merely moved along.") if found_any else nothing(UNIT)
    step, rate, moment = worst
    return Finding(step, rate, UNIT, Place(moment.onset, moment.strings), _evidence(bar, moment, rate))


def _held_before(moment: Moment) -> frozenset[Spot] | None:
    return frozenset(spot for _, spot in moment.move.before.presses) if moment.move else None


def _moved(before: frozenset[Spot], spots: frozenset[Spot]) -> bool:
    """The same strings and relative frets, somewhere else on the neck."""
    low_before, low = min(spot.fret for spot in before), min(spot.fret for spot in spots)
    return len(spots) > 1 and {(s.string, s.fret - low_before) for s in before} == {(s.string, s.fret - low) for s in spots}


def _evidence(bar: PlayedBar, moment: Moment, rate: float) -> str:
    assert moment.grip is not None  # only grips are judged
    change = f", {1 / rate:.1f} s after the last shape" if rate else ""
    chord = f" ({moment.event.chord})" if moment.event.chord else ""
    return f"At {beat_words(moment.onset, bar.bar.metre)} {_grip_words(moment.grip)} to set{chord}{change}."


def _grip_words(grip: Grip) -> str:
    fingers = _COUNT_WORDS[len(grip.fingers)]
    count = f"{fingers} finger{'s' if len(grip.fingers) > 1 else ''}"
    if grip.barre_strings >= FULL_BARRE_STRINGS:
        return f"a full barre at fret {grip.barre_fret} and {count} in all"
    if grip.barre_strings:
        return f"a barre over {_COUNT_WORDS[grip.barre_strings]} strings at fret {grip.barre_fret} and {count} in all"
    return count
