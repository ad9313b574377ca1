"""The cheapest path of grips through a part, exact, by dynamic programming.

Optimum path paradigm: Sayegh 1989; how span and position shape the choice: Heijink & Meulenbroek
2002 (both from memory). With g_i(c) the cost of grip c in layer i and m_i(p, c) that of the move:

    best_0(c) = g_0(c);    best_i(c) = g_i(c) + min_p (best_{i-1}(p) + m_i(p, c))

The cost of a reach and of a move is the sixth power of the Step it would get, so that what the
path avoids is what the grade counts. All hands run as one batch: arrays are (hand, row before, row).
Ties go to the first row, always.
"""

import itertools
from collections.abc import Hashable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from clear_steps.core.hand.curve import Curve
from clear_steps.core.hand.demands import Demand, Links, Shape, Spot
from clear_steps.core.hand.grips import FULL_BARRE_STRINGS, Grip, GripTable, grip_table
from clear_steps.core.hand.moves import MoveTable, move_table, passing_factor
from clear_steps.core.hand.neck import Neck
from clear_steps.core.hand.player import SchoolWeights

_SHAPE_WEIGHT = 40.0


@dataclass(frozen=True, slots=True)
class PathCosts:
    """The curves that turn reaches and loads into Steps, and the school's weights."""

    stretch: Curve
    shift: Curve
    shape_steps: "ShapeSteps"
    school: SchoolWeights


@dataclass(frozen=True, slots=True)
class ShapeSteps:
    """Steps of setting a grip: by number of fingers, by kind of barre."""

    two_fingers: float
    three_fingers: float
    four_fingers: float
    small_barre: float
    full_barre_low: float  # at the 1st fret
    full_barre_high: float  # from the 5th fret on

    def step(self, grip: Grip) -> float:
        """Step of setting a grip; one finger alone is none."""
        count = len(grip.fingers)
        by_fingers = (0.0, 0.0, self.two_fingers, self.three_fingers, self.four_fingers, self.four_fingers)[count]
        if grip.barre_strings >= FULL_BARRE_STRINGS:
            down = min(max((grip.barre_fret - 1) / 4, 0.0), 1.0)
            return max(by_fingers, self.full_barre_low + (self.full_barre_high - self.full_barre_low) * down)
        return max(by_fingers, self.small_barre if grip.barre_strings else 0.0)


@dataclass(frozen=True, slots=True)
class HandPath:
    """One grip for every demand, and what it cost for the hand it was chosen for."""

    grips: tuple[Grip, ...]
    cost: float


def best_paths(demands: Sequence[Demand], tables: "HandTables") -> tuple[HandPath, ...]:
    """The cheapest path for every span of the tables, in their order."""
    if not demands:
        return tuple(HandPath((), 0.0) for _ in range(tables.hands))
    layers = [tables.table(demand.shape) for demand in demands]
    best = tables.grip_costs(demands[0].shape)
    choices: list[NDArray[np.intp]] = []
    for before, after in itertools.pairwise(demands):
        seconds = round(after.seconds - before.seconds, 9)
        total = best[:, :, None] + tables.move_costs(before.shape, after.shape, after.links, seconds)
        choices.append(total.argmin(axis=1))
        best = total.min(axis=1) + tables.grip_costs(after.shape)
    return tuple(_trace(hand, best, choices, layers) for hand in range(tables.hands))


def _trace(hand: int, best: NDArray[np.float64], choices: list[NDArray[np.intp]], tables: list[GripTable]) -> HandPath:
    row = int(best[hand].argmin())
    cost = float(best[hand, row])
    rows = [row]
    for choice in reversed(choices):
        row = int(choice[hand, row])
        rows.append(row)
    return HandPath(tuple(table.grips[row] for table, row in zip(tables, reversed(rows), strict=True)), cost)


def _sixth(steps: NDArray[np.float64]) -> NDArray[np.float64]:
    cubes = steps * steps * steps  # products: numpy's power is many times slower
    return cubes * cubes


_Pair = tuple[Hashable, ...]


def _pair(before: Shape, after: Shape, links: Links) -> _Pair:
    """What a table of moves depends on: of single notes only the frets, and whether they share a string."""
    if len(before.spots) == len(after.spots) == 1 and not before.pinned and not after.pinned:
        a, b = before.spots[0], after.spots[0]
        return (a.fret, b.fret, a.string == b.string, *(bool(strings) for strings in (links.raised, links.lowered, links.slid, links.kept)))
    return (before, after, links)


def _on_first_string(shape: Shape) -> Shape | None:
    """A single note's shape on the 1st string, which costs the same; None where strings matter."""
    if len(shape.spots) > 1 or shape.pinned:
        return None
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
        self._grip_costs: dict[Shape, NDArray[np.float64]] = {}
        self._moves: dict[_Pair, MoveTable] = {}
        self._move_costs: dict[tuple[_Pair, float], NDArray[np.float64]] = {}

    def table(self, shape: Shape) -> GripTable:
        """Grips of a shape."""
        if shape not in self._tables:
            first = _on_first_string(shape)
            if first and first != shape:
                self._tables[shape] = self.table(first).on_string(shape.spots[0].string)
            else:
                self._tables[shape] = grip_table(shape, self._neck, self._strings)
        return self._tables[shape]

    def grip_costs(self, shape: Shape) -> NDArray[np.float64]:
        """(hand, row): reach to the sixth power, shape in proportion, convention."""
        if shape not in self._grip_costs:
            first = _on_first_string(shape)
            if first and first != shape:
                self._grip_costs[shape] = self.grip_costs(first)
                return self._grip_costs[shape]
            table = self.table(shape)
            reach = _sixth(self._costs.stretch.steps_beyond(table.reach_mm[None, :] / self._spans))
            setting = _SHAPE_WEIGHT * np.array([self._costs.shape_steps.step(grip) for grip in table.grips])
            self._grip_costs[shape] = self._costs.school.reach * reach + setting + table.convention
        return self._grip_costs[shape]

    def move_costs(self, before: Shape, after: Shape, links: Links, seconds: float) -> NDArray[np.float64]:
        """(hand, row before, row): load and passing reach to the sixth power, convention."""
        key = (_pair(before, after, links), seconds)
        if key not in self._move_costs:
            moves = self._move_table(before, after, links)
            load = _sixth(self._costs.shift.steps_beyond(moves.needed_seconds / seconds))
            ratio = passing_factor(1 / seconds) * moves.reach_mm[None, :, :] / self._spans[:, :, None]
            reach = _sixth(self._costs.stretch.steps_beyond(ratio))
            self._move_costs[key] = self._costs.school.reach * reach + (self._costs.school.move * load + moves.conventions(seconds))[None, :, :]
        return self._move_costs[key]

    def _move_table(self, before: Shape, after: Shape, links: Links) -> MoveTable:
        key = _pair(before, after, links)
        if key not in self._moves:
            self._moves[key] = move_table(self.table(before), self.table(after), links)
        return self._moves[key]
