"""The fingers held from moment to moment: they stay down until they are needed elsewhere or are in
the way of what must sound; and since when those that move are free to go."""

from collections.abc import Iterable, Sequence
from math import inf
from typing import NamedTuple

from clear_steps.core.hand import FULL_BARRE_STRINGS, Grip, Spot
from clear_steps.core.score import Finger, Note

_Down = dict[Finger, frozenset[Spot]]
_NONE: frozenset[Finger] = frozenset()
_A_STROKE = 3  # strings at once, that the hand may let go halfway
CARRIED_SHARE = 0.6  # of setting a finger that it costs to carry it along (from memory)


class _Way(NamedTuple):
    """A way into a grip: fingers set anew, and carried along by so many frets."""

    fresh: frozenset[Finger]
    carried: frozenset[Finger]
    frets: int

    @property
    def work(self) -> float:
        """In fingers set."""
        return len(self.fresh) + CARRIED_SHARE * len(self.carried)


class Change(NamedTuple):
    """What the fretting hand does into a moment: the least over *it stays* and *it is carried along*."""

    works: bool  # a finger is set or must leave its string
    fresh: frozenset[Finger]  # set anew
    carried: frozenset[Finger]  # that lie as they lay, so many frets along
    frets: int  # up the neck that the hand is carried
    sets_a_shape: bool  # two fingers or more land, a barre, the thumb
    free: float  # seconds that those which land have had for it

    @property
    def landing(self) -> frozenset[Finger]:
        """Every finger that comes down."""
        return self.fresh | self.carried


NO_CHANGE = Change(False, _NONE, _NONE, 0, False, inf)


class Needed(NamedTuple):
    """When a finger was needed last, and until when where it is not the last before a change: seconds."""

    at: float
    until: float

    def free_from(self, last: bool) -> float:
        """The last note before a change is let go halfway."""
        return (self.at + self.until) / 2 if last else self.until


class HeldFingers:
    """Follows the fingers from the grip a bar is entered with."""

    def __init__(self, entering: Grip | None, idle: float) -> None:
        """From a grip whose last note was let go so many seconds ago."""
        self._down: _Down = _spots_of(entering) if entering else {}
        self._grip = entering
        self._lifted = False
        self._needed: dict[Finger, Needed] = {}
        self._last = Needed(-idle, -idle)

    @property
    def let_go(self) -> float:
        """The second at which the last finger that was needed is free, if a change comes then."""
        return self._last.free_from(last=True)

    def into(self, struck: Sequence[Note], grip: Grip | None, at: float, seconds: float) -> Change:
        """On to the next moment: when it comes, and how long it lasts."""
        change = self._into(struck, grip)
        if change.landing:
            change = change._replace(free=max(at - self._free_from(change.landing), 0.0))
        self._note_need(struck, grip, at, seconds)
        return change

    def _free_from(self, landing: Iterable[Finger]) -> float:
        """The second at which the last of these is free; one that was idle goes with the others."""
        needs = (self._needed.get(finger, self._last) for finger in landing)
        return max(need.free_from(need is self._last) for need in needs)

    def _note_need(self, struck: Sequence[Note], grip: Grip | None, at: float, seconds: float) -> None:
        fretted = {note.string for note in struck if note.fret and not note.dead}
        if grip is None or not fretted:
            return
        held = seconds / 2 if len(struck) >= _A_STROKE else seconds
        self._last = Needed(at, at + seconds)
        for finger, spot in grip.presses:
            if spot.string in fretted:
                self._needed[finger] = self._last if held == seconds else Needed(at, at + held)

    def _into(self, struck: Sequence[Note], grip: Grip | None) -> Change:
        if grip is self._grip and not self._lifted and not any(note.fret == 0 for note in struck):
            return NO_CHANGE
        now = _spots_of(grip) if grip else {}
        sounding = {note.string: note.fret for note in struck if not note.dead}
        lifted = {
            finger
            for finger, spots in self._down.items()
            if finger not in now and any(sounding.get(spot.string, spot.fret) < spot.fret for spot in spots)
        }
        set_here = self._set_anew(now)
        way = _Way(set_here, _NONE, 0)
        stays = grip is None or self._grip is None or grip.position == self._grip.position
        if set_here and self._down and grip is not None and len(grip.presses) > 1:
            by_finger = grip.barre_strings >= FULL_BARRE_STRINGS
            ways = [way, *(self._carried(now, frets, by_finger) for frets in self._ways_along(now))]
            way = min(ways, key=lambda each: each.work)
        along = self._along(way.frets) if way.carried else self._down if stays else {}
        kept = {finger: spots for finger, spots in along.items() if finger not in lifted}
        self._down = kept | {
            finger: kept[finger] if finger in kept and spots <= set(_covered(kept[finger])) else spots
            for finger, spots in now.items()
        }
        self._grip, self._lifted = grip or self._grip, bool(lifted)
        setting = grip.setting(way.fresh | way.carried) if grip and way.fresh | way.carried else None
        shape = setting is not None and (setting.fingers > 1 or setting.thumbed or setting.barre_strings > 0)
        return Change(bool(set_here or lifted), *way, shape, inf)

    def _ways_along(self, now: _Down) -> list[int]:
        """By how many frets the hand may have been carried: what brings a finger along its string."""
        both = now.keys() & self._down.keys()
        ways = {
            new.fret - old.fret
            for finger in both
            for old in self._down[finger]
            for new in now[finger]
            if old.string == new.string
        }
        return sorted(ways - {0})

    def _carried(self, now: _Down, frets: int, by_finger: bool) -> _Way:
        """Carried is a place that comes along, under a full barre only by its own finger: there the shape is
        built anew."""
        came = self._along(frets)
        places = {spot for spots in came.values() for spot in _covered(spots)}
        carried = frozenset(
            finger
            for finger, spots in now.items()
            if spots <= (set(_covered(came.get(finger, frozenset()))) if by_finger else places)
        )
        return _Way(frozenset(now.keys() - carried), carried, frets)

    def _along(self, frets: int) -> _Down:
        """Every finger that is down, so many frets along."""
        return {
            finger: frozenset(Spot(string, fret + frets) for string, fret in spots)
            for finger, spots in self._down.items()
        }

    def _set_anew(self, now: _Down) -> frozenset[Finger]:
        """Fingers whose place was not pressed before."""
        pressed = {spot for spots in self._down.values() for spot in _covered(spots)}
        return frozenset(finger for finger, spots in now.items() if not spots <= pressed)


def _spots_of(grip: Grip) -> _Down:
    spots: dict[Finger, list[Spot]] = {}
    for finger, spot in grip.presses:
        spots.setdefault(finger, []).append(spot)
    return {finger: frozenset(own) for finger, own in spots.items()}


def _covered(spots: frozenset[Spot]) -> Iterable[Spot]:
    """What a finger lies on: a barre covers the strings between its outer ones."""
    if len(spots) < 2:
        return spots
    strings, fret = [spot.string for spot in spots], max(spot.fret for spot in spots)
    return spots | {Spot(string, fret) for string in range(min(strings), max(strings) + 1)}
