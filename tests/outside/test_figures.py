"""What comes back, against what teachers call the same (source: tests/data/figures, 15 parts given with their
judge, 52 of our own)."""

import importlib.util
import json
from fractions import Fraction
from pathlib import Path
from types import ModuleType, SimpleNamespace
from typing import Any

import pytest

from clear_steps.formats import read_song
from clear_steps.report import figures_report

FOLDER = Path(__file__).parents[1] / "data/figures"
FOUND, RULES, RIGHT, BUT = 0.95, Fraction(6, 7), 0.95, 0.8
MOST_INVENTED = 0.08


@pytest.fixture(scope="module")
def judge() -> ModuleType:
    spec = importlib.util.spec_from_file_location("figures_judge", FOLDER / "score.py")
    assert spec
    assert spec.loader
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


@pytest.fixture(scope="module", params=["given", "own"])
def tally(request: pytest.FixtureRequest, judge: ModuleType) -> Any:
    """How all parts of a folder are judged."""
    folder = FOLDER / request.param
    reference = json.loads((folder / "figures.json").read_text())
    notes = json.loads((folder / "notes.json").read_text())
    tally = judge.Tally()
    for name, wanted in reference.items():
        tab = folder / f"{name}.tab"
        told = json.loads(json.dumps(figures_report(read_song(tab.name, tab.read_bytes()))))
        judge.score(name, wanted, judge.Piece(notes[name]), told, tally, name.split("-")[0])
    found = [row for row in tally.rows if row["level"] >= 2]
    right = [row for row in found if row["right"]]
    return SimpleNamespace(rows=tally.rows, found=found, right=right, n=tally.n, lines="\n".join(tally.lines))


def test_what_a_teacher_calls_the_same_is_found_in_their_cut(tally: Any) -> None:
    assert len(tally.rows) > 50
    assert len(tally.found) >= FOUND * len(tally.rows), tally.lines


def test_how_it_is_the_same_and_what_differs_is_told_right(tally: Any) -> None:
    assert len(tally.right) >= RIGHT * len(tally.found), tally.lines
    pitched = [row for row in tally.right if not row["rhythm"]]
    assert sum(row["but"] for row in pitched) >= BUT * len(pitched), tally.lines
    assert tally.n["times"] == tally.n["times_all"] > 10, tally.lines


def test_sequences_are_told_as_rules(tally: Any) -> None:
    assert tally.n["rule_words"] >= RULES * tally.n["rules_all"] > 0, tally.lines
    assert tally.n["rules_invented"] == 0, tally.lines


def test_little_is_invented_and_nothing_that_the_notes_contradict(tally: Any) -> None:
    assert tally.n["invented"] <= MOST_INVENTED * tally.n["figures"], tally.lines
    assert (tally.n["false"], tally.n["not_hits"], tally.n["failed"]) == (0, 0, 0), tally.lines


def test_where_nothing_comes_back_nothing_is_told(tally: Any) -> None:
    assert tally.n["nothing"] == tally.n["nothing_all"] > 0, tally.lines
