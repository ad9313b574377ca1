"""The cheapest path of grips through a part, exact, by dynamic programming.

Optimum path paradigm: Sayegh 1989; how span and position shape the choice: Heijink & Meulenbroek
2002 (both from memory). With g_i(c) the cost of grip c in layer i and m_i(p, c) that of the move:

    best_0(c) = g_0(c);    best_i(c) = g_i(c) + min_p (best_{i-1}(p) + m_i(p, c))

All hands run as one batch. Ties go to the first row, always.
"""

import heapq
import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from clear_steps.core.hand.costs import Costs, HandTables
from clear_steps.core.hand.demands import Links, Shape
from clear_steps.core.hand.grips import Grip


@dataclass(frozen=True, slots=True)
class Layer:
    """A moment to finger; `seconds` since the one before, of no meaning in a path's first."""

    shape: Shape
    links: Links
    seconds: float


@dataclass(frozen=True, slots=True)
class HandPath:
    """One grip for every layer, and what it cost in whole units for the hand it was chosen for."""

    grips: tuple[Grip, ...]
    cost: int


@dataclass(frozen=True, slots=True)
class Entry:
    """Where a stretch of layers begins: the shape before it, and the cost of being in each of its grips."""

    shape: Shape
    costs: Costs  # (hand, row)


_NO_COSTS = np.zeros((0, 0), dtype=np.int64)
Choices = list[NDArray[np.intp]]
"""For every layer but a path's first: (hand, row) -> the row before that leads there most cheaply."""


Rows = tuple[int, ...]
"""A grip for every layer, by its row in the layer's table."""
_BARRED = 10**15  # more than any path costs


def walk(
    layers: Sequence[Layer],
    tables: HandTables,
    entry: Entry | None = None,
    settled: Sequence[Rows] | None = None,
) -> tuple[Costs, Choices]:
    """Cost of ending in each grip of the last layer, (hand, row), and the choices that lead there; `settled`
    has the rows of every hand where they are no longer free."""
    choices: Choices = []
    shape, best = (entry.shape, entry.costs) if entry else (None, _NO_COSTS)
    for at, layer in enumerate(layers):
        own = tables.grip_costs(layer.shape)
        if settled is not None:
            own = own + _BARRED
            for hand, rows in enumerate(settled):
                own[hand, rows[at]] -= _BARRED
        if shape is None:
            best = own
        else:
            total = best[:, :, None] + tables.move_costs(shape, layer.shape, layer.links, layer.seconds)
            choices.append(total.argmin(1))
            best = np.minimum.reduce(total, axis=1) + own
        shape = layer.shape
    return best, choices


def trace(choices: Choices, hand: int, row: int) -> list[int]:
    """The rows that lead to a row of the last layer, first layer (or entry) first."""
    rows = [row]
    for choice in reversed(choices):
        rows.append(int(choice[hand, rows[-1]]))
    rows.reverse()
    return rows


def best_paths(layers: Sequence[Layer], tables: HandTables) -> tuple[HandPath, ...]:
    """The cheapest path for every span of the tables, in their order."""
    if not layers:
        return tuple(HandPath((), 0) for _ in range(tables.hands))
    costs, choices = walk(layers, tables)
    paths = []
    for hand in range(tables.hands):
        row = int(costs[hand].argmin())
        rows = trace(choices, hand, row)
        grips = tuple(tables.table(layer.shape).grips[at] for layer, at in zip(layers, rows, strict=True))
        paths.append(HandPath(grips, int(costs[hand, row])))
    return tuple(paths)


_Way = tuple[int, int, int]
"""A way to a row: its cost, the row before, and which of the ways there."""


def k_best_paths(
    layers: Sequence[Layer], tables: HandTables, count: int, hand: int = 0
) -> tuple[HandPath, ...]:
    """The `count` cheapest paths of one hand, cheapest first; exact.

    Every row keeps its `count` cheapest ways to it.
    """
    if not layers:
        return (HandPath((), 0),)
    kept: list[list[list[_Way]]] = [
        [[(int(cost), -1, -1)] for cost in tables.grip_costs(layers[0].shape)[hand]]
    ]
    for before, layer in itertools.pairwise(layers):
        moves = tables.move_costs(before.shape, layer.shape, layer.links, layer.seconds)[hand]
        own = tables.grip_costs(layer.shape)[hand]
        kept.append(
            [heapq.nsmallest(count, _ways_to(kept[-1], moves[:, row] + own[row])) for row in range(len(own))]
        )
    ends = heapq.nsmallest(
        count, ((way[0], row, rank) for row, ways in enumerate(kept[-1]) for rank, way in enumerate(ways))
    )
    return tuple(HandPath(_followed(kept, layers, tables, row, rank), cost) for cost, row, rank in ends)


def _ways_to(before: Sequence[Sequence[_Way]], costs: Costs) -> Iterator[_Way]:
    """Every kept way to the rows before, gone on to one row at a cost each."""
    for row, ways in enumerate(before):
        for rank, (cost, _, _) in enumerate(ways):
            yield cost + int(costs[row]), row, rank


def _followed(
    kept: list[list[list[_Way]]], layers: Sequence[Layer], tables: HandTables, row: int, rank: int
) -> tuple[Grip, ...]:
    grips: list[Grip] = []
    for layer, ways in zip(reversed(layers), reversed(kept), strict=True):
        grips.append(tables.table(layer.shape).grips[row])
        _, row, rank = ways[row][rank]
    return tuple(reversed(grips))
