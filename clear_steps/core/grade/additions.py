"""What is added after the norm: small demands beside the great ones, which the norm would swallow.

One table. Each row finds where it stands in a bar; a window that holds one has its share of a Step added, all
together at most 0.8 (from memory).
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction
from itertools import combinations, pairwise

from clear_steps.core.grade.measures import Found
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.score import Technique

MOST_ADDED = 0.8
_SECOND_STEP = 0.5  # a second demand on the same moments, as high as the first
_FROM_SHARE, _FULL_SHARE = 0.75, 0.9  # of the highest, between which it comes
_FROM_STEP, _FULL_STEP = 2.0, 4.0  # of the highest: what is easy is not two demands
# One gesture is one demand: by what share two measures of it are two (from memory).
_ONE_GESTURE = {
    frozenset({"shapes", "stretch"}): 0.0,
    frozenset({"shapes", "shift"}): 0.0,
    frozenset({"shift", "stretch"}): 0.0,
    frozenset({"speed", "technique"}): 0.5,
    frozenset({"speed", "stretch"}): 0.5,
}
_A_STROKE = 3  # strings at once
_GROUP, _LEAST_GROUPED = 3, 9  # notes that repeat across a beat of two, four ...; so many in a row


@dataclass(frozen=True, slots=True)
class Addition:
    """A row: what it is called, what it adds, and the moments of a bar at which it stands."""

    words: str
    step: float
    find: Callable[[PlayedBar], Iterator[Moment]]


def _added_fingers(bar: PlayedBar) -> Iterator[Moment]:
    for moment in bar.moments:
        alone = len(moment.change.fresh) == 1 and not moment.change.carried
        if alone and moment.grip is not None and len(moment.grip.fingers) > 2:
            yield moment


def _beside_a_drone(bar: PlayedBar) -> Iterator[Moment]:
    """Under a voice that moves; among strums it is a string of the chord."""
    strummed = any(len(moment.strings) >= _A_STROKE for moment in bar.moments)
    if bar.over_a_drone and not strummed:
        yield from (moment for moment in bar.moments if moment.change.works)


def _one_voice_more(bar: PlayedBar) -> Iterator[Moment]:
    if bar.two_voices:
        yield from (moment for moment in bar.moments if moment.change.works)


def _switched_mutes(bar: PlayedBar) -> Iterator[Moment]:
    muted = [(moment, Technique.PALM_MUTE in moment.event.techniques) for moment in bar.moments]
    switches = [now for (_, before), (now, after) in pairwise(muted) if before != after]
    if len(switches) > 1:
        yield from switches


def _accents_against(bar: PlayedBar) -> Iterator[Moment]:
    beat = bar.bar.metre.beat_quarters
    off = [
        moment
        for moment in bar.moments
        if Technique.ACCENT in moment.event.techniques and (bar.in_metre(moment.onset) / beat).denominator > 1
    ]
    if len(off) > 1:
        yield from off


def _grouped_across(bar: PlayedBar) -> Iterator[Moment]:
    """Strings that come in threes while the beat has two or four notes."""
    strings = [moment.strings for moment in bar.moments]
    lengths = {moment.event.quarters for moment in bar.moments}
    if len(lengths) > 1 or len(strings) < _LEAST_GROUPED or min(lengths).numerator % 3 == 0:
        return
    in_threes = all(one == other for one, other in zip(strings, strings[_GROUP:], strict=False))
    if in_threes and len(set(strings)) > 1 and _is_two_power(min(lengths)):
        yield from bar.moments[::_GROUP]


def _dotted(bar: PlayedBar) -> Iterator[Moment]:
    """Three parts and one of a beat or half of one."""
    for moment, after in pairwise(bar.moments):
        long, short = moment.event.quarters, after.event.quarters
        if long == 3 * short and long < 1 and _is_two_power(short):
            yield moment


def _past_the_body(bar: PlayedBar) -> Iterator[Moment]:
    """A capo does not move it."""
    joins = bar.body_fret
    if joins is not None:
        for moment in bar.moments:
            places = moment.grip.presses if moment.grip else ()
            if any(spot.fret + bar.capo > joins for _, spot in places):
                yield moment


def _is_two_power(length: Fraction) -> bool:
    return length.denominator & (length.denominator - 1) == 0


ADDITIONS: dict[str, Addition] = {
    "added_fingers": Addition("a finger added to a grip that is held", 0.3, _added_fingers),
    "drone": Addition("a drone to keep clear of", 0.3, _beside_a_drone),
    "voice": Addition("one voice more", 0.3, _one_voice_more),
    "mutes": Addition("mutes switched on and off", 0.3, _switched_mutes),
    "accents": Addition("accents against the beat", 0.4, _accents_against),
    "groups": Addition("groups of three across the beat", 0.5, _grouped_across),
    "body": Addition("past where the neck joins the body", 0.4, _past_the_body),
    "dotted": Addition("dotted notes against even ones", 0.3, _dotted),
}


def found_additions(bar: PlayedBar) -> dict[str, Found[Moment]]:
    """By row the moments of a bar, with their onsets in quarters."""
    found = {
        name: [(moment.sounding.onset_quarters, moment) for moment in row.find(bar)]
        for name, row in ADDITIONS.items()
    }
    return {name: moments for name, moments in found.items() if moments}


def second_demand(steps: Mapping[str, float], founds: Mapping[str, Found[object]]) -> tuple[float, str]:
    """What is added where two measures are both near the highest on one moment, and the lower one's name.

    Of any two, so that nothing jumps where the tempo makes another the highest.
    """
    high = max(steps.values(), default=0.0)
    near = sorted(
        (name for name, step in steps.items() if step > _FROM_SHARE * high), key=lambda n: -steps[n]
    )
    moments = {name: {at for at, _ in founds[name]} for name in near}
    together = [
        (_SECOND_STEP * _rise(steps[low] / high, _FROM_SHARE, _FULL_SHARE) * _apart(top, low), low)
        for top, low in combinations(near, 2)
        if moments[top] & moments[low]
    ]
    added, name = max(together, default=(0.0, ""))
    return added * _rise(high, _FROM_STEP, _FULL_STEP), name


def _apart(one: str, other: str) -> float:
    return _ONE_GESTURE.get(frozenset({one, other}), 1.0)


def _rise(value: float, start: float, stop: float) -> float:
    return min(max((value - start) / (stop - start), 0.0), 1.0)
