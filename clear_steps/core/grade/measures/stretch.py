"""Stretch: the widest grip, reach from one note to the next, or spread within a moment, against the comfortable span."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from clear_steps.core.grade.finding import Finding, Place, finger_words, nothing
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, Move, PlayedBar
from clear_steps.core.grade.spread import Spread
from clear_steps.core.hand import Grip, passing_factor

UNIT = "mm"


@dataclass(frozen=True, slots=True)
class _Reach:
    """Along the neck, in mm: as it counts, and as it is; the words for it, but for the mm, from those for its beat."""

    counted_mm: float
    mm: float
    moment: Moment
    words: Callable[[str], str]
    seconds: float | None = None  # of one that is passed through


def stretch(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The reach that counts most, in mm; a passing one counts less when slow, more when fast."""
    reaches = (reach for moment in bar.moments for reach in _reaches(moment) if reach.mm > 0)
    worst = max(reaches, key=lambda reach: reach.counted_mm, default=None)
    if worst is None or worst.counted_mm <= 0:
        return nothing(UNIT)
    moment = worst.moment
    time = "" if worst.seconds is None else f", in {worst.seconds:.2f} s"
    evidence = f"{worst.words(bar.beat_words(moment.onset))}: {worst.mm:.0f} mm of a comfortable {bar.span_mm:.0f}{time}."
    return Finding(ladder.curves["stretch"].step(worst.counted_mm / bar.span_mm), worst.mm, UNIT, Place(moment.onset, moment.strings), evidence)


def _reaches(moment: Moment) -> Iterator[_Reach]:
    if grip := moment.grip:
        yield _Reach(grip.reach_mm, grip.reach_mm, moment, lambda beat: _held(grip, beat))
    if move := moment.move:
        yield _Reach(move.way.reach_mm * passing_factor(1 / move.seconds), move.way.reach_mm, moment, lambda beat: _passing(move, beat), move.seconds)
    if spread := moment.spread:
        yield _Reach(spread.counted_mm, spread.mm, moment, lambda beat: _spread(spread, beat), spread.seconds)


def _held(grip: Grip, beat: str) -> str:
    spots = sorted((spot.fret, finger) for finger, spot in grip.presses if finger != "T")
    (low, first), (high, last) = spots[0], spots[-1]
    return f"At {beat} the hand holds frets {low} and {high} at once with the {finger_words((first, last))}"


def _passing(move: Move, beat: str) -> str:
    low, high = move.way.reach_frets
    hand = f"while the hand moves {move.way.distance_mm:.0f} mm" if move.way.distance_mm else "without moving the hand"
    return f"Into {beat} the fingers reach from fret {low} to fret {high} {hand}"


def _spread(spread: Spread, beat: str) -> str:
    low, high = spread.frets
    return f"Up to {beat} the fingers spread from fret {low} to fret {high} in one place of the hand"


def past_this_hand(bar: PlayedBar, reach_mm: float) -> bool:
    """Whether a grip of the bar lies past the most the hand can reach."""
    return any(moment.grip is not None and moment.grip.reach_mm > reach_mm for moment in bar.moments)
