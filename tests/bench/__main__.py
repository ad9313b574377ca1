"""`make bench`: a table of ratios against a reference in the same run; non-zero where a floor is missed.

Seconds differ from machine to machine, ratios less so; every row says what it is measured against.
"""

import random
import resource
import shutil
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

from music21 import converter, note, stream, tempo

from clear_steps.core.grade import grade_song
from clear_steps.core.score import Bar, Event, Note, Part, Song
from clear_steps.demo import demo_texts
from clear_steps.ladders import default_ladder
from clear_steps.store import Database
from clear_steps.web import create_app
from tests.outside.chord_shapes import compare

GRADING_FLOOR = 1.5  # grading 1,024 notes over music21 parsing them
LINEAR_FLOOR = 1.2  # time per bar at 256 bars over that at 64
API_FLOOR_SECONDS = 0.3
CHORDS_FLOOR, BARRE_FLOOR = 0.85, 0.95


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
        return (self.most is not None and self.value > self.most) or (self.least is not None and self.value < self.least)

    @property
    def floor(self) -> str:
        limits = [f"at most {self.most:g}"] if self.most is not None else []
        limits += [f"at least {self.least:g}"] if self.least is not None else []
        return " ".join([*limits, *(["MISSED"] if self.missed else [])])


def sixteenths(bars: int) -> Song:
    """A wandering line of sixteenths, the same every time; no two bars alike."""
    draw = random.Random(4)
    string, fret, written = 3, 5, []
    for _ in range(bars):
        events = []
        for _ in range(16):
            string = min(max(string + draw.choice((-1, 0, 1)), 1), 6)
            fret = min(max(fret + draw.choice((-3, -2, -1, 0, 1, 2, 3)), 1), 17)
            events.append(Event(Fraction(1, 4), (Note(string, fret),)))
        written.append(Bar(events=tuple(events)))
    return Song(tempo=Fraction(100), parts=(Part(bars=tuple(written)),))


def best_seconds(work: Callable[[], object], times: int = 9) -> float:
    spent = []
    for _ in range(times):
        begun = time.perf_counter()
        work()
        spent.append(time.perf_counter() - begun)
    return min(spent)


def musicxml_of(song: Song, folder: Path) -> Path:
    part = song.parts[0]
    score = stream.Stream([tempo.MetronomeMark(number=100)])
    for _, _, event in part.events():
        pitched = note.Note(part.pitch_of(event.notes[0]))
        pitched.quarterLength = event.quarters
        score.append(pitched)
    return Path(score.write("musicxml", folder / "notes.musicxml"))


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


def rows() -> list[Row]:
    ladder = default_ladder()
    songs = {bars: sixteenths(bars) for bars in (64, 128, 256)}
    grade_song(songs[64], ladder)
    seconds = {bars: best_seconds(lambda song=song: grade_song(song, ladder)) for bars, song in songs.items()}
    chords = compare()
    memory_mb = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    with tempfile.TemporaryDirectory() as directory:
        file = musicxml_of(songs[64], Path(directory))
        # A copy for each parse: music21 is faster on a file whose name it has seen.
        copies = [Path(shutil.copy(file, file.with_name(f"copy-{number}.musicxml"))) for number in range(9)]
        parsing = min(best_seconds(lambda copy=copy: converter.parse(copy, forceSource=True), 1) for copy in copies)
        api = api_seconds(Path(directory) / "data")
    return [
        Row("grading 64 bars of sixteenths (1,024 notes)", seconds[64], "s"),
        Row("music21 parsing the same notes from MusicXML", parsing, "s"),
        Row("grading over parsing", seconds[64] / parsing, "ratio", GRADING_FLOOR),
        Row("time a bar, 128 bars over 64", seconds[128] / 2 / seconds[64], "ratio", LINEAR_FLOOR),
        Row("time a bar, 256 bars over 64", seconds[256] / 4 / seconds[64], "ratio", LINEAR_FLOOR),
        Row("longest demo piece graded through the API, first time", api, "s", API_FLOOR_SECONDS),
        Row("unseen chord shapes fingered as people write them", chords.exact, "share", least=CHORDS_FLOOR),
        Row("of these, barre or none as written", chords.barre, "share", least=BARRE_FLOOR),
        Row("resident at 256 bars, music21 loaded by this bench included", memory_mb, "MB"),
    ]


def main() -> int:
    table = rows()
    for row in table:
        print(f"{row.what:<62}{row.value:>9.3f} {row.unit:<6}{row.floor}")
    return int(any(row.missed for row in table))


if __name__ == "__main__":
    sys.exit(main())
