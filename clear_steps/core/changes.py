"""From one grip to the next: what stays, what guides along its string, what lifts, and the time that the hand
is free for it."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise

from clear_steps.core.hand import Grip as PathGrip
from clear_steps.core.score import Finger
from clear_steps.core.score.timing import BarTime
from clear_steps.core.score.words import capital, finger_words, number_words
from clear_steps.core.shapes import Grip, Kind, Shapes, Stretch

_STRUM = 3  # strings at once that the hand may let go halfway
_HALF = Fraction(1, 2)
_OPEN = "0"
_NO_HURRY_S = 1.0

Places = dict[Finger, frozenset[tuple[int, int]]]
"""The (string, fret) places that each finger stops."""
PathGrips = Mapping[tuple[int, int], PathGrip]
"""The grips of the path by bar and event (indexes)."""


@dataclass(frozen=True, slots=True)
class Moves:
    """Which fingers go from one stretch to the next; `frets` is the farthest that one goes along the neck."""

    stay: tuple[Finger, ...]
    guide: tuple[Finger, ...]
    lift: tuple[Finger, ...]
    anew: tuple[Finger, ...]  # set where they did not lie, on another string
    frets: int


@dataclass(frozen=True, slots=True)
class Change(Moves):
    """The same, and `seconds`: the shortest time that a finger that moves is free for it."""

    seconds: float

    @property
    def sign(self) -> str:
        """`2, 3 stay, 0.6 s`, as short as it stands over the tab; more time than a second is no hurry."""
        told = [
            f"{', '.join(own)} {one if len(own) == 1 else many}"
            for own, one, many in ((self.stay, "stays", "stay"), (self.guide, "guides", "guide"))
            if own
        ]
        hurry = [f"{self.seconds:.1f} s"] if self.seconds < _NO_HURRY_S else []
        return ", ".join([*(told or ["all move"]), *hurry])

    @property
    def words(self) -> str:
        """A sentence: `The first finger stays; the second moves, one fret at most; the hand is free for
        1.2 s.`"""
        moved = tuple(finger for finger in self.lift if finger in self.anew)
        off = tuple(finger for finger in self.lift if finger not in self.anew)
        added = tuple(finger for finger in self.anew if finger not in self.lift)
        far = f", {number_words(self.frets)} fret{'s' if self.frets > 1 else ''} at most" * bool(self.frets)
        told = [
            _told(self.stay, "stays", "stay"),
            _told(self.guide, "guides", "guide") + (far if self.guide and not moved else ""),
            _told(moved, "moves", "move") + (far if moved else ""),
            _told(off, "comes off", "come off"),
            _told(added, "is added", "are added"),
        ]
        said = "; ".join(filter(None, told)) or "nothing moves"
        return f"{capital(said)}; the hand is free for {self.seconds:.1f} s."


def _told(fingers: tuple[Finger, ...], one: str, many: str) -> str:
    return f"the {finger_words(fingers)} {one if len(fingers) == 1 else many}" if fingers else ""


def changes(shapes: Shapes, grips: PathGrips, times: Sequence[BarTime]) -> tuple[Change, ...]:
    """The change out of every stretch but the last."""
    return tuple(_change(shapes, pair, places, times) for pair, places in _pairs(shapes, grips))


def moves(shapes: Shapes, grips: PathGrips) -> tuple[Moves, ...]:
    """Which fingers go, out of every stretch but the last."""
    return tuple(_moves(*places) for _, places in _pairs(shapes, grips))


def _pairs(
    shapes: Shapes, grips: PathGrips
) -> Iterator[tuple[tuple[Stretch, Stretch], tuple[Places, Places]]]:
    """Stretches that follow each other, and where each finger lies in both."""
    places = [_places(shapes, stretch, grips) for stretch in shapes.stretches]
    yield from zip(pairwise(shapes.stretches), pairwise(places), strict=True)


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
    found = _moves(old, new)
    moving = new.keys() - {*found.stay}
    free = [_free_seconds(shapes, pair, (old.get(finger), new[finger]), times) for finger in moving]
    seconds = round(min(free, default=_seconds_between(shapes, pair, times)), 3)
    return Change(found.stay, found.guide, found.lift, found.anew, found.frets, seconds)


def _moves(old: Places, new: Places) -> Moves:
    both = old.keys() & new.keys()
    stay = {finger for finger in both if old[finger] & new[finger]}
    guide = {finger for finger in both - stay if _strings(old[finger]) & _strings(new[finger])}
    gone = {finger: _lowest(new[finger]) - _lowest(old[finger]) for finger in both - stay}
    return Moves(
        tuple(sorted(stay)),
        tuple(sorted(guide)),
        tuple(sorted(old.keys() - stay - guide)),
        tuple(sorted(new.keys() - stay - guide)),
        max(map(abs, gone.values()), default=0),
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
    to the first at which it is needed anew; one that stops nothing struck comes with the grip, one that was
    idle is set with the others, once the last of the old is struck."""
    old, new = pair
    was, comes = spots
    needed = (at for at in range(new.first, new.last + 1) if comes & {*shapes.moments[at].frets.items()})
    begins = next(needed, None)
    strings = set() if begins is None else _strings(comes)
    ends = _second(shapes, old.first, Fraction(0), times)
    for at in range(old.first, old.last + 1):
        moment = shapes.moments[at]
        is_needed = bool(was & {*moment.frets.items()}) if was else at == old.last
        if is_needed or strings & moment.frets.keys():
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


def changes_by_event(
    shapes: Shapes, grips: PathGrips, times: Sequence[BarTime]
) -> dict[tuple[int, int], Change]:
    """By bar and event (indexes) the change into the stretch that begins there; none where no finger has to
    go anywhere."""
    told = zip(shapes.stretches[1:], changes(shapes, grips, times), strict=True)
    return {
        (shapes.moments[new.first].bar, shapes.moments[new.first].index): change
        for new, change in told
        if new.kind is not Kind.OPEN and (change.anew or change.guide)
    }


def with_fingers_of_the_path(shapes: Shapes, grips: PathGrips) -> Shapes:
    """The same, with the path's fingers for grips for which none are taught, where it has one a string."""
    return replace(shapes, stretches=tuple(_fingered(shapes, each, grips) for each in shapes.stretches))


def _fingered(shapes: Shapes, stretch: Stretch, grips: PathGrips) -> Stretch:
    grip = stretch.grip
    if grip is None or grip.schools or stretch.kind is not Kind.HELD:
        return stretch
    found: dict[int, set[str]] = {string: set() for string, fret in grip.frets.items() if fret}
    for moment in shapes.moments[stretch.first : stretch.last + 1]:
        own = grips.get((moment.bar, moment.index))
        if own is not None:
            for string in found.keys() & moment.frets.keys():
                found[string].add(own.finger_on(string) or "")
    if any(len(fingers) != 1 or "" in fingers for fingers in found.values()):
        return stretch
    fingers = {string: next(iter(found.get(string, {_OPEN}))) for string in grip.frets}
    return replace(stretch, grip=replace(grip, schools=(fingers,)))
