"""What it costs the hand to go from one grip to the next.

Movement time is Fitts's law (Fitts 1954), MT = a + b log2(1 + D / W), with a term for the way itself, D / v:
the logarithm alone tells two frets from twelve too little.
"""

from dataclasses import dataclass
from math import log2

import numpy as np
from numpy.typing import NDArray

from clear_steps.core.hand.demands import Links, Spot
from clear_steps.core.hand.grips import FINGER_NUMBERS, GripTable

# Calibrated on moves that teachers judged (tests/data/calibration), b from pointing movements (from memory).
FITTS_A_SECONDS, FITTS_B_SECONDS = 0.020, 0.040
TRAVEL_MM_A_SECOND = 2200.0
SLIDE_SHARE = 0.25  # a slide guides itself
GUIDE_SHARE = 0.8  # every finger stays on its string and finds the way along it

# Broken only where nothing else is possible, so dearer than any load: a hammer-on with a lower
# finger, a held note that changes fingers; a shape merely moved along that changes them.
_BROKEN_LINK_COST = _REFINGERED_COST = 1e7
_HOP_COST, _HOP_SECONDS = 25.0, 0.25  # one finger has to jump; less where it has longer than this
_PLACE_COST = 2.0  # a finger that is set anew
CHANGE_COST = 60.0  # a change of position, however near
_CROSS_COST = 60.0  # at one fret the finger nearer the thumb belongs on the thicker string
# On the next string a higher finger belongs on a higher fret; ring and little finger lie two frets apart
# only where index and little finger cannot take it.
_PASSED_COST, _WEAK_GAP_COST = 200_000.0, 200.0
_CRAMPED_COST = 15.0  # a fret less between two fingers than they lie apart
_TORN_COST = 2_000.0  # two fingers two frets wider than at rest, the hand staying in its place
_CREEP_COST = 350.0  # one finger on neighbouring frets, no slide: more than a bend by the index
_SWAP_COST = 200.0  # another finger on a spot that was pressed already
_SAME_AGAIN_COST = 20_000.0  # and on a note that is merely struck again, so that a pin holds for all of them
_RING = 3
_OUTER = 3  # from the index to the little finger
_BESIDE = 2  # frets: farther away the hand goes on
_HAND_FRETS = 4  # one hand covers
A_SHAPE = 3  # so many spots are a shape, with familiar fingers of its own
# A reach that is passed through: with time the hand closes and opens again.
_PASSED_IN_FULL_S, _NOT_PASSED_S = 0.25, 0.6
REST_SHARE = 0.6  # what a reach counts where fingers lie a fret apart each: the hand at rest


def movement_seconds(distance_mm: float, width_mm: float) -> float:
    """Time to move the hand by `distance_mm` to a fret `width_mm` wide; no distance, no time."""
    if distance_mm <= 0:
        return 0.0
    return (
        FITTS_A_SECONDS
        + FITTS_B_SECONDS * log2(1 + distance_mm / width_mm)
        + distance_mm / TRAVEL_MM_A_SECOND
    )


def passing_share(seconds: float) -> float:
    """How much of a passing reach the path still counts when there are so many seconds."""
    late = (seconds - _PASSED_IN_FULL_S) / (_NOT_PASSED_S - _PASSED_IN_FULL_S)
    return 1 - min(max(late, 0.0), 1.0)


def passing_factor(notes_per_second: float) -> float:
    """How much a reach that is only passed through counts: 0.85 at 4 notes/s, 1.1 from 8, 0.6 where the hand
    has 0.6 s to close and open again."""
    slow = 1 / _NOT_PASSED_S
    if notes_per_second < 4:
        return 0.6 + 0.25 * max((notes_per_second - slow) / (4 - slow), 0.0)
    return 0.85 + 0.25 * min((notes_per_second - 4) / 4, 1.0)


@dataclass(frozen=True)
class MoveTable:
    """From every grip of one shape (row) to every grip of the next (column)."""

    needed_seconds: NDArray[np.float64]
    reach_mm: NDArray[np.float64]  # from one note's finger to the next one's, in the hand's own frame
    hops: NDArray[np.int64]  # fingers that jump from one string or fret to another
    changes: NDArray[np.bool_]  # of position, into a single note
    convention: NDArray[np.float64]

    def conventions(self, seconds: float) -> NDArray[np.float64]:
        """What habit adds when there are so many seconds."""
        return self.convention + _HOP_COST * min(1.0, _HOP_SECONDS / seconds) * self.hops


def move_table(before: GripTable, after: GripTable, links: Links) -> MoveTable:
    """Times, reaches and conventions between two shapes, all (rows before, rows after)."""
    distance = _distance_mm(before, after)
    needed = np.where(
        distance > 0,
        FITTS_A_SECONDS
        + FITTS_B_SECONDS * np.log2(1 + distance / after.target_width_mm[None, :])
        + distance / TRAVEL_MM_A_SECOND,
        0.0,
    )
    if links.slid:
        needed = needed * SLIDE_SHARE
    else:
        needed = np.where(_guided(before, after), GUIDE_SHARE * needed, needed)
    moved = (after.spots[None, :, :] > 0) & (after.spots[None, :, :] != before.spots[:, None, :])
    hops = (moved & (before.spots[:, None, :] > 0)).sum(axis=2)
    convention = _PLACE_COST * moved.sum(axis=2) + _broken_links(before, after, links)
    convention += _order_costs(before, after, bool(links.slid))
    if not links.slid:
        convention += _CREEP_COST * _creeping(before, after)
    if min(len(before.grips[0].presses), len(after.grips[0].presses)) <= A_SHAPE - 1:
        cost = _SAME_AGAIN_COST if _struck_again(before, after) else _SWAP_COST
        convention += cost * _swapped(before, after)
    if _merely_moved(before, after):
        convention += _REFINGERED_COST * (
            before.string_finger[:, None, :] != after.string_finger[None, :, :]
        ).any(axis=2)
    changes = before.position_mm[:, None] != after.position_mm[None, :]
    if _only_spot(after) is None:  # a shape has its familiar fingers, wherever the hand was before
        changes = np.zeros_like(changes)
    if len(after.grips[0].presses) >= A_SHAPE:
        hops = np.zeros_like(hops)
    return MoveTable(needed, _passing_reach_mm(before, after), hops, changes, convention)


def _guided(before: GripTable, after: GripTable) -> NDArray[np.bool_]:
    """Whether a finger stays on its string and guides the hand, and none goes to another."""
    a, b = _only_spot(before), _only_spot(after)
    if a is not None and b is not None:
        same = before.lone_finger[:, None] == after.lone_finger[None, :]
        return same if a.string == b.string else np.zeros_like(same)
    old, new = before.string_finger[:, None, :], after.string_finger[None, :, :]
    stays, strays = np.zeros((2, len(before.grips), len(after.grips)), dtype=np.bool_)
    for finger in FINGER_NUMBERS:
        shared = ((old == finger) & (new == finger)).any(axis=2)
        stays |= shared
        strays |= (old == finger).any(axis=2) & (new == finger).any(axis=2) & ~shared
    return stays & ~strays


def _order_costs(before: GripTable, after: GripTable, slid: bool) -> NDArray[np.float64]:
    """Two single notes one after the other, by fingers that lie the other way round or too far apart."""
    a, b = _only_spot(before), _only_spot(after)
    if a is None or b is None or abs(a.fret - b.fret) > _HAND_FRETS:
        return np.zeros((len(before.grips), len(after.grips)))
    up = after.lone_finger[None, :] - before.lone_finger[:, None]
    if a.fret == b.fret:
        crossed = up * (a.string - b.string) < 0
        return np.where(crossed, _CROSS_COST, 0.0)
    apart = abs(a.fret - b.fret)
    lower = np.minimum(before.lone_finger[:, None], after.lone_finger[None, :])
    weak = (lower == _RING) & (abs(up) == 1) & (apart > 1)
    creeps = (up == 0) & (apart == 1) & (not slid)
    passed = up * (b.fret - a.fret) < 0
    if a.string == b.string:  # there the whole hand goes on, by its outer fingers
        passed &= (apart == 1) & (abs(up) < _OUTER)
    elif abs(a.string - b.string) > 1 or apart > _BESIDE:
        passed = np.zeros_like(passed)
    costs: NDArray[np.float64] = _CRAMPED_COST * np.maximum(abs(up) - apart, 0.0)
    in_place = before.position_mm[:, None] == after.position_mm[None, :]
    torn = in_place & (up != 0) & (apart > abs(up) + 1)
    for is_so, cost in (
        (weak, _WEAK_GAP_COST),
        (creeps, _CREEP_COST),
        (passed, _PASSED_COST),
        (torn, _TORN_COST),
    ):
        costs = costs + np.where(is_so, cost, 0.0)
    return costs


def _creeping(before: GripTable, after: GripTable) -> NDArray[np.bool_]:
    """Whether a finger of a grip goes to the next fret of its string while the hand stays in its place."""
    creeps = np.zeros((len(before.grips), len(after.grips)), dtype=np.bool_)
    if _only_spot(before) is not None and _only_spot(after) is not None:
        return creeps  # what two single notes cost is told by their order
    old = {spot.string: spot for _, spot in before.grips[0].presses}
    for _, new in after.grips[0].presses:
        was = old.get(new.string)
        if was is not None and abs(was.fret - new.fret) == 1:
            creeps |= before.fingers_on(was)[:, None] == after.fingers_on(new)[None, :]
    creeps &= before.position_mm[:, None] == after.position_mm[None, :]
    return creeps


def _only_spot(table: GripTable) -> Spot | None:
    presses = table.grips[0].presses
    return presses[0][1] if len(presses) == 1 else None


def _swapped(before: GripTable, after: GripTable) -> NDArray[np.int64]:
    """How many spots that stay pressed change their finger."""
    count = np.zeros((len(before.grips), len(after.grips)), dtype=np.int64)
    spots = {spot for _, spot in before.grips[0].presses} & {spot for _, spot in after.grips[0].presses}
    for spot in spots:
        count += before.fingers_on(spot)[:, None] != after.fingers_on(spot)[None, :]
    return count


def _struck_again(before: GripTable, after: GripTable) -> bool:
    return {spot for _, spot in before.grips[0].presses} == {spot for _, spot in after.grips[0].presses}


def _distance_mm(before: GripTable, after: GripTable) -> NDArray[np.float64]:
    """How far along the neck the hand goes, or a finger that presses both times, whichever is more.

    Into a shape only the hand's way counts: where its fingers go is part of setting it.
    """
    hand = np.abs(before.position_mm[:, None] - after.position_mm[None, :])
    if len(after.grips[0].presses) >= A_SHAPE:
        return hand
    fingers = np.abs(before.finger_mm[:, None, :] - after.finger_mm[None, :, :])
    return np.fmax(hand, np.fmax.reduce(fingers, axis=2))


def _passing_reach_mm(before: GripTable, after: GripTable) -> NDArray[np.float64]:
    """Spread of two different fingers that press one note each, one after the other, in the hand's frame.

    A chord's own reach is counted where it is held; once it is let go the hand closes again. Fingers that
    lie a fret apart each, or closer, are at rest and count less.
    """
    if len(before.grips[0].presses) > 1 or len(after.grips[0].presses) > 1:
        return np.zeros((len(before.grips), len(after.grips)))
    apart = np.abs(before.farthest_mm[:, None] - after.farthest_mm[None, :])
    same_finger = (before.finger_mm[:, None, :] >= 0) & (after.finger_mm[None, :, :] >= 0)
    frets = before.grips[0].presses[0][1].fret - after.grips[0].presses[0][1].fret
    fingers = before.lone_finger[:, None] - after.lone_finger[None, :]
    at_rest = np.abs(frets) <= np.abs(fingers)
    return np.where(same_finger.any(axis=2), 0.0, np.where(at_rest, REST_SHARE * apart, apart))


def _merely_moved(before: GripTable, after: GripTable) -> bool:
    patterns = []
    for table in (before, after):
        spots = [spot for _, spot in table.grips[0].presses]
        lowest = min(spot.fret for spot in spots)
        patterns.append({(spot.string, spot.fret - lowest) for spot in spots})
    # What lies at one fret can be one finger flat, or one finger each, wherever it goes.
    tall = len({fret for _, fret in patterns[0]}) > 1
    return patterns[0] == patterns[1] and tall


def _broken_links(before: GripTable, after: GripTable, links: Links) -> NDArray[np.float64]:
    cost = np.zeros((len(before.grips), len(after.grips)))
    for strings, broken in (
        (links.raised, np.less_equal),
        (links.lowered, np.greater_equal),
        ((*links.slid, *links.kept), np.not_equal),
    ):
        for string in strings:
            old_finger, new_finger = (
                before.string_finger[:, None, string - 1],
                after.string_finger[None, :, string - 1],
            )
            cost += _BROKEN_LINK_COST * (broken(new_finger, old_finger) & (old_finger > 0) & (new_finger > 0))
    return cost
