"""Memory of a server with all its processes while it opens many different songs."""

import json
import subprocess
import sys
from contextlib import suppress
from dataclasses import dataclass, replace
from fractions import Fraction
from pathlib import Path
from urllib.error import URLError
from urllib.request import Request, urlopen

from clear_steps.formats.tabtext import write_tab
from tests.bench.songs import sixteenths
from tests.patience import comes_true

BARS, PORT = 24, 8497


@dataclass(frozen=True)
class Memory:
    """Megabytes of all processes together at the end, and how much came in the last half."""

    at_the_end_mb: float
    grown_mb: float


def memory_after(directory: Path, songs: int) -> Memory:
    """Store and open so many songs, none like another, with their lessons."""
    command = [sys.executable, "-c", "from clear_steps.cli import main; main()", "serve"]
    server = subprocess.Popen(
        [*command, "--port", str(PORT), "--data", str(directory)], stdout=subprocess.DEVNULL
    )
    try:
        assert comes_true(lambda: _answer("alive"), 30), "the server did not start"
        half = 0.0
        for number in range(songs):
            walk = replace(sixteenths(BARS, number), tempo=Fraction(60 + number % 100))
            text = f"Title: Walk {number}\n{write_tab(walk)}"
            song = json.loads(_answer("songs", {"text": text}) or "{}")["id"]
            _answer(f"songs/{song}/lesson")
            if number == songs // 2:
                half = _megabytes(server.pid)
        end = _megabytes(server.pid)
        return Memory(end, end - half)
    finally:
        server.terminate()
        server.wait(30)


def _answer(path: str, body: dict[str, object] | None = None) -> str | None:
    sent = None if body is None else json.dumps(body).encode()
    kind = {"Content-Type": "application/json"} if sent else {}
    request = Request(f"http://127.0.0.1:{PORT}/api/{path}", sent, kind)
    try:
        with urlopen(request) as answer:
            return str(answer.read().decode()) or "answered"
    except URLError:
        return None


def _megabytes(process: int) -> float:
    """Of a process and its children: what each has for itself, and its share of what they have in common."""
    children = Path(f"/proc/{process}/task/{process}/children").read_text().split()
    threads = Path(f"/proc/{process}/task").iterdir()
    for thread in threads:
        with suppress(OSError):
            children += (thread / "children").read_text().split()
    own = next(
        int(line.split()[1]) / 1024
        for line in Path(f"/proc/{process}/smaps_rollup").read_text().splitlines()
        if line.startswith("Pss:")
    )
    return own + sum(_megabytes(int(child)) for child in set(children))
