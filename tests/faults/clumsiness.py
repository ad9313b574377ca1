"""Clumsy and hostile texts, read and saved: what they cost, and that no other song suffers."""

import itertools
import statistics
import time
from dataclasses import dataclass
from pathlib import Path

from flask.testing import FlaskClient

from clear_steps.formats.tabtext import read_what_can_be, write_tab
from clear_steps.store import Database
from clear_steps.web.app import create_app
from tests.bench.songs import sixteenths
from tests.formats.clumsy import Clumsy, clumsy

REFERENCE_BARS = 64
DEAREST = 100  # of so many texts one is measured again


@dataclass(frozen=True)
class Cost:
    """What a bar of clumsy text costs to read, over a bar of sixteenths with lengths in the same run."""

    tried: int
    read: int
    median: float
    worst: float
    faults: tuple[str, ...]


def cost_of(first: int, count: int) -> Cost:
    """The texts of so many seeds; a fault is an error that is none of ours. What seems dearest is measured
    again turn by turn with the reference, so that another program's moment is not taken for a text's cost."""
    reference = write_tab(sixteenths(REFERENCE_BARS))
    bar_s = _seconds(reference) / REFERENCE_BARS
    costs, read, faults = {}, 0, []
    for seed in range(first, first + count):
        found = clumsy(seed)
        try:
            reading, _ = read_what_can_be(found.text)
            costs[seed] = _seconds(found.text) / found.bars / bar_s
        except Exception as error:
            faults.append(f"clumsy text {seed}: {error!r}")
            continue
        read += reading is not None
    for seed in sorted(costs, key=lambda seed: -costs[seed])[: count // DEAREST]:
        costs[seed] = _turn_by_turn(clumsy(seed), reference)
    return Cost(count, read, statistics.median(costs.values()), max(costs.values()), tuple(faults))


def _turn_by_turn(found: Clumsy, reference: str) -> float:
    """A bar of a text over one of the reference: the median of five of each, measured one after the other."""
    ratios = []
    for _ in range(5):
        bar_s = _seconds(reference) / REFERENCE_BARS
        ratios.append(_seconds(found.text) / found.bars / bar_s)
    return statistics.median(ratios)


def _seconds(text: str) -> float:
    began = time.process_time()
    read_what_can_be(text)
    return time.process_time() - began


def saved_beside(directory: Path, count: int) -> tuple[int, tuple[str, ...]]:
    """Save them beside a song until so many are taken: how many it needed, and what did not answer."""
    database = Database(directory)
    client = create_app(database).test_client()
    other = client.post("/api/songs", json={"text": write_tab(sixteenths(8))}).json["id"]
    taken, faults = [], []
    seeds = itertools.count()
    while len(taken) < count:
        seed = next(seeds)
        answer = client.post("/api/songs", json={"text": clumsy(seed).text})
        if answer.status_code == 201:
            taken.append(answer.json["id"])
        elif answer.status_code != 422 or not answer.json["message"]:
            faults.append(f"clumsy text {seed} is answered {answer.status_code}")
    faults += _faults_of(client, [other, *taken])
    database.close()
    return next(seeds), tuple(faults)


def _faults_of(client: FlaskClient, songs: list[int]) -> list[str]:
    faults = [
        f"song {song} does not open" for song in songs if client.get(f"/api/songs/{song}").status_code != 200
    ]
    listed = client.get("/api/songs")
    if listed.status_code != 200 or len(listed.json["songs"]) != len(songs):
        return [*faults, f"the list is answered {listed.status_code}"]
    return faults
