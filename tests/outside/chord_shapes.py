"""The open chord data set against our grips: how many positions get the fingers that people wrote down.

Source: `@tombatossals/chords-db` (MIT), a development dependency of the front end. Positions that contradict
themselves (a finger on two frets, fingers that cross) are left out and counted. Split by shape, the same
shape
moved being the same: constants were tuned on the even half; the odd half is what is reported.
"""

import json
import random
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

from clear_steps.core.grade import GradeRequest, grade_part
from clear_steps.core.hand import SCHOOLS, HandTables, Neck, PathCosts, School, Shape, Spot
from clear_steps.core.score import Bar, Event, Finger, Note, Part, Song
from clear_steps.ladders import default_ladder

DATA = Path(__file__).parents[2] / "frontend/node_modules/@tombatossals/chords-db/lib/guitar.json"


@dataclass(frozen=True)
class Position:
    """Fingers as written, by string; `fingers` maps a string to (fret, finger number)."""

    fingers: tuple[tuple[int, int, int], ...]  # (string, fret, finger)
    open_strings: frozenset[int]

    @property
    def shape(self) -> tuple[object, ...]:
        low = min(fret for _, fret, _ in self.fingers)
        return tuple((string, fret - low) for string, fret, _ in self.fingers), tuple(
            sorted(self.open_strings)
        )

    @property
    def barred(self) -> bool:
        return len({finger for _, _, finger in self.fingers}) < len(self.fingers)


@dataclass(frozen=True)
class Result:
    """Shares of the held-out half, and how many positions of the data were left out."""

    exact: float
    barre: float
    positions: int
    left_out: int


def _positions() -> tuple[list[Position], int]:
    kept, left_out = [], 0
    for chords in json.loads(DATA.read_bytes())["chords"].values():
        for row in (row for chord in chords for row in chord["positions"]):
            frets = [fret if fret <= 0 else fret + row["baseFret"] - 1 for fret in row["frets"]]
            fingers = tuple((6 - at, fret, row["fingers"][at]) for at, fret in enumerate(frets) if fret > 0)
            if fingers and _consistent(fingers):
                kept.append(
                    Position(fingers, frozenset(6 - at for at, fret in enumerate(frets) if fret == 0))
                )
            else:
                left_out += 1
    return kept, left_out


def chord_positions() -> list[tuple[int | None, ...]]:
    """Frets of every consistent position, thinnest string first; None where a string is not struck."""
    found = []
    for position in _positions()[0]:
        frets = {string: fret for string, fret, _ in position.fingers} | dict.fromkeys(
            position.open_strings, 0
        )
        found.append(tuple(frets.get(string) for string in range(1, 7)))
    return found


def _consistent(fingers: tuple[tuple[int, int, int], ...]) -> bool:
    frets: dict[int, set[int]] = {}
    for _, fret, finger in fingers:
        frets.setdefault(finger, set()).add(fret)
    one_fret_each = 0 not in frets and all(len(own) == 1 for own in frets.values())
    return one_fret_each and all(min(frets[a]) <= min(frets[b]) for a in frets for b in frets if a < b)


def _held_out() -> tuple[list[Position], int]:
    positions, left_out = _positions()
    kept = set(sorted({str(position.shape) for position in positions})[1::2])
    return [position for position in positions if str(position.shape) in kept], left_out


def compare() -> Result:
    """Our cheapest grip of every held-out position against the one written down."""
    ladder = default_ladder()
    costs = PathCosts(
        ladder.curves["stretch"], ladder.curves["shift"], ladder.shapes, SCHOOLS[School.BALANCED]
    )
    tables = HandTables(Neck(), 6, [100.0], costs)
    tried, left_out = _held_out()
    exact = barre = 0
    for position in tried:
        spots = sorted(
            (Spot(string, fret) for string, fret, _ in position.fingers),
            key=lambda spot: (spot.fret, -spot.string),
        )
        shape = Shape(tuple(spots), position.open_strings)
        grip = tables.table(shape).grips[int(tables.grip_costs(shape)[0].argmin())]
        ours = {string: grip.finger_on(string) for string, _, _ in position.fingers}
        exact += _as_written(ours, position)
        barre += (len(set(ours.values())) < len(ours)) == position.barred
    return Result(exact / len(tried), barre / len(tried), len(tried), left_out)


def exact_in_sequence(count: int, quarters_apart: int = 4) -> float:
    """Share of held-out positions with the fingers written down, one after another with so much time from one
    to the next, in an order that mixes them: a shape keeps its fingers whatever came before."""
    tried = random.Random(1).sample(_held_out()[0], count)
    bars = []
    for position in tried:
        notes = [Note(string, fret) for string, fret, _ in position.fingers]
        notes += [Note(string, 0) for string in position.open_strings]
        chord = Event(Fraction(1), tuple(sorted(notes, key=lambda note: note.string)))
        bars += [Bar(events=(chord, Event(Fraction(3)))), Bar(events=(Event(Fraction(quarters_apart)),))]
    song = Song(tempo=Fraction(100), parts=(Part(bars=tuple(bars)),))
    grips = grade_part(song, song.parts[0], default_ladder(), GradeRequest(hands=("medium",))).grips
    right = 0
    for index, position in enumerate(tried):
        ours = {string: grips[2 * index, 0].finger_on(string) for string, _, _ in position.fingers}
        right += _as_written(ours, position)
    return right / count


def _as_written(ours: dict[int, Finger | None], position: Position) -> bool:
    return ours == {string: Finger(str(finger)) for string, _, finger in position.fingers}
