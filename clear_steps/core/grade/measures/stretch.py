"""Stretch: the widest grip, or reach from one note to the next, against the comfortable span."""

from clear_steps.core.grade.finding import Finding, Place, beat_words, finger_words, nothing
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import passing_factor

UNIT = "mm"


def stretch(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The reach that counts most, in mm; a passing one counts less when slow, more when fast."""
    worst: tuple[float, Moment, bool] | None = None
    for moment in bar.moments:
        if moment.grip and moment.grip.reach_mm > 0 and (worst is None or moment.grip.reach_mm > worst[0]):
            worst = (moment.grip.reach_mm, moment, True)
        if moment.move and moment.move.way.reach_mm > 0:
            counted = moment.move.way.reach_mm * passing_factor(1 / moment.move.seconds)
            if worst is None or counted > worst[0]:
                worst = (counted, moment, False)
    if worst is None:
        return nothing(UNIT)
    counted_mm, moment, held = worst
    step = ladder.curves["stretch"].step(counted_mm / bar.span_mm)
    return Finding(step, _mm(moment, held), UNIT, Place(moment.onset, moment.strings), _evidence(bar, moment, held))


def _mm(moment: Moment, held: bool) -> float:
    if held and moment.grip:
        return moment.grip.reach_mm
    return moment.move.way.reach_mm if moment.move else 0.0


def _evidence(bar: PlayedBar, moment: Moment, held: bool) -> str:
    beat = beat_words(moment.onset, bar.bar.metre)
    mm = f"{_mm(moment, held):.0f} mm of a comfortable {bar.span_mm:.0f}"
    if held and moment.grip:
        spots = sorted((spot.fret, finger) for finger, spot in moment.grip.presses if finger != "T")
        (low, first), (high, last) = spots[0], spots[-1]
        return f"At {beat} the hand holds frets {low} and {high} at once with the {finger_words((first, last))}: {mm}."
    assert moment.move is not None  # only moments with a move have a passing reach
    low, high = moment.move.way.reach_frets
    hand = f"while the hand moves {moment.move.way.distance_mm:.0f} mm" if moment.move.way.distance_mm else "without moving the hand"
    return f"Into {beat} the fingers reach from fret {low} to fret {high} {hand}: {mm}, in {moment.move.seconds:.2f} s."


def past_this_hand(bar: PlayedBar, reach_mm: float) -> bool:
    """Whether a grip of the bar lies past the most the hand can reach."""
    return any(moment.grip is not None and moment.grip.reach_mm > reach_mm for moment in bar.moments)
