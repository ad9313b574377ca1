"""Processes killed while they back up or restore: one state or the other is there, nothing is lost."""

import random
import shutil
from pathlib import Path

from clear_steps.store import Database, Songs
from clear_steps.store.backups import contents_of, restore, write_backup
from clear_steps.store.copies import kept_copies
from clear_steps.store.database import FILE_NAME
from clear_steps.store.errors import ClearStepsError
from tests.faults.kills import Outcome, killed, seconds

OLD, NEW = ["Porch"], ["Lantern", "Porch"]
FILLING = "e|-0-1-3-|\n" * 2000  # so that a copy takes a moment


def backing_up_killed(directory: Path, kills: int, seed: int = 1) -> Outcome:
    """Kill backups: the backup is whole or not there, and the library is as it was."""
    live, _ = _prepared(directory)
    chance, midway, lost = random.Random(seed), 0, []
    usual_s = seconds(lambda: _back_up(live, directory / "usual.sqlite3"))
    for number in range(kills):
        target = directory / f"{number}.sqlite3"
        after_s = chance.uniform(0, usual_s)
        midway += killed(lambda target=target: _back_up(live, target), after_s)  # type: ignore[misc]
        if titles(live) != NEW:
            lost.append(f"kill {number}: the library is not as it was")
        if target.exists() and contents_of(target).songs != len(NEW):
            lost.append(f"kill {number}: half a backup stands under its name")
    return Outcome(kills, midway, tuple(lost))


def restoring_killed(directory: Path, kills: int, seed: int = 1) -> Outcome:
    """Kill restores: what is there is the old state or the new one, and the old one is kept as a copy."""
    pristine, backup = _prepared(directory)
    chance, midway, lost = random.Random(seed), 0, []
    usual = Path(shutil.copytree(pristine, directory / "usual"))
    usual_s = seconds(lambda: _restore(usual, backup))
    for number in range(kills):
        live = Path(shutil.copytree(pristine, directory / str(number)))
        after_s = chance.uniform(0, usual_s)
        midway += killed(lambda live=live: _restore(live, backup), after_s)  # type: ignore[misc]
        try:
            found = titles(live)
            if found not in (OLD, NEW):
                lost.append(f"kill {number}: the library is neither the one nor the other")
            copies = [live / copy.name for copy in kept_copies(live / FILE_NAME)]
            if found == OLD and [contents_of(copy).songs for copy in copies] != [len(NEW)]:
                lost.append(f"kill {number}: what was replaced is not kept")
        except ClearStepsError as error:
            lost.append(f"kill {number}: {error}")
        shutil.rmtree(live)
    return Outcome(kills, midway, tuple(lost))


def titles(directory: Path) -> list[str]:
    """What is in a library, as a new start finds it."""
    database = Database(directory)
    try:
        with database.reading() as session:
            return [song.latest.title for song in Songs(session).every()]
    finally:
        database.close()


def _prepared(directory: Path) -> tuple[Path, Path]:
    """A library of two songs, and a backup from when it had one."""
    live = directory / "live"
    database = Database(live)
    with database.session() as session:
        Songs(session).add("Porch", FILLING)
    backup = write_backup(database, directory / "backup.sqlite3")
    with database.session() as session:
        Songs(session).add("Lantern", FILLING)
    database.close()
    return live, backup


def _back_up(live: Path, target: Path) -> None:
    database = Database(live)
    write_backup(database, target)
    database.close()


def _restore(live: Path, backup: Path) -> None:
    database = Database(live)
    restore(database, backup)
    database.close()
