"""Passages with the fingers that nearly all teachers accept (made up for this product), and how ours
compare."""

import json
import re
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from clear_steps.report import fingering_report

FOLDER = Path(__file__).parents[1] / "data/calibration/fingers"
_TEMPO = re.compile(r"^Tempo: *([\d.]+)", re.MULTILINE)
Wanted = dict[str, Any]  # a passage of fingers.json
Place = tuple[int, str, int]  # bar, onset, string


@dataclass(frozen=True)
class Judged:
    """One passage: notes, those with an accepted finger, bars in which the hand moved and may not, faults."""

    name: str
    notes: int
    right: int
    moved: int
    faults: tuple[str, ...]


def judged(factor: float) -> list[Judged]:
    """Every passage at so many times its tempo."""
    wanted: dict[str, Wanted] = json.loads((FOLDER / "fingers.json").read_text())
    return [_judged(name, row, factor) for name, row in wanted.items()]


def _judged(name: str, wanted: Wanted, factor: float) -> Judged:
    text = (FOLDER / f"{name}.tab").read_text()
    faster = _TEMPO.sub(lambda match: f"Tempo: {float(match[1]) * factor:g}", text)
    bars = fingering_report(read_tab(faster).song, default_ladder())["parts"][0]["bars"]
    fingers: dict[Place, tuple[int, int | str | None]] = {}
    positions: dict[int, list[int]] = {}
    for bar in bars:
        for event in bar["events"]:
            fretted = [note for note in event["notes"] if note["fret"]]
            if fretted:
                positions.setdefault(bar["number"], []).append(event["position"])
            for note in fretted:
                fingers[bar["number"], event["onset"], note["string"]] = (note["fret"], note["finger"])
    rows = [(int(bar), row) for bar, rows in wanted["bars"].items() for row in rows]
    wrong = [
        f"bar {bar} @{row['onset']} {row['string']}:{row['fret']} is"
        f" {fingers[bar, row['onset'], row['string']]}"
        for bar, row in rows
        if row["fingers"] != "any" and fingers[bar, row["onset"], row["string"]][1] not in row["fingers"]
    ]
    moved = [
        f"bar {bar} moves"
        for bar in wanted.get("no_move_in_bars", [])
        if max(positions[bar]) - min(positions[bar]) >= 2
    ]
    others = (*_chords(wanted, fingers), *_checks(wanted, fingers))
    return Judged(name, len(rows), len(rows) - len(wrong), len(moved), (*wrong, *moved, *others))


def _chords(wanted: Wanted, fingers: dict[Place, tuple[int, int | str | None]]) -> Iterator[str]:
    for chord in wanted.get("chords", []):
        found = [fingers.get((chord["bar"], chord["onset"], s), (0, None))[1] for s in chord["strings"]]
        if found not in chord["fingerings"]:
            yield f"bar {chord['bar']} @{chord['onset']} chord {found}"


def _checks(wanted: Wanted, fingers: dict[Place, tuple[int, int | str | None]]) -> Iterator[str]:
    def finger(place: str) -> int | str | None:
        bar, rest = place.split(":")
        onset, string = rest.rsplit("/", 1)
        return fingers[int(bar), onset, int(string)][1]

    for check in wanted.get("checks", []):
        kind, *rest = check.split()
        if kind == "same" and len({finger(place) for place in rest}) > 1:
            yield check
        if kind == "oneof" and "".join(str(finger(place)) for place in rest[:-2]) not in rest[-1].split("/"):
            yield check
        if kind == "distinct":
            bar, onset = rest[0].split(":")
            there = [own[1] for place, own in fingers.items() if place[:2] == (int(bar), onset)]
            if len(set(there)) < len(there):
                yield check
        if kind == "sameshape" and len({shape for shape in _shapes(fingers) if len(shape) > 1}) > 1:
            yield check


def _shapes(fingers: dict[Place, tuple[int, int | str | None]]) -> list[tuple[int | str | None, ...]]:
    moments: dict[tuple[int, str], list[tuple[int, int | str | None]]] = {}
    for (bar, onset, string), (_, finger) in fingers.items():
        moments.setdefault((bar, onset), []).append((string, finger))
    return [tuple(finger for _, finger in sorted(rows, key=lambda row: -row[0])) for rows in moments.values()]
