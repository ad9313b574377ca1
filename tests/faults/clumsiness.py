"""Clumsy and hostile texts, read and saved: what they cost, and that no other song suffers."""

import statistics
import time
from dataclasses import dataclass
from pathlib import Path

from flask.testing import FlaskClient

from clear_steps.formats.tabtext import read_what_can_be, write_tab
from clear_steps.store import Database
from clear_steps.web.app import create_app
from tests.bench.songs import sixteenths
from tests.formats.clumsy import clumsy

REFERENCE_BARS = 64


@dataclass(frozen=True)
class Cost:
    """What a bar of clumsy text costs to read, over a bar of sixteenths with lengths in the same run."""

    tried: int
    read: int
    median: float
    worst: float
    faults: tuple[str, ...]


def cost_of(first: int, count: int) -> Cost:
    """The texts of so many seeds; a fault is an error that is none of ours."""
    reference = write_tab(sixteenths(REFERENCE_BARS))
    unit_s = statistics.median(_seconds(reference) for _ in range(5)) / REFERENCE_BARS
    ratios, read, faults = [], 0, []
    for seed in range(first, first + count):
        found = clumsy(seed)
        began = time.process_time()
        try:
            reading, _ = read_what_can_be(found.text)
        except Exception as error:
            faults.append(f"clumsy text {seed}: {error!r}")
            continue
        ratios.append((time.process_time() - began) / found.bars / unit_s)
        read += reading is not None
    return Cost(count, read, statistics.median(ratios), max(ratios), tuple(faults))


def _seconds(text: str) -> float:
    began = time.process_time()
    read_what_can_be(text)
    return time.process_time() - began


def saved_beside(directory: Path, count: int) -> tuple[int, tuple[str, ...]]:
    """Save so many of them beside a song: how many were taken, and what did not answer afterwards."""
    database = Database(directory)
    client = create_app(database).test_client()
    other = client.post("/api/songs", json={"text": write_tab(sixteenths(8))}).json["id"]
    taken, faults = [], []
    for seed in range(count):
        answer = client.post("/api/songs", json={"text": clumsy(seed).text})
        if answer.status_code == 201:
            taken.append(answer.json["id"])
        elif answer.status_code != 422 or not answer.json["message"]:
            faults.append(f"clumsy text {seed} is answered {answer.status_code}")
    faults += _faults_of(client, [other, *taken])
    database.close()
    return len(taken), tuple(faults)


def _faults_of(client: FlaskClient, songs: list[int]) -> list[str]:
    faults = [
        f"song {song} does not open" for song in songs if client.get(f"/api/songs/{song}").status_code != 200
    ]
    listed = client.get("/api/songs")
    if listed.status_code != 200 or len(listed.json["songs"]) != len(songs):
        return [*faults, f"the list is answered {listed.status_code}"]
    return faults
