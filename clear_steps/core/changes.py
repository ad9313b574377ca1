"""From one grip to the next: what stays, what guides along its string, what lifts, and the time that the hand
is free for it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from clear_steps.core.hand import Grip as PathGrip
from clear_steps.core.score import Finger
from clear_steps.core.score.timing import BarTime
from clear_steps.core.shapes import Grip, Shapes, Stretch

_STRUM = 3  # strings at once that the hand may let go halfway
_HALF = Fraction(1, 2)
_OPEN = "0"

Places = dict[Finger, frozenset[tuple[int, int]]]
"""The (string, fret) places that each finger stops."""
PathGrips = Mapping[tuple[int, int], PathGrip]
"""The grips of the path by bar and event (indexes)."""


@dataclass(frozen=True, slots=True)
class Change:
    """How the hand comes from one stretch to the next; `frets` is the farthest that one finger goes along the
    neck, `seconds` the shortest time that a finger that moves is free for it."""

    stay: tuple[Finger, ...]
    guide: tuple[Finger, ...]
    lift: tuple[Finger, ...]
    frets: int
    seconds: float


def changes(shapes: Shapes, grips: PathGrips, times: Sequence[BarTime]) -> tuple[Change, ...]:
    """The change out of every stretch but the last."""
    places = [_places(shapes, stretch, grips) for stretch in shapes.stretches]
    return tuple(
        _change(shapes, (old, new), (places[at], places[at + 1]), times)
        for at, (old, new) in enumerate(zip(shapes.stretches, shapes.stretches[1:], strict=False))
    )


def _places(shapes: Shapes, stretch: Stretch, grips: PathGrips) -> Places:
    """Where each finger lies: as it is taught for the grip, else as the path has it."""
    grip = stretch.places[-1].grip if stretch.places else stretch.grip
    found: dict[Finger, set[tuple[int, int]]] = {}
    if grip and grip.fingers:
        for string, finger in _taught(grip).items():
            found.setdefault(finger, set()).add((string, grip.frets[string]))
    else:
        for moment in shapes.moments[stretch.first : stretch.last + 1]:
            own = grips.get((moment.bar, moment.index))
            for finger, spot in own.presses if own else ():
                found.setdefault(finger, set()).add((spot.string, spot.fret))
    return {finger: frozenset(spots) for finger, spots in found.items()}


def _taught(grip: Grip) -> dict[int, Finger]:
    return {string: Finger(sign) for string, sign in (grip.fingers or {}).items() if sign != _OPEN}


def _change(
    shapes: Shapes, pair: tuple[Stretch, Stretch], places: tuple[Places, Places], times: Sequence[BarTime]
) -> Change:
    old, new = places
    both = old.keys() & new.keys()
    stay = {finger for finger in both if old[finger] & new[finger]}
    guide = {finger for finger in both - stay if _strings(old[finger]) & _strings(new[finger])}
    gone = {finger: _lowest(new[finger]) - _lowest(old[finger]) for finger in both - stay}
    moving = new.keys() - stay
    free = [_free_seconds(shapes, pair, (old.get(finger), new[finger]), times) for finger in moving]
    return Change(
        tuple(sorted(stay)),
        tuple(sorted(guide)),
        tuple(sorted(old.keys() - stay - guide)),
        max(map(abs, gone.values()), default=0),
        round(min(free, default=_seconds_between(shapes, pair, times)), 3),
    )


def _strings(spots: frozenset[tuple[int, int]]) -> set[int]:
    return {string for string, _ in spots}


def _lowest(spots: frozenset[tuple[int, int]]) -> int:
    return min(fret for _, fret in spots)


def _free_seconds(
    shapes: Shapes,
    pair: tuple[Stretch, Stretch],
    spots: tuple[frozenset[tuple[int, int]] | None, frozenset[tuple[int, int]]],
    times: Sequence[BarTime],
) -> float:
    """From the last moment that a finger is needed where it lies, or its new string for what sounded there,
    to the first at which it is needed anew; one that stops nothing struck comes with the grip."""
    old, new = pair
    was, comes = spots
    needed = (at for at in range(new.first, new.last + 1) if comes & {*shapes.moments[at].frets.items()})
    begins = next(needed, None)
    strings = set() if begins is None else _strings(comes)
    ends = _second(shapes, old.first, Fraction(0), times)
    for at in range(old.first, old.last + 1):
        moment = shapes.moments[at]
        if (was and was & {*moment.frets.items()}) or strings & moment.frets.keys():
            short = at == old.last or len(moment.event.struck) >= _STRUM
            ends = _second(shapes, at, moment.event.quarters * (_HALF if short else 1), times)
    return _second(shapes, new.first if begins is None else begins, Fraction(0), times) - ends


def _seconds_between(shapes: Shapes, pair: tuple[Stretch, Stretch], times: Sequence[BarTime]) -> float:
    last = shapes.moments[pair[0].last].event.quarters * _HALF
    return _second(shapes, pair[1].first, Fraction(0), times) - _second(shapes, pair[0].last, last, times)


def _second(shapes: Shapes, at: int, later: Fraction, times: Sequence[BarTime]) -> float:
    """When a moment comes, so many quarters later, in seconds from the beginning."""
    moment = shapes.moments[at]
    return times[moment.bar].at(float(moment.onset + later))
