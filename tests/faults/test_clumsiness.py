"""The same as `make faults` counts, in small: clumsy texts are read and saved, and others do not suffer."""

from pathlib import Path

from tests.faults.clumsiness import cost_of, saved_beside
from tests.faults.restores import backing_up_killed, restoring_killed


def test_no_clumsy_text_ends_in_an_error_of_ours() -> None:
    found = cost_of(20_000, 150)
    assert found.faults == ()
    assert found.read > 75


def test_clumsy_songs_are_stored_and_no_other_song_suffers(tmp_path: Path) -> None:
    _, faults = saved_beside(tmp_path, 5)
    assert faults == ()


def test_backups_that_are_killed_leave_a_whole_one_or_none(tmp_path: Path) -> None:
    assert backing_up_killed(tmp_path, 8).lost == ()


def test_restores_that_are_killed_lose_nothing(tmp_path: Path) -> None:
    assert restoring_killed(tmp_path, 8).lost == ()
