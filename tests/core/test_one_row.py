"""A measure or a technique is one file and one row: one of each is added to a copy, and the chain runs."""

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

ROOT = Path(__file__).parents[2]

MEASURE = '''"""Patience: long notes, for the test of one row."""

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.measures.measure import Measure


def _find(bar, ladder):
    return [(m.sounding.onset_quarters, m) for m in bar.moments if m.event.quarters >= 4]


def _weigh(found, window, ladder):
    return ladder.curves["patience"].step(len(found))


def _tell(found, bar, ladder):
    moment = found[0][1]
    return Told(float(len(found)), Place(moment.onset, moment.strings), "One note lasts the whole bar.")


PATIENCE = Measure(
    name="patience",
    spoken="the patience",
    about="notes that last",
    unit="long notes",
    sign="M1 8h14",
    curves={"patience": "waiting"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=lambda ladder, step: "long notes",
)
'''
TAB = """Tempo: 90
Time: 4/4
Tuning: standard

len|w               |
how|knock           |
  e|0---------------|
  B|----------------|
  G|----------------|
  D|----------------|
  A|----------------|
  E|----------------|
"""
CHAIN = """
import json, sys
from clear_steps.core.figures import ComingBack
from clear_steps.core.grade import MEASURES, grade_song, rungs, three_sentences
from clear_steps.formats.tabtext import read_tab, write_tab
from clear_steps.ladders import default_ladder
from clear_steps.web.rows import page_rows
from clear_steps.core.teach.chunks import proposed_chunks
from clear_steps.core.teach.words import Language, directions, hard_sentences
song = read_tab(sys.stdin.read()).song
part = song.parts[0]
ladder = default_ladder()
grading = grade_song(song, ladder)[0]
rows = page_rows()
print(json.dumps({
    "findings": {name: [found.step, found.evidence] for name, found in grading.bars[0].findings.items()},
    "sentences": three_sentences(song.parts[0], grading, ComingBack()),
    "rung": dict(rungs(ladder)[3].sentences),
    "curves": sorted(ladder.curves),
    "techniques": {str(key): step for key, step in ladder.technique_steps.items()},
    "written": write_tab(song),
    "signs": {row["name"]: row["sign"] for row in rows["measures"]},
    "words": [
        " ".join(row.sentences)
        for row in directions(part, proposed_chunks(part, ComingBack(), {}), grading.grips, Language.SPANISH)
    ],
    "sheet": hard_sentences(part, grading, ComingBack(), Language.SPANISH),
    "page_techniques": [row["technique"] for row in rows["techniques"]],
}))
"""


def inserted(path: Path, before: str, text: str) -> None:
    whole = path.read_text()
    assert before in whole
    path.write_text(whole.replace(before, text + before, 1))


@pytest.fixture(scope="module")
def chain(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Any]:
    """What a copy with one more measure and one more technique makes of a bar."""
    copy = tmp_path_factory.mktemp("one_row")
    shutil.copytree(ROOT / "clear_steps", copy / "clear_steps", ignore=shutil.ignore_patterns("*.pyc"))
    core = copy / "clear_steps/core"
    (core / "grade/measures/patience.py").write_text(MEASURE)
    table = core / "grade/measures/__init__.py"
    inserted(table, "_ROWS: ", "from clear_steps.core.grade.measures.patience import PATIENCE\n\n")
    inserted(table, "    STRETCH,\n", "    PATIENCE,\n")
    techniques = core / "score/techniques.py"
    inserted(techniques, '    HAMMER_ON = "hammer_on"', '    KNOCK = "knock"\n')
    inserted(
        techniques,
        "    TechniqueRow(\n        _T.HAMMER_ON",
        '    TechniqueRow(_T.KNOCK, "knock", "knocks", _W.WORD, "knock", _P, _D.WORDS),\n',
    )
    ladder = copy / "clear_steps/ladders/default.json"
    rows = json.loads(ladder.read_text())
    rows["curves"].append({"curve": "patience", "unit": "long notes", "points": [[1, 7]], "source": "test"})
    rows["techniques"].append({"technique": "knock", "step": 2.5, "source": "test"})
    ladder.write_text(json.dumps(rows))
    ran = subprocess.run(
        [sys.executable, "-c", CHAIN],
        input=TAB,
        capture_output=True,
        text=True,
        cwd=copy,
        env=os.environ | {"PYTHONPATH": str(copy)},
        check=False,
    )
    assert ran.returncode == 0, ran.stderr
    found: dict[str, Any] = json.loads(ran.stdout)
    return found


def test_a_new_measure_is_graded_told_and_shown(chain: dict[str, Any]) -> None:
    assert chain["findings"]["patience"] == [7, "One note lasts the whole bar."]
    assert (
        chain["sentences"][0] == "What makes it hard is the patience, in bar 1: one note lasts the whole bar."
    )
    assert chain["rung"]["patience"] == "long notes"
    assert "patience" in chain["curves"]
    assert chain["signs"]["patience"] == "M1 8h14"


def test_a_new_technique_is_read_written_graded_and_shown(chain: dict[str, Any]) -> None:
    assert chain["findings"]["technique"][1].startswith("There is one knock, at beat 1 on the 1st string")
    assert chain["techniques"]["knock"] == 2.5
    assert "how|knock" in chain["written"].replace(" ", "")
    assert "knock" in chain["page_techniques"]
