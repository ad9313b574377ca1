"""What lies on the strings from moment to moment: fingers stay down until they are needed elsewhere or are in
the way of what must sound."""

from collections import Counter
from collections.abc import Iterable
from typing import NamedTuple

from clear_steps.core.hand import Grip, Spot
from clear_steps.core.score import Finger, Note

_Down = dict[Finger, frozenset[Spot]]
_NONE: frozenset[Finger] = frozenset()
_A_SHAPE = 2  # spots that are carried together


class Change(NamedTuple):
    """What the fretting hand does into a moment."""

    works: bool  # a finger is set or must leave its string
    fresh: frozenset[Finger]  # set anew: the fewest over *the hand stays* and *it is carried along as it is*
    sets_a_shape: bool  # two fingers or more, a barre, the thumb


NO_CHANGE = Change(False, _NONE, False)


class Lying:
    """Follows the fingers from the grip a bar is entered with."""

    def __init__(self, entering: Grip | None) -> None:
        self._down: _Down = _spots_of(entering) if entering else {}
        self._grip = entering
        self._lifted = False

    def into(self, struck: Iterable[Note], grip: Grip | None) -> Change:
        """On to the next moment."""
        if grip is self._grip and not self._lifted and not any(note.fret == 0 for note in struck):
            return NO_CHANGE
        now = _spots_of(grip) if grip else {}
        sounding = {note.string: note.fret for note in struck if not note.dead}
        lifted = {
            finger
            for finger, spots in self._down.items()
            if finger not in now and any(sounding.get(spot.string, spot.fret) < spot.fret for spot in spots)
        }
        set_here = self._set_anew(now, 0)
        fresh = set_here
        stays = grip is None or self._grip is None or grip.position == self._grip.position
        if fresh and self._down and grip is not None and len(grip.presses) > 1:
            fresh = min((fresh, *(self._set_anew(now, frets) for frets in self._ways_along(now))), key=len)
        kept = {finger: spots for finger, spots in self._down.items() if stays and finger not in lifted}
        self._down = kept | {
            finger: kept[finger] if finger in kept and spots <= set(_covered(kept[finger])) else spots
            for finger, spots in now.items()
        }
        self._grip, self._lifted = grip or self._grip, bool(lifted)
        setting = grip.setting(fresh) if grip and fresh else None
        shape = setting is not None and (setting.fingers > 1 or setting.thumbed or setting.barre_strings > 0)
        return Change(bool(set_here or lifted), fresh, shape)

    def _ways_along(self, now: _Down) -> list[int]:
        """By how many frets the hand may have been carried: what brings two spots or more to those on their
        strings."""
        before = {spot.string: spot.fret for spots in self._down.values() for spot in spots}
        after = (spot for spots in now.values() for spot in spots)
        ways = Counter(spot.fret - before[spot.string] for spot in after if spot.string in before)
        return sorted(frets for frets, count in ways.items() if frets and count >= _A_SHAPE)

    def _set_anew(self, now: _Down, frets: int) -> frozenset[Finger]:
        """Fingers whose place was not pressed before, the hand carried along by so many frets."""
        pressed = {
            Spot(string, fret + frets) for spots in self._down.values() for string, fret in _covered(spots)
        }
        return frozenset(finger for finger, spots in now.items() if not spots <= pressed)


def _spots_of(grip: Grip) -> _Down:
    spots: dict[Finger, list[Spot]] = {}
    for finger, spot in grip.presses:
        spots.setdefault(finger, []).append(spot)
    return {finger: frozenset(own) for finger, own in spots.items()}


def _covered(spots: frozenset[Spot]) -> Iterable[Spot]:
    """What a finger lies on: a barre covers the strings between its outer ones."""
    if len(spots) == 1:
        return spots
    strings, fret = [spot.string for spot in spots], max(spot.fret for spot in spots)
    return spots | {Spot(string, fret) for string in range(min(strings), max(strings) + 1)}
