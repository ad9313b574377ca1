"""`make formats`: writes docs/formats.md: 600 files of music21's corpus read, written and read back."""

import time
from collections import Counter, defaultdict
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

from music21 import corpus

from clear_steps.core.errors import ClearStepsError, ReadError
from clear_steps.core.score import Bar, Song
from clear_steps.formats import as_text, import_song, read_song, write_song

FILES = 600
KINDS = {".abc": "ABC", ".mxl": "MusicXML, packed", ".xml": "MusicXML", ".musicxml": "MusicXML"}
WRITTEN = ("song.tab", "song.json", "song.musicxml")
MOST_TOLD = 25


@dataclass(frozen=True)
class Outcome:
    """What became of a file: refused in words, or what differs after it was written and read again."""

    file: str
    kind: str
    seconds: float
    refused: str = ""
    crashed: str = ""
    notes: int = 0
    left_out: int = 0
    differing: tuple[str, ...] = ()


def files() -> list[Path]:
    """So many, spread evenly over the corpus and over both formats."""
    every = sorted(Path(path) for path in corpus.getPaths() if Path(path).suffix in KINDS)
    tunes = [file for file in every if file.suffix == ".abc"]
    scores = [file for file in every if file.suffix != ".abc"]
    half = FILES // 2
    return [*_spread(scores, FILES - min(half, len(tunes))), *_spread(tunes, min(half, len(tunes)))]


def _spread(rows: list[Path], count: int) -> list[Path]:
    return [rows[at * len(rows) // count] for at in range(count)] if len(rows) > count else rows


def outcome(file: Path) -> Outcome:
    """Read a file, write it as everything we write, and read that back."""
    started, kind = time.perf_counter(), KINDS[file.suffix]
    try:
        found = as_text(import_song(file.name, file.read_bytes()))
    except ReadError as error:
        return Outcome(file.name, kind, time.perf_counter() - started, refused=error.problems[0].message)
    except Exception as error:  # what must never happen is counted
        return Outcome(file.name, kind, time.perf_counter() - started, crashed=repr(error)[:200])
    seconds = time.perf_counter() - started
    differing = tuple(name for name in WRITTEN if not _comes_back(name, found.song))
    notes = sum(len(event.struck) for part in found.song.parts for _, _, event in part.events())
    told = ("song.tab",) if found.changed and "song.tab" in differing else ()
    differing = tuple(name for name in differing if name not in told)
    return Outcome(file.name, kind, seconds, notes=notes, left_out=len(found.not_placed), differing=differing)


def _comes_back(name: str, song: Song) -> bool:
    """Whether every note is where it was, when and how long; other formats know no more than that of all."""
    try:
        again = read_song(name, write_song(name, song))
    except ClearStepsError:
        return False
    return again == song if name != "song.musicxml" else _notes(again) == _notes(song)


Struck = tuple[Fraction, Fraction, list[tuple[int, int]]]  # onset, length, strings and frets


def _notes(song: Song) -> list[list[list[Struck]]]:
    """What is struck in every bar of every part and how long it lasts; a rest after a rest, and what is only
    tied on, belong to what comes before."""
    return [[_struck(bar) for bar in part.bars] for part in song.parts]


def _struck(bar: Bar) -> list[Struck]:
    found: list[Struck] = []
    for at, event in zip(bar.onsets, bar.events, strict=True):
        spots = [(note.string, note.fret) for note in event.notes]
        goes_on = all(note.tied for note in event.notes) and bool(found) and found[-1][2] == spots
        if goes_on:
            onset, length, _ = found.pop()
            found.append((onset, length + event.quarters, spots))
        else:
            found.append((at, event.quarters, spots))
    return found


def table(outcomes: list[Outcome]) -> Iterator[str]:
    yield "# Formats, measured"
    yield (
        f"Written by `make formats`: {len(outcomes)} files of music21's corpus, spread evenly, each read,"
        " written as tab text, JSON and MusicXML, and read back. It comes back where the whole song is equal"
        " (tab text, JSON) or every note's place, onset and length (MusicXML). Seconds are of the"
        " machine that ran it."
    )
    by_kind: dict[str, list[Outcome]] = defaultdict(list)
    for own in outcomes:
        by_kind[own.kind].append(own)
    rows = [
        "| format | files | read | refused in words | crashed | notes | left out, told | read back equal |"
    ]
    rows += ["|---|---|---|---|---|---|---|---|"]
    for kind, own in [*sorted(by_kind.items()), ("all", outcomes)]:
        read = [each for each in own if not each.refused and not each.crashed]
        equal = 100 * sum(not each.differing for each in read) / max(len(read), 1)
        rows.append(
            f"| {kind} | {len(own)} | {len(read)} | {sum(bool(each.refused) for each in own)} |"
            f" {sum(bool(each.crashed) for each in own)} | {sum(each.notes for each in read):,} |"
            f" {sum(each.left_out for each in read):,} | {equal:.1f} % |"
        )
    yield "\n".join(rows)
    refused = Counter(own.refused for own in outcomes if own.refused)
    yield "## Refused\n\n" + _listed(
        [f"{count} x {words}" for words, count in refused.most_common(MOST_TOLD)]
    )
    differing = [f"{own.file}: {', '.join(own.differing)}" for own in outcomes if own.differing]
    yield "## Not equal after reading back\n\n" + _listed(differing[:MOST_TOLD])
    yield "## Crashed\n\n" + _listed([f"{own.file}: {own.crashed}" for own in outcomes if own.crashed])
    slowest = sorted(outcomes, key=lambda own: -own.seconds)[:5]
    yield "## Slowest\n\n" + _listed([f"{own.file}: {own.seconds:.1f} s" for own in slowest])


def _listed(rows: list[str]) -> str:
    return "\n".join(f"- {row}" for row in rows) or "None."


def main() -> None:
    with ProcessPoolExecutor(2) as pool:
        outcomes = list(pool.map(outcome, files(), chunksize=4))
    path = Path(__file__).parents[1] / "docs/formats.md"
    path.write_text("\n\n".join(table(outcomes)) + "\n")
    print("docs/formats.md is written")


if __name__ == "__main__":
    main()
