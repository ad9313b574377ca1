"""Processes killed at random moments: a first start, a migration with data, saving. What is left must
open."""

import os
import random
import signal
import sqlite3
import time
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from clear_steps.store import Database, Songs
from clear_steps.store.database import FILE_NAME

STORED = Path(__file__).parents[1] / "data/stored"


@dataclass(frozen=True)
class Outcome:
    """What a number of kills left behind; `midway` came before the work was done."""

    kills: int
    midway: int
    lost: tuple[str, ...]


def killed(work: Callable[[], None], after_s: float) -> bool:
    """Run work in a process of its own and kill it after so long; True if it was still at it."""
    child = os.fork()
    if child == 0:
        try:
            work()
        finally:
            os._exit(0)
    time.sleep(after_s)
    os.kill(child, signal.SIGKILL)
    _, status = os.waitpid(child, 0)
    return os.WIFSIGNALED(status)


def opening_killed(directory: Path, kills: int, revision: str | None, seed: int = 1) -> Outcome:
    """Kill openings of a new file, or of one that an earlier revision left, at random moments."""
    chance, midway, lost = random.Random(seed), 0, []
    usual_s = seconds(lambda: Database(_prepared(directory / "usual", revision)).close())
    for number in range(kills):
        place = _prepared(directory / str(number), revision)
        after_s = chance.uniform(0, usual_s)
        if killed(lambda place=place: Database(place).close(), after_s):  # type: ignore[misc]
            midway += 1
        else:  # it was quicker than the one that was timed
            usual_s = min(usual_s, after_s)
        try:
            database = Database(place)
            with database.session() as session:
                songs = Songs(session)
                if revision is not None and songs.get(1).latest.number != 2:
                    lost.append(f"kill {number}: a revision is gone")
                songs.add("Porch", "one")
            database.close()
        except Exception as error:
            lost.append(f"kill {number}: {error}")
    return Outcome(kills, midway, tuple(lost))


def saving_killed(directory: Path, kills: int, seed: int = 1) -> Outcome:
    """Kill a process that saves one revision after another; each one it said was stored must be there."""
    chance, midway, lost = random.Random(seed), 0, []
    directory.mkdir(parents=True, exist_ok=True)
    database = Database(directory)
    with database.session() as session:
        song = Songs(session).add("Porch", "text 1").id
    database.close()
    said = directory / "said"
    for number in range(kills):
        said.write_text("0")
        midway += killed(lambda: _save_on(directory, song, said), chance.uniform(0.02, 0.12))
        database = Database(directory)
        with database.reading() as session:
            revisions = Songs(session).revisions(song)
        database.close()
        if [each.text for each in revisions] != [f"text {each.number}" for each in revisions]:
            lost.append(f"kill {number}: a revision is torn")
        if len(revisions) < int(said.read_text() or 0):
            lost.append(
                f"kill {number}: revision {said.read_text()} was acknowledged, {len(revisions)} are there"
            )
    return Outcome(kills, midway, tuple(lost))


def _save_on(directory: Path, song: int, said: Path) -> None:
    database = Database(directory)
    while True:
        with database.session() as session:
            number = Songs(session).get(song).latest.number
            Songs(session).save(song, number, "Porch", f"text {number + 1}")
        with said.open("r+") as file:  # in place, so that a kill in the middle leaves the number before
            file.write(str(number + 1))


def _prepared(directory: Path, revision: str | None) -> Path:
    directory.mkdir(parents=True)
    if revision is not None:
        with closing(sqlite3.connect(directory / FILE_NAME)) as connection:
            connection.executescript((STORED / f"{revision}.sql").read_text())
    return directory


def seconds(work: Callable[[], None]) -> float:
    """How long work takes."""
    began = time.perf_counter()
    work()
    return time.perf_counter() - began
