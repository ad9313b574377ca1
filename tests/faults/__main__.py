"""`make faults`: many spoilt files and many kills; prints the table that stands in docs/reliability.md."""

import sys
import tempfile
from concurrent.futures import ProcessPoolExecutor
from datetime import date
from pathlib import Path

from tests.faults.clumsiness import cost_of, saved_beside
from tests.faults.kills import opening_killed, saving_killed
from tests.faults.mutations import Outcome, outcome, readers
from tests.faults.restores import backing_up_killed, restoring_killed

TABLE = Path(__file__).parents[2] / "docs/reliability.md"
KILLS = 200
COUNTS = {"tab text": 25_000, "song as JSON": 25_000, "ladder": 5_000}
USUALLY = 5_000
PIECE = 1_000  # files a process reads at a time

HEAD = """# Reliability

Made by `make faults` on {day}; do not edit by hand. `make test` runs the same in small.

## Spoilt files

Whole files of every kind we read, changed at random in one to three places, then read and written as tab
text. A fault is an
error that is not one of ours, more than 2 s of processor time, or more than 300 MB. *Memory* is what the
reading process
grew by over all of its files.

| reader | files tried | read as a song | slowest, s | memory, MB | faults |
|---|---|---|---|---|---|
"""
CLUMSY_TEXTS, CLUMSY_SAVED = 10_000, 200
MOST_AT_THE_MEDIAN, MOST_AT_THE_WORST = 3.0, 15.0
CLUMSY = """
## Clumsy and hostile texts

Made by `tests/formats/clumsy.py`: without lengths, uneven, long, on one string or on all. What a bar costs
is told over a bar of sixteenths with lengths in the same run (at most 3 at the median and 15 at the worst).
Saved, a fault is a song, this one or another, or the list, that does not answer.

| what | texts | read or taken | a bar at the median | at the worst | faults |
|---|---|---|---|---|---|
"""
KILLED = """
## Kills

A process killed (`SIGKILL`) at a random moment of its work; then the file is opened, read and written to.

| killed while | kills | midway | files that do not open, or lack something acknowledged |
|---|---|---|---|
"""


def _piece(name: str, count: int, seed: int) -> Outcome:
    reader = next(reader for reader in readers() if reader.name == name)
    return outcome(reader, count, seed)


def _all_of(name: str, pool: ProcessPoolExecutor) -> Outcome:
    pieces = COUNTS.get(name, USUALLY) // PIECE
    found = pool.map(_piece, [name] * pieces, [PIECE] * pieces, range(100, 100 + pieces))
    whole = Outcome()
    for each in found:
        whole.tried += each.tried
        whole.read += each.read
        whole.slowest_s = max(whole.slowest_s, each.slowest_s)
        whole.grown_bytes = max(whole.grown_bytes, each.grown_bytes)
        whole.faults += each.faults
    return whole


def _clumsy_rows(place: Path) -> tuple[list[str], list[str]]:
    """The rows of clumsy texts read and saved, and the faults."""
    cost = cost_of(0, CLUMSY_TEXTS)
    faults = list(cost.faults)
    if cost.median > MOST_AT_THE_MEDIAN or cost.worst > MOST_AT_THE_WORST:
        faults.append(f"a bar costs {cost.median:.1f} at the median and {cost.worst:.1f} at the worst")
    needed, spoilt = saved_beside(place / "clumsy", CLUMSY_SAVED)
    rows = [
        f"| read | {cost.tried:,} | {cost.read:,} | {cost.median:.2f} | {cost.worst:.1f} | {len(faults)} |",
        f"| saved | {needed} | {CLUMSY_SAVED} | | | {len(spoilt)} |",
    ]
    return rows, [*faults, *spoilt]


def main() -> None:
    """Try everything, print and keep the table; ends with 1 where there was a fault."""
    rows, faults = [], []
    with ProcessPoolExecutor(2) as pool:
        for reader in readers():
            found = _all_of(reader.name, pool)
            faults += found.faults
            figures = (
                f"{found.tried:,} | {found.read:,} | {found.slowest_s:.2f} | {found.grown_bytes / 2**20:.0f}"
            )
            rows.append(f"| {reader.name} | {figures} | {len(found.faults)} |")
            print(rows[-1], flush=True)
    kills = []
    with tempfile.TemporaryDirectory() as directory:
        place = Path(directory)
        for name, work in (
            ("a first start", lambda: opening_killed(place / "first", KILLS, None)),
            ("a migration from the first schema", lambda: opening_killed(place / "0001", KILLS, "0001")),
            ("a migration from the last but one", lambda: opening_killed(place / "0005", KILLS, "0005")),
            ("saving", lambda: saving_killed(place / "saving", KILLS)),
            ("a backup", lambda: backing_up_killed(place / "backup", KILLS)),
            ("a restore", lambda: restoring_killed(place / "restore", KILLS)),
        ):
            found_kills = work()
            faults += found_kills.lost
            figures = f"{found_kills.kills} | {found_kills.midway} | {len(found_kills.lost)}"
            kills.append(f"| {name} | {figures} |")
            print(kills[-1], flush=True)
        clumsy, fresh = _clumsy_rows(place)
    faults += fresh
    print("\n".join(clumsy), flush=True)
    TABLE.write_text(
        HEAD.format(day=date.today())
        + "\n".join(rows)
        + f"\n{KILLED}"
        + "\n".join(kills)
        + f"\n{CLUMSY}"
        + "\n".join(clumsy)
        + "\n"
    )
    print("\n".join(faults[:40]))
    sys.exit(1 if faults else 0)


if __name__ == "__main__":
    main()
