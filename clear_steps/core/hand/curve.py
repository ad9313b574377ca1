"""Piecewise linear curves from a raw value to a Step."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import cast

import numpy as np
from numpy.typing import ArrayLike, NDArray

from clear_steps.core.errors import InvalidValueError

HARDEST_STEP = 10.0
_FAR = 1e6  # beyond any raw value


@dataclass(frozen=True)  # no slots: its axes are kept
class Curve:
    """Points (raw value, Step), both rising; a straight line leads from 0, 0 to the first."""

    points: tuple[tuple[float, float], ...]

    def __post_init__(self) -> None:
        raws, steps = zip((0.0, 0.0), *self.points, strict=True)
        if not (
            _rising(raws) and all(a <= b for a, b in itertools.pairwise(steps)) and steps[-1] <= HARDEST_STEP
        ):
            raise InvalidValueError(
                "curve", self.points, "values that rise and Steps that do not fall, up to 10"
            )

    def step(self, raw: float) -> float:
        """Step of a raw value, at most the curve's last."""
        before = (0.0, 0.0)
        for point in self.points:
            if raw <= point[0]:
                return before[1] + (raw - before[0]) * (point[1] - before[1]) / (point[0] - before[0])
            before = point
        return before[1]

    def raw(self, step: float) -> float:
        """The largest raw value that stays at or below a Step (the last point's beyond it)."""
        before = (0.0, 0.0)
        for point in self.points:
            if step < point[1]:
                return before[0] + (step - before[1]) * (point[0] - before[0]) / (point[1] - before[1])
            before = point
        return before[0]

    def steps_beyond(self, raws: ArrayLike) -> NDArray[np.float64]:
        """Steps of an array; past the last point its slope goes on, so worse always costs more."""
        return cast(NDArray[np.float64], np.interp(np.asarray(raws, dtype=np.float64), *self._axes))

    @cached_property
    def _axes(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Raw values and Steps, 0, 0 first, and at the end a point far out on the last slope."""
        xs, ys = zip((0.0, 0.0), *self.points, strict=True)
        slope = (ys[-1] - ys[-2]) / (xs[-1] - xs[-2])
        return np.array([*xs, xs[-1] + _FAR]), np.array([*ys, ys[-1] + _FAR * slope])


def _rising(values: Sequence[float]) -> bool:
    return all(a < b for a, b in itertools.pairwise(values))
