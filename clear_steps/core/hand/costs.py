"""What grips and moves cost, in whole numbers, so that sums are exact and ties are true ties.

The cost of a reach and of a move is the sixth power of the Step it would get, so that what the path
avoids is what the grade counts. All hands of a batch share one geometry: arrays are (hand, row before, row).
"""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from clear_steps.core.hand.curve import Curve
from clear_steps.core.hand.demands import Links, Shape, Spot
from clear_steps.core.hand.grips import (
    FULL_BARRE_STRINGS,
    Grip,
    GripTable,
    Setting,
    finger_number,
    grip_table,
)
from clear_steps.core.hand.moves import CHANGE_COST, MoveTable, move_table, passing_factor, passing_share
from clear_steps.core.hand.neck import Neck
from clear_steps.core.hand.player import Habits, SchoolWeights

COST_UNITS = 1000  # a cost of 1 in whole numbers
_SHAPE_WEIGHT = 40.0
# Other fingers on a familiar grip than are taught for it, and for each of them: as much as a move that is
# Step 8, so that no fret less to move in the next bar is worth it (from memory).
_UNTAUGHT_COST, _UNTAUGHT_FINGER_COST = 300_000.0, 2_000.0
_OUT_OF_PLACE_COST = 5_000.0  # other fingers than a place of the hand gives
_LESS_COMMON_COST = 25.0  # a school, for each that is commoner
_FAR = 2  # strings apart: no neighbours
_MOST_KEPT = 5_000  # tables of moves remembered at a time: about 10 MB, several songs of one instrument

Costs = NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class PathCosts:
    """The curves that turn reaches and loads into Steps, the school's weights and the player's habits."""

    stretch: Curve
    shift: Curve
    shape_steps: "ShapeSteps"
    school: SchoolWeights
    habits: Habits = Habits()


@dataclass(frozen=True, slots=True)
class ShapeSteps:
    """Steps of setting a grip: by number of fingers, by kind of barre."""

    two_fingers: float
    three_fingers: float
    four_fingers: float
    small_barre: float
    full_barre_low: float  # at the 1st fret
    full_barre_high: float  # from the 5th fret on
    thumb: float  # a bass fretted by the thumb, at least

    def step(self, grip: Grip, capo: int = 0) -> float:
        """Step of setting all of a grip."""
        return self.of(grip.setting(grip.fingers), capo)

    def of(self, setting: Setting, capo: int = 0) -> float:
        """Step of setting fingers; one on one string is none, one flat alone over up to four as much as the
        fingers whose work it does.

        A barre is as hard as its fret counted from the nut makes it, whatever capo lies before it.
        """
        rows = (0.0, 0.0, self.two_fingers, self.three_fingers, self.four_fingers, self.four_fingers)
        if setting.fingers == 1 and setting.barre_strings < FULL_BARRE_STRINGS:
            return max(rows[setting.barre_strings], self.thumb if setting.thumbed else 0.0)
        by_fingers = max(rows[setting.fingers], self.thumb if setting.thumbed else 0.0)
        if setting.barre_strings >= FULL_BARRE_STRINGS:
            down = min(max((setting.barre_fret + capo - 1) / 4, 0.0), 1.0)
            return max(by_fingers, self.full_barre_low + (self.full_barre_high - self.full_barre_low) * down)
        return max(by_fingers, self.small_barre if setting.barre_strings else 0.0)


def _sixth(steps: NDArray[np.float64]) -> NDArray[np.float64]:
    cubes = steps * steps * steps  # products: numpy's power is many times slower
    return cubes * cubes


def _whole(costs: NDArray[np.float64]) -> Costs:
    return np.rint(costs * COST_UNITS).astype(np.int64)


_Pair = tuple[Hashable, ...]


def _pair(before: Shape, after: Shape, links: Links) -> _Pair:
    """What a table of moves depends on: of single notes the frets, and whether they share a string or lie on
    neighbouring ones."""
    before, after = before.gripped, after.gripped
    if before.is_plain_note and after.is_plain_note:
        a, b = before.spots[0], after.spots[0]
        return (
            a.fret,
            b.fret,
            max(-_FAR, min(a.string - b.string, _FAR)),
            *(bool(strings) for strings in (links.raised, links.lowered, links.slid, links.kept)),
        )
    return (before, after, links)


def _on_first_string(shape: Shape) -> Shape:
    """A plain note's shape on the 1st string, which costs the same."""
    return Shape((Spot(1, shape.spots[0].fret),), frozenset())


class HandTables:
    """What hands of some spans (mm) can do on one neck; each table is built once per shape or pair of shapes.

    Pure: a table depends on its key alone, so one object may serve many paths.
    """

    def __init__(self, neck: Neck, strings: int, spans_mm: Sequence[float], costs: PathCosts) -> None:
        self._neck, self._strings, self._costs = neck, strings, costs
        self._spans = np.array(spans_mm, dtype=np.float64)[:, None]
        self.hands = len(spans_mm)
        self._tables: dict[Shape, GripTable] = {}
        self._grip_costs: dict[Shape, Costs] = {}
        self._moves: dict[_Pair, MoveTable] = {}
        self._move_costs: dict[tuple[_Pair, float], Costs] = {}

    def table(self, shape: Shape) -> GripTable:
        """Grips of a shape."""
        shape = shape.gripped
        found = self._tables.get(shape)
        if found is None:
            first = _on_first_string(shape) if shape.is_plain_note else shape
            found = (
                self.table(first).on_string(shape.spots[0].string)
                if first != shape
                else grip_table(shape, self._neck, self._strings, self._costs.habits)
            )
            self._tables[shape] = found
        return found

    def grip_costs(self, shape: Shape) -> Costs:
        """(hand, row): reach to the sixth power, shape in proportion, convention."""
        found = self._grip_costs.get(shape)
        if found is None:
            same = _on_first_string(shape) if shape.is_plain_note else shape.gripped
            found = self.grip_costs(same) if same != shape else self._built_grip_costs(shape)
            found = found + self._untaught_costs(shape) if shape.schools else found
            self._grip_costs[shape] = found
        return found

    def _untaught_costs(self, shape: Shape) -> Costs:
        """(row): what it costs to take other fingers than any school has, or those of a rarer one."""
        fingers = self.table(shape).string_finger
        others = [
            sum(fingers[:, string - 1] != finger_number(finger) for string, finger in school)
            for school in shape.schools
        ]
        away = np.minimum.reduce(others)
        if shape.loose:
            return _whole(_OUT_OF_PLACE_COST * (away > 0))
        rank = np.argmin(others, axis=0)
        costs = _UNTAUGHT_COST * (away > 0) + _UNTAUGHT_FINGER_COST * away + _LESS_COMMON_COST * rank
        return _whole(costs)

    def _built_grip_costs(self, shape: Shape) -> Costs:
        table = self.table(shape)
        reach = _sixth(self._costs.stretch.steps_beyond(table.reach_mm[None, :] / self._spans))
        setting = _SHAPE_WEIGHT * np.array(
            [self._costs.shape_steps.step(grip, self._neck.capo) for grip in table.grips]
        )
        return _whole(self._costs.school.reach * reach + setting + table.convention)

    def move_costs(self, before: Shape, after: Shape, links: Links, seconds: float) -> Costs:
        """(hand, row before, row): load and passing reach to the sixth power, convention."""
        key = (_pair(before, after, links), seconds)
        found = self._move_costs.get(key)
        if found is None:
            moves = self._move_table(before, after, links)
            load = _sixth(self._costs.shift.steps_beyond(moves.needed_seconds / seconds))
            ratio = passing_factor(1 / seconds) * moves.reach_mm[None, :, :] / self._spans[:, :, None]
            reach = _sixth(self._costs.stretch.steps_beyond(ratio)) * passing_share(seconds)
            found = _whole(
                self._costs.school.reach * reach
                + (
                    self._costs.school.move * (load + CHANGE_COST * moves.changes)
                    + moves.conventions(seconds)
                )[None, :, :]
            )
            if len(self._move_costs) >= _MOST_KEPT:
                self._move_costs.clear()
            self._move_costs[key] = found
        return found

    def _move_table(self, before: Shape, after: Shape, links: Links) -> MoveTable:
        key = _pair(before, after, links)
        found = self._moves.get(key)
        if found is None:
            found = move_table(self.table(before), self.table(after), links)
            if len(self._moves) >= _MOST_KEPT:
                self._moves.clear()
            self._moves[key] = found
        return found


@lru_cache(maxsize=16)
def shared_tables(neck: Neck, strings: int, spans_mm: tuple[float, ...], costs: PathCosts) -> HandTables:
    """The tables of one instrument, hands and ladder, the same object for the same question: what it
    remembers is pure."""
    return HandTables(neck, strings, spans_mm, costs)
