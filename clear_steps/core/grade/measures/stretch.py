"""Stretch: the widest grip, reach from one note to the next, or spread within a moment, against the
comfortable span."""

from collections.abc import Callable, Iterable
from functools import partial
from typing import NamedTuple

from clear_steps.core.grade.finding import Finding, Place, finger_words, nothing
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, Move, PlayedBar
from clear_steps.core.grade.spread import Spread
from clear_steps.core.hand import Grip, passing_factor

UNIT = "mm"


class _Reach(NamedTuple):
    """Along the neck, in mm: as it counts, and as it is; the words for it, but for the mm, from those for its
    beat."""

    counted_mm: float
    mm: float
    moment: Moment
    words: Callable[[str], str]
    seconds: float | None = None  # of one that is passed through


def stretch(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The reach that counts most, in mm; a passing one counts less when slow, more when fast."""
    worst = _worst(bar.moments)
    if worst is None:
        return nothing(UNIT)
    moment = worst.moment
    time = "" if worst.seconds is None else f", in {worst.seconds:.2f} s"
    evidence = (
        f"{worst.words(bar.beat_words(moment.onset))}: {worst.mm:.0f} mm of a comfortable"
        f" {bar.span_mm:.0f}{time}."
    )
    return Finding(
        ladder.curves["stretch"].step(worst.counted_mm / bar.span_mm),
        worst.mm,
        UNIT,
        Place(moment.onset, moment.strings),
        evidence,
    )


def _worst(moments: Iterable[Moment]) -> _Reach | None:
    """Of all that is held, passed and spread, the first that counts most."""
    worst, most = None, 0.0
    for moment in moments:
        grip, move, spread = moment.grip, moment.move, moment.spread
        if grip and grip.reach_mm > most:
            most = grip.reach_mm
            worst = _Reach(most, most, moment, partial(_held, grip))
        if move and (passing := move.way.reach_mm * passing_factor(1 / move.seconds)) > most:
            most = passing
            worst = _Reach(most, move.way.reach_mm, moment, partial(_passing, move), move.seconds)
        if spread and spread.counted_mm > most:
            most = spread.counted_mm
            worst = _Reach(most, spread.mm, moment, partial(_spread, spread), spread.seconds)
    return worst


def _held(grip: Grip, beat: str) -> str:
    spots = sorted((spot.fret, finger) for finger, spot in grip.presses if finger != "T")
    (low, first), (high, last) = spots[0], spots[-1]
    return f"At {beat} the hand holds frets {low} and {high} at once with the {finger_words((first, last))}"


def _passing(move: Move, beat: str) -> str:
    low, high = move.way.reach_frets
    hand = (
        f"while the hand moves {move.way.distance_mm:.0f} mm"
        if move.way.distance_mm
        else "without moving the hand"
    )
    if low == high:  # the hand goes on and a finger reaches back
        return f"Into {beat} the fingers reach back to fret {low} {hand}"
    return f"Into {beat} the fingers reach from fret {low} to fret {high} {hand}"


def _spread(spread: Spread, beat: str) -> str:
    low, high = spread.frets
    return f"Up to {beat} the fingers spread from fret {low} to fret {high} in one place of the hand"


def past_this_hand(bar: PlayedBar, reach_mm: float) -> bool:
    """Whether a grip of the bar lies past the most the hand can reach."""
    return any(moment.grip is not None and moment.grip.reach_mm > reach_mm for moment in bar.moments)
