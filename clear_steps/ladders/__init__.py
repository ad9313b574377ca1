"""Ladders shipped with the application, every row with its source, and how a ladder file is read."""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files
from math import isfinite
from typing import Any

from clear_steps.core.errors import ClearStepsError, Problem, ReadError
from clear_steps.core.grade import CURVE_NAMES, TUNE_FLOOR, Ladder, Modifier
from clear_steps.core.hand import Curve, ShapeSteps
from clear_steps.core.score import Technique
from clear_steps.core.score.strumming import ChordShape, StrumPattern
from clear_steps.core.shapes import open_grips

MAX_BYTES = 400_000
Json = dict[str, Any]  # a ladder file, or one of its rows
# The lists of rows and what names a row in them.
_ROWS = {"curves": "curve", "techniques": "technique", "modifiers": "modifier"}
_LISTS = {
    "strum_patterns": "strum patterns",
    "chord_shapes": "chord shapes",
}  # a teacher's own, or all that ship
_KNOWN = {"name", "curves", "techniques", "modifiers", "shapes", "own_techniques", "tune_floor", *_LISTS}
_EXPECTED = "expected a ladder with name, curves, techniques and shapes"


@dataclass(frozen=True)
class LadderReading:
    """A ladder, the file it is now, and the rows that it had not and the shipped one lent."""

    ladder: Ladder
    content: str
    filled: tuple[str, ...]


@lru_cache(maxsize=1)
def default_ladder() -> Ladder:
    """The ladder every grade uses unless another is asked for."""
    return _ladder(json.loads(default_ladder_json()))


def default_ladder_json() -> bytes:
    """The ladder file that ships."""
    return files(__package__).joinpath("default.json").read_bytes()


def ladder_from_json(content: bytes) -> Ladder:
    """The ladder in a file; raises ReadError."""
    return read_ladder(content).ladder


def read_ladder(content: bytes) -> LadderReading:
    """Read a ladder file; one written before a curve or a technique was added gets it from the shipped
    ladder.

    Raises ReadError.
    """
    if len(content) > MAX_BYTES:
        raise _wrong(f"the ladder has {len(content):,} bytes; expected at most {MAX_BYTES:,}")
    try:
        rows = json.loads(content)
        _check_keys(rows)
        filled = _fill(rows)
        return LadderReading(_ladder(rows), json.dumps(rows), filled)
    except json.JSONDecodeError as cause:
        message = f"{cause.msg}; expected a ladder as JSON"
        raise ReadError((Problem(cause.lineno, cause.colno, message),)) from cause
    except (
        KeyError,
        TypeError,
        ValueError,
        AttributeError,
        OverflowError,
        RecursionError,
        ClearStepsError,
    ) as cause:
        said = f"{type(cause).__name__} {cause}" if isinstance(cause, KeyError) else str(cause)
        raise _wrong(f"{said[:200]}; {_EXPECTED}") from cause


def _check_keys(rows: Json) -> None:
    unknown = sorted(set(rows) - _KNOWN)
    if unknown:
        raise ValueError(f"'{unknown[0][:40]}' is no part of a ladder")


def _fill(rows: Json) -> tuple[str, ...]:
    """Add the rows that are missing; their names."""
    shipped: Json = json.loads(default_ladder_json())
    filled = []
    for part, key in _ROWS.items():
        own = {row[key] for row in rows.setdefault(part, [])}
        missing = [row for row in shipped[part] if row[key] not in own]
        rows[part] += missing
        filled += [str(row[key]).replace("_", " ") for row in missing]
    shapes = rows.setdefault("shapes", {})
    for key, step in shipped["shapes"].items():
        if key not in shapes and key != "source":
            shapes[key] = step
            filled.append(key.replace("_", " "))
    for key, words in _LISTS.items():
        if key not in rows:
            rows[key] = shipped[key]
            filled.append(words)
    return tuple(filled)


def _ladder(rows: Json) -> Ladder:
    curves = {row["curve"]: Curve(_points(row)) for row in rows["curves"]}
    if missing := sorted(set(CURVE_NAMES) - set(curves)):
        raise ValueError(f"the ladder has no curve {', '.join(missing)}")
    return Ladder(
        str(rows["name"]),
        curves,
        {Technique(row["technique"]): _finite(row["step"]) for row in rows["techniques"]},
        ShapeSteps(**{key: _finite(step) for key, step in rows["shapes"].items() if key != "source"}),
        {Modifier(row["modifier"]): _finite(row["adds"]) for row in rows["modifiers"]},
        {row["name"]: _finite(row["step"]) for row in rows.get("own_techniques", [])},
        _finite(rows.get("tune_floor", TUNE_FLOOR)),
        tuple(
            StrumPattern(row["pattern"], row["says"], row["counts"], row.get("off_the_beat", False))
            for row in rows["strum_patterns"]
        ),
        (*map(_chord_shape, rows["chord_shapes"]), *_taught_shapes()),
    )


def _chord_shape(row: Json) -> ChordShape:
    chord, frets = row["shape"].split()
    return ChordShape(chord, frets, row.get("substitute", ""))


def _taught_shapes() -> Iterator[ChordShape]:
    """The open shapes that everybody is taught come after a ladder's own."""
    return (ChordShape(row.name, row.text) for row in open_grips())


def _points(row: Json) -> tuple[tuple[float, float], ...]:
    return tuple((_finite(raw), _finite(step)) for raw, step in row["points"])


def _finite(number: Any) -> float:
    value = float(number)
    if not isfinite(value):
        raise ValueError(f"{number} is no number a curve or a Step can have")
    return value


def _wrong(message: str) -> ReadError:
    return ReadError((Problem(1, 1, message),))
