"""`make bench`: a table of ratios against a reference in the same run; non-zero where a floor is missed.

Seconds differ from machine to machine, ratios less so; every row says what it is measured against.
"""

import gc
import random
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import partial
from pathlib import Path

import networkx as nx
import numpy as np
from music21 import converter
from numpy.typing import NDArray

from clear_steps.core.figures import coming_back
from clear_steps.core.grade import Grader, grade_song
from clear_steps.core.hand import Layer, Links, Shape, Spot
from clear_steps.core.hand.path import walk
from clear_steps.core.score import Song
from clear_steps.demo import demo_texts
from clear_steps.formats.musicxml import write_musicxml
from clear_steps.formats.tabtext import write_tab
from clear_steps.ladders import default_ladder
from clear_steps.store import Database
from clear_steps.web.app import create_app
from tests.bench.memory import memory_after
from tests.bench.page import page_figures
from tests.bench.songs import sixteenths, song_form
from tests.faults.clumsiness import cost_of
from tests.library import fill
from tests.outside.chord_shapes import compare, exact_in_sequence

GRADING_FLOOR = 2.0  # until the redesign for speed: stretches that begin on every beat cost something
EDIT_FLOOR = 0.1  # grading again after a one-bar edit, over the same
NETWORKX_FLOOR = 50.0  # networkx building and solving the path's graph, over our path
MEMORY_FLOOR_MB = 150.0
LINEAR_FLOOR = 1.2  # time per bar at 256 bars over that at 64
API_FLOOR_SECONDS = 0.3
LESSON_FLOOR_SECONDS = 1.0
FIGURES_FLOOR = 2.0
OPEN_FLOOR_SECONDS, CHOICE_FLOOR_SECONDS, LONG_FLOOR_SECONDS = 0.7, 0.05, 2.0
FIRST_LOAD_FLOOR_KB = 250.0
CLUMSY_MEDIAN_FLOOR, CLUMSY_WORST_FLOOR = 3.0, 15.0
MANY_SONGS, PROCESSES_FLOOR_MB, GROWN_FLOOR_MB = 500, 600.0, 60.0
CHORDS_FLOOR, BARRE_FLOOR, SEQUENCE_FLOOR = 0.87, 0.95, 0.86


@dataclass(frozen=True)
class Row:
    """One line of the table; `most` or `least` is the floor, None where nothing is promised."""

    what: str
    value: float
    unit: str
    most: float | None = None
    least: float | None = None

    @property
    def missed(self) -> bool:
        return (self.most is not None and self.value > self.most) or (
            self.least is not None and self.value < self.least
        )

    @property
    def floor(self) -> str:
        limits = [f"at most {self.most:g}"] if self.most is not None else []
        limits += [f"at least {self.least:g}"] if self.least is not None else []
        return " ".join([*limits, *(["MISSED"] if self.missed else [])])


def best_seconds(work: Callable[[], object], times: int = 9) -> float:
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        spent.append(time.perf_counter() - begun)
    return min(spent)


def one_bar_edits(song: Song) -> float:
    """Seconds to grade a part again after one bar of it changed; the middle of twenty."""
    part = song.parts[0]
    grader = Grader(song, part, default_ladder())
    grader.grade(part)
    spent = []
    for index in range(2, 62, 3):
        bar = part.bars[index]
        events = tuple(
            replace(event, notes=tuple(replace(note, fret=note.fret % 15 + 2) for note in event.notes))
            for event in bar.events[:8]
        )
        changed = replace(
            part,
            bars=(
                *part.bars[:index],
                replace(bar, events=(*events, *bar.events[8:])),
                *part.bars[index + 1 :],
            ),
        )
        begun = time.perf_counter()
        grader.grade(changed)
        spent.append(time.perf_counter() - begun)
    return statistics.median(spent)


def resident_mb() -> float:
    """Memory of a process that grades 256 bars."""
    # The peak that the system keeps for the process itself; a parent's would be inherited by `getrusage`.
    code = (
        "from tests.bench.songs import sixteenths; from clear_steps.core.grade import grade_song; from"
        " clear_steps.ladders import default_ladder; grade_song(sixteenths(256), default_ladder());"
        " print(next(int(line.split()[1]) / 1024 for line in open('/proc/self/status') if"
        " line.startswith('VmHWM')))"
    )
    return float(
        subprocess.run([sys.executable, "-c", code], capture_output=True, check=True, text=True).stdout
    )


def path_against_networkx() -> tuple[float, float]:
    """Seconds of our path and of networkx on the same graph from given tables, 12 grips a layer; both find
    the same cost."""
    draw, rows, layers = random.Random(7), 12, 256
    own = [np.array([[draw.randrange(10_000) for _ in range(rows)]]) for _ in range(layers)]
    moves = [
        np.array([[[draw.randrange(10_000) for _ in range(rows)] for _ in range(rows)]])
        for _ in range(layers - 1)
    ]
    given = _GivenTables(own, moves)

    def ours() -> int:
        return int(walk(given.layers, given)[0].min())  # type: ignore[arg-type]

    def theirs() -> int:
        graph = nx.DiGraph()
        for row in range(rows):
            graph.add_edge("start", (0, row), weight=int(own[0][0, row]))
        for at, move in enumerate(moves):
            for before in range(rows):
                for after in range(rows):
                    graph.add_edge(
                        (at, before),
                        (at + 1, after),
                        weight=int(move[0, before, after]) + int(own[at + 1][0, after]),
                    )
        for row in range(rows):
            graph.add_edge((len(moves), row), "stop", weight=0)
        return int(nx.dijkstra_path_length(graph, "start", "stop"))

    assert ours() == theirs(), "the path and networkx differ"
    return best_seconds(ours, 5), best_seconds(theirs, 3)


class _GivenTables:
    """Cost tables as given, in the place of a hand's."""

    def __init__(self, own: list[NDArray[np.int64]], moves: list[NDArray[np.int64]]) -> None:
        shapes = [Shape((Spot(1, number),), frozenset()) for number in range(len(own))]
        self.layers = [Layer(shape, Links(), 1.0) for shape in shapes]
        self._own = dict(zip(shapes, own, strict=True))
        self._moves = dict(zip(shapes[1:], moves, strict=True))

    def grip_costs(self, shape: Shape) -> NDArray[np.int64]:
        return self._own[shape]

    def move_costs(self, _before: Shape, after: Shape, _links: Links, _seconds: float) -> NDArray[np.int64]:
        return self._moves[after]


def api_seconds(folder: Path) -> float:
    database = Database(folder)
    client = create_app(database).test_client()
    longest = max(demo_texts(), key=len)
    client.get("/api/songs")
    begun = time.perf_counter()
    answer = client.post("/api/preview", json={"text": longest})
    spent = time.perf_counter() - begun
    assert answer.json["analysis"], "the longest demo piece was not graded"
    database.close()
    return spent


def library_seconds(folder: Path) -> float:
    """The list of two thousand songs, once they are graded."""
    database = Database(folder)
    fill(database, 2_000, max(demo_texts(), key=len))
    client = create_app(database).test_client()
    spent = best_seconds(lambda: client.get("/api/songs", headers={"Accept-Encoding": "gzip"}), 5)
    database.close()
    return spent


def lesson_seconds(directory: Path, songs: Sequence[Song]) -> float:
    """Opening songs' lessons through the API, the Desk's answer with them; the quickest song."""
    database = Database(directory)
    client = create_app(database).test_client()
    spent = []
    for song in songs:
        made = client.post("/api/songs", json={"text": write_tab(song)}).get_json()["id"]
        begun = time.perf_counter()
        # As the page does, both at once; here one after the other, in one process.
        client.get(f"/api/songs/{made}")
        client.get(f"/api/songs/{made}/lesson")
        spent.append(time.perf_counter() - begun)
    database.close()
    return min(spent)


def rows() -> list[Row]:
    gc.collect()
    gc.freeze()  # what the imports left is no part of what is measured, on either side
    ladder = default_ladder()
    grade_song(sixteenths(64, 0), ladder)
    # Another song at another tempo each time: what is remembered of one helps the next only as it would in
    # use.
    seconds = {
        bars: min(
            best_seconds(partial(grade_song, sixteenths(bars, seed), ladder), 1) for seed in range(1, 10)
        )
        for bars in (64, 128, 256)
    }
    song = sixteenths(64)
    edit = one_bar_edits(song)
    ours, theirs = path_against_networkx()
    # Another part each time: what was found once is remembered.
    figures = min(best_seconds(partial(coming_back, song_form(256, seed)), 1) for seed in range(1, 6))
    unlike = min(
        best_seconds(partial(coming_back, sixteenths(256, seed).parts[0]), 1) for seed in range(1, 6)
    )
    chords = compare()
    clumsy = cost_of(0, 1_000)
    with tempfile.TemporaryDirectory() as directory:
        file = Path(directory) / "notes.musicxml"
        file.write_bytes(write_musicxml(song))
        # A copy for each parse: music21 is faster on a file whose name it has seen.
        copies = [Path(shutil.copy(file, file.with_name(f"copy-{number}.musicxml"))) for number in range(9)]
        parsing = min(
            best_seconds(lambda copy=copy: converter.parse(copy, forceSource=True), 1) for copy in copies
        )
        api = api_seconds(Path(directory) / "data")
        library = library_seconds(Path(directory) / "library")
        lesson = lesson_seconds(
            Path(directory) / "lesson", [Song(parts=(song_form(64, seed),)) for seed in range(1, 6)]
        )
        memory = memory_after(Path(directory) / "memory", MANY_SONGS)
        dense = lesson_seconds(Path(directory) / "dense", [sixteenths(64, seed) for seed in range(1, 4)])
    return [
        Row("grading 64 bars of sixteenths (1,024 notes)", seconds[64], "s"),
        Row("music21 parsing the same notes from MusicXML", parsing, "s"),
        Row("grading over parsing", seconds[64] / parsing, "ratio", GRADING_FLOOR),
        Row("grading again after a one-bar edit", edit, "s"),
        Row("the same over parsing", edit / parsing, "ratio", EDIT_FLOOR),
        Row("networkx over our path, 12 grips a layer", theirs / ours, "ratio", least=NETWORKX_FLOOR),
        Row("time a bar, 128 bars over 64", seconds[128] / 2 / seconds[64], "ratio", LINEAR_FLOOR),
        Row("time a bar, 256 bars over 64", seconds[256] / 4 / seconds[64], "ratio", LINEAR_FLOOR),
        Row("longest demo piece graded through the API, first time", api, "s", API_FLOOR_SECONDS),
        Row("what comes back in 256 bars of verses and choruses", figures, "s"),
        Row("the same over parsing", figures / parsing, "ratio", FIGURES_FLOOR),
        Row("the same in 256 bars of sixteenths, none alike", unlike, "s"),
        Row("64 bars of verses and choruses opened: Desk, chunks, words", lesson, "s", LESSON_FLOOR_SECONDS),
        Row("the same of 64 bars of sixteenths", dense, "s", LESSON_FLOOR_SECONDS),
        Row("two thousand graded songs listed by the API", library, "s", API_FLOOR_SECONDS),
        Row("unseen chord shapes fingered as people write them", chords.exact, "share", least=CHORDS_FLOOR),
        Row("of these, barre or none as written", chords.barre, "share", least=BARRE_FLOOR),
        Row("in sequence, a bar's rest between", exact_in_sequence(300), "share", least=SEQUENCE_FLOOR),
        Row(
            "a bar of clumsy text over one with lengths, median", clumsy.median, "ratio", CLUMSY_MEDIAN_FLOOR
        ),
        Row("the same, the worst of a thousand texts", clumsy.worst, "ratio", CLUMSY_WORST_FLOOR),
        Row("all processes of a server after 500 songs", memory.at_the_end_mb, "MB", PROCESSES_FLOOR_MB),
        Row("of these in the last half", memory.grown_mb, "MB", GROWN_FLOOR_MB),
        Row("resident at 256 bars, in a process of its own", resident_mb(), "MB", MEMORY_FLOOR_MB),
    ]


def page_rows() -> list[Row]:
    """What is timed in the browser."""
    opened, chosen, drawn, loaded = page_figures()
    return [
        Row("the Desk of the longest demo song, click to drawn, warm", opened, "s", most=OPEN_FLOOR_SECONDS),
        Row("choosing a bar, click to evidence", chosen, "s", most=CHOICE_FLOOR_SECONDS),
        Row("a song of 500 bars, its answer to drawn", drawn, "s", most=LONG_FLOOR_SECONDS),
        Row("first load, compressed", loaded, "kB", most=FIRST_LOAD_FLOOR_KB),
    ]


def main() -> int:
    table = [*rows(), *page_rows()]
    for row in table:
        print(f"{row.what:<62}{row.value:>9.3f} {row.unit:<6}{row.floor}")
    return int(any(row.missed for row in table))


if __name__ == "__main__":
    sys.exit(main())
