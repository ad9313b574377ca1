"""Ladders shipped with the application, every row with its source, and how a ladder file is read."""

import json
from functools import lru_cache
from importlib.resources import files
from typing import Any

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.grade import TUNE_FLOOR, Ladder
from clear_steps.core.hand import Curve, ShapeSteps
from clear_steps.core.score import Technique


@lru_cache(maxsize=1)
def default_ladder() -> Ladder:
    """The ladder every grade uses unless another is asked for."""
    return ladder_from_json(default_ladder_json())


def default_ladder_json() -> bytes:
    """The ladder file that ships."""
    return files(__package__).joinpath("default.json").read_bytes()


def ladder_from_json(content: bytes) -> Ladder:
    """Read a ladder file; raises ReadError."""
    try:
        rows: dict[str, Any] = json.loads(content)
        return Ladder(
            rows["name"],
            {
                row["curve"]: Curve(tuple((float(raw), float(step)) for raw, step in row["points"]))
                for row in rows["curves"]
            },
            {Technique(row["technique"]): float(row["step"]) for row in rows["techniques"]},
            ShapeSteps(**{key: float(step) for key, step in rows["shapes"].items() if key != "source"}),
            {row["name"]: float(row["step"]) for row in rows.get("own_techniques", [])},
            float(rows.get("tune_floor", TUNE_FLOOR)),
        )
    except json.JSONDecodeError as cause:
        raise ReadError(
            (Problem(cause.lineno, cause.colno, f"{cause.msg}; expected a ladder as JSON"),)
        ) from cause
    except (KeyError, TypeError, ValueError, ClearStepsError) as cause:
        raise ReadError(
            (Problem(1, 1, f"{cause}; expected a ladder with name, curves, techniques and shapes"),)
        ) from cause
