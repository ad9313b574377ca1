"""Stretch: the widest grip, reach from one note to the next, or spread within a moment, against the
comfortable span."""

from collections.abc import Callable, Iterable, Iterator
from functools import partial
from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.measures.words import USUAL_SPAN_MM, beyond
from clear_steps.core.grade.played import Moment, Move, PlayedBar
from clear_steps.core.grade.spread import Spread
from clear_steps.core.hand import PAST_ANY_HAND_MM, Grip, passing_factor
from clear_steps.core.score.words import finger_words

# Fingers between the outer two tie the hand: so much more counts a reach for each (from memory).
_TWO_FINGERS, _A_FINGER_MORE = 2, 0.03
# What a held reach counts by the time there is to set it (from memory).
_AT_ONCE_S, _AT_EASE_S, _LEAST_HELD_SHARE = 0.5, 8.0, 0.8


class _Reach(NamedTuple):
    """Along the neck, in mm: as it counts, and as it is; the words for it, but for the mm, from those for its
    beat."""

    counted_mm: float
    mm: float
    moment: Moment
    words: Callable[[str], str]
    seconds: float | None = None  # of one that is passed through


def _find(bar: PlayedBar, _: Ladder) -> Found[_Reach]:
    """Of every moment what counts most of all that is held, passed and spread."""
    found: list[tuple[float, _Reach]] = []
    share = _LEAST_HELD_SHARE  # what is held from the bar before was set there
    for moment in bar.moments:
        if moment.change.landing:
            share = held_share(moment.since_set)
        reach = max(_reaches(moment, share), key=lambda each: each.counted_mm, default=None)
        if reach is not None:
            found.append((moment.sounding.onset_quarters, reach))
    return found


def held_share(seconds: float) -> float:
    """Of a reach that is set so many seconds after the shape before: with time a hand opens at ease."""
    late = min(max(seconds - _AT_ONCE_S, 0.0) / (_AT_EASE_S - _AT_ONCE_S), 1.0)
    return 1 - (1 - _LEAST_HELD_SHARE) * late


def _reaches(moment: Moment, share: float) -> Iterator[_Reach]:
    grip, move, spread = moment.grip, moment.move, moment.spread
    if grip and grip.reach_mm > 0:
        more = _A_FINGER_MORE * max(len(grip.fingers) - _TWO_FINGERS, 0)
        yield _Reach(grip.reach_mm * (1 + more) * share, grip.reach_mm, moment, partial(_held, grip))
    if move and move.way.reach_mm > 0:
        counted = move.way.reach_mm * passing_factor(1 / move.seconds)
        yield _Reach(counted, move.way.reach_mm, moment, partial(_passing, move), move.seconds)
    if spread and spread.counted_mm > 0:
        yield _Reach(spread.counted_mm, spread.mm, moment, partial(_spread, spread), spread.seconds)


def _weigh(found: Found[_Reach], window: Window, ladder: Ladder) -> float:
    """The reach that counts most; a passing one counts less when slow, more when fast."""
    return ladder.curves["stretch"].step(max(reach.counted_mm for _, reach in found) / window.span_mm)


def _tell(found: Found[_Reach], bar: PlayedBar, _: Ladder) -> Told:
    worst = max((reach for _, reach in found), key=lambda reach: reach.counted_mm)
    moment = worst.moment
    time = "" if worst.seconds is None else f", in {worst.seconds:.2f} s"
    if worst.mm >= PAST_ANY_HAND_MM:
        place = Place(moment.onset, moment.strings)
        return Told(worst.mm, place, f"{worst.words(bar.beat_words(moment.onset))}.")
    evidence = (
        f"{worst.words(bar.beat_words(moment.onset))}: {worst.mm:.0f} mm of a comfortable"
        f" {bar.span_mm:.0f}{time}."
    )
    return Told(worst.mm, Place(moment.onset, moment.strings), evidence)


def _held(grip: Grip, beat: str) -> str:
    spots = sorted((spot.fret, finger) for finger, spot in grip.presses if finger != "T")
    if grip.reach_mm >= PAST_ANY_HAND_MM:
        return f"At {beat} there are more places to press than fingers"
    (low, first), (high, last) = spots[0], spots[-1]
    return f"At {beat} the hand holds frets {low} and {high} at once with the {finger_words((first, last))}"


def _passing(move: Move, beat: str) -> str:
    low, high = move.way.reach_frets
    hand = (
        f"while the hand moves {move.way.distance_mm:.0f} mm"
        if move.way.distance_mm and not move.way.extension
        else "without moving the hand"
    )
    if low == high:  # the hand goes on and a finger reaches back
        return f"Into {beat} the fingers reach back to fret {low} {hand}"
    return f"Into {beat} the fingers reach from fret {low} to fret {high} {hand}"


def _spread(spread: Spread, beat: str) -> str:
    low, high = spread.frets
    return f"Up to {beat} the fingers spread from fret {low} to fret {high} in one place of the hand"


def past_this_hand(moments: Iterable[Moment], reach_mm: float) -> tuple[float, ...]:
    """Where a grip lies past the most the hand can reach: onsets in quarters."""
    return tuple(
        moment.sounding.onset_quarters
        for moment in moments
        if moment.grip is not None and moment.grip.reach_mm > reach_mm
    )


def _rung(ladder: Ladder, step: int) -> str:
    curve = ladder.curves["stretch"]
    reach = curve.raw(step) * USUAL_SPAN_MM
    return f"reaches up to {reach:.0f} mm for a hand that spans {USUAL_SPAN_MM:.0f}{beyond(curve, step)}"


STRETCH = Measure(
    name="stretch",
    spoken="the stretch",
    about="how far the fingers spread, against the hand's span",
    unit="mm",
    sign="M2 3v10M14 3v10M2 8h12M5 5.5 2.5 8 5 10.5M11 5.5 13.5 8 11 10.5",
    curves={"stretch": "stretch"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    said={"es": "la apertura de la mano"},
    helps={
        "en": "The thumb low behind the neck, and the farthest finger set first.",
        "es": "El pulgar bajo detrás del mástil, y poner primero el dedo más lejano.",
    },
)
