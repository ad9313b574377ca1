"""A kill at any moment leaves a file that opens, with all that was acknowledged (`make faults` kills more
often)."""

from pathlib import Path

import pytest

from tests.faults.kills import opening_killed, saving_killed

KILLS = 25


@pytest.mark.parametrize("revision", [None, "0001", "0005"])
def test_a_start_killed_at_any_moment_leaves_a_file_that_opens(tmp_path: Path, revision: str | None) -> None:
    outcome = opening_killed(tmp_path, KILLS, revision)
    assert outcome.lost == ()
    assert outcome.midway > KILLS / 2


def test_what_was_acknowledged_before_a_kill_is_there_after_it(tmp_path: Path) -> None:
    outcome = saving_killed(tmp_path, KILLS)
    assert outcome.lost == ()
    assert outcome.midway == KILLS
