"""The measures of a bar, one module and one row each."""

from typing import Any

from clear_steps.core.grade.measures.damping import DAMPING
from clear_steps.core.grade.measures.independence import INDEPENDENCE
from clear_steps.core.grade.measures.measure import Found, Measure, Window, window_of
from clear_steps.core.grade.measures.picking import PICKING
from clear_steps.core.grade.measures.rhythm import RHYTHM
from clear_steps.core.grade.measures.shapes import SHAPES
from clear_steps.core.grade.measures.shift import SHIFT
from clear_steps.core.grade.measures.speed import SPEED
from clear_steps.core.grade.measures.stretch import STRETCH
from clear_steps.core.grade.measures.technique import TECHNIQUE

__all__ = ["CURVE_NAMES", "HEADLINE", "MEASURES", "Found", "Measure", "Window", "window_of"]

_ROWS: tuple[Measure[Any], ...] = (
    STRETCH,
    SHIFT,
    SPEED,
    TECHNIQUE,
    SHAPES,
    PICKING,
    DAMPING,
    RHYTHM,
    INDEPENDENCE,
)
MEASURES: dict[str, Measure[Any]] = {row.name: row for row in _ROWS}
CURVE_NAMES = tuple(name for row in _ROWS for name in row.curves)
HEADLINE = ("stretch", "shift", "speed", "technique")
