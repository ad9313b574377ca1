"""What it costs the hand to go from one grip to the next.

Movement time is Fitts's law (Fitts 1954): MT = a + b log2(1 + D / W).
"""

from dataclasses import dataclass
from math import log2

import numpy as np
from numpy.typing import NDArray

from clear_steps.core.hand.demands import Links
from clear_steps.core.hand.grips import GripTable

# To be calibrated; the start is a usual pointing movement (from memory).
FITTS_A_SECONDS, FITTS_B_SECONDS = 0.030, 0.060
SLIDE_SHARE = 0.25  # a slide guides itself

_BROKEN_LINK_COST = 3000.0  # a hammer-on with a lower finger, a held note that changes fingers
_HOP_COST = 10.0  # one finger has to jump to another string or fret
_PLACE_COST = 2.0  # a finger that is set anew


def movement_seconds(distance_mm: float, width_mm: float) -> float:
    """Time to move the hand by `distance_mm` to a fret `width_mm` wide; no distance, no time."""
    return 0.0 if distance_mm <= 0 else FITTS_A_SECONDS + FITTS_B_SECONDS * log2(1 + distance_mm / width_mm)


def passing_factor(notes_per_second: float) -> float:
    """How much a reach that is only passed through counts: 0.85 up to 4 notes/s, 1.1 from 8."""
    return 0.85 + 0.25 * min(max((notes_per_second - 4) / 4, 0.0), 1.0)


@dataclass(frozen=True)
class MoveTable:
    """From every grip of one shape (row) to every grip of the next (column)."""

    needed_seconds: NDArray[np.float64]
    reach_mm: NDArray[np.float64]  # spread of the fingers of both, in the hand's own frame
    convention: NDArray[np.float64]


def move_table(before: GripTable, after: GripTable, links: Links) -> MoveTable:
    """Times, reaches and conventions between two shapes, all (rows before, rows after)."""
    distance = np.abs(before.position_mm[:, None] - after.position_mm[None, :])
    needed = np.where(distance > 0, FITTS_A_SECONDS + FITTS_B_SECONDS * np.log2(1 + distance / after.target_width_mm[None, :]), 0.0)
    if links.slid:
        needed = needed * SLIDE_SHARE
    reach = np.maximum(before.farthest_mm[:, None], after.farthest_mm[None, :]) - np.minimum(before.nearest_mm[:, None], after.nearest_mm[None, :])
    one_finger = _fingers_in_use(before, after) == 1
    return MoveTable(needed, np.where(one_finger, 0.0, reach), _convention(before, after, links))


def _fingers_in_use(before: GripTable, after: GripTable) -> NDArray[np.int64]:
    used = (before.spots[:, None, :] > 0) | (after.spots[None, :, :] > 0)
    return np.asarray(used.sum(axis=2))


def _convention(before: GripTable, after: GripTable, links: Links) -> NDArray[np.float64]:
    old, new = before.spots[:, None, :], after.spots[None, :, :]
    moved = (new > 0) & (new != old)
    cost = _PLACE_COST * moved.sum(axis=2) + _HOP_COST * (moved & (old > 0)).sum(axis=2)
    cost = cost.astype(np.float64)
    for strings, broken in ((links.raised, np.less_equal), (links.lowered, np.greater_equal), ((*links.slid, *links.kept), np.not_equal)):
        for string in strings:
            old_finger, new_finger = before.string_finger[:, None, string - 1], after.string_finger[None, :, string - 1]
            cost += _BROKEN_LINK_COST * (broken(new_finger, old_finger) & (old_finger > 0) & (new_finger > 0))
    return cost
