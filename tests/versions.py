"""`make versions`: writes docs/versions.md: the laws counted over many songs, refusals and the worst ten.

Seconds are of the machine that ran it; everything else is the same everywhere.
"""

import statistics
import time
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field, replace
from pathlib import Path

from clear_steps.core.easier import (
    LAWS,
    TOLERANCE,
    Approach,
    Easier,
    Pair,
    Wish,
    easier,
    kept,
    staircase,
    version_of,
    ways,
)
from clear_steps.core.easier.answers import differ
from clear_steps.core.grade import Grading, grade_part
from clear_steps.core.score import Bar, Event, Part, Role, Song
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.corpus import chorales, passages, strummed, tunes
from tests.rolesongs import song_of

ROOT = Path(__file__).parents[1]
TARGETS = (4.0, 3.0, 2.0)
LADDER = default_ladder()
OF_A_ROLE = 30
METRE = 3.5  # what a changing metre asks by itself
OVERCUT = 0.75  # Steps below what the target leaves
WORST, APPROACH_STRIDE, OVERCUT_STRIDE = 10, 8, 5


def highest(grading: Grading) -> float:
    """The Step that a version is held to: the song's or its hardest bar's."""
    return max([grading.step, *(bar.step for bar in grading.bars)])


def on_the_beat(part: Part) -> Part:
    """An honest baseline: only what starts on a beat, lasting to the next."""
    bars = (replace(bar, events=_on_beats(bar)) for bar in part.bars)
    return replace(part, bars=tuple(bars))


def _on_beats(bar: Bar) -> tuple[Event, ...]:
    beat = bar.metre.beat_quarters
    rows = [(at, event) for at, event in zip(bar.onsets, bar.events, strict=True) if at % beat == 0]
    if not rows or rows[0][0]:
        rows.insert(0, (beat * 0, Event(beat * 0)))
    ends = [*(at for at, _ in rows[1:]), bar.quarters]
    return tuple(
        replace(event, quarters=end - at, notes=tuple(replace(note, tied=False) for note in event.notes))
        for (at, event), end in zip(rows, ends, strict=True)
    )


def against_the_beat(song: Song) -> float | None:
    """Points the search keeps more than the beat alone, at the Step that the beat alone reaches."""
    part = song.parts[0]
    thinned = on_the_beat(part)
    step = highest(grade_part(song, thinned, LADDER))
    if thinned == part or step >= highest(grade_part(song, part, LADDER)) - TOLERANCE:
        return None
    found = easier(song, part, LADDER, max(step, 1.0))
    return found.kept.overall - kept(part, thinned).overall if found.reached else None


@dataclass(frozen=True)
class Row:
    """A song at a target: what was found, the bars in which each law is broken, and of how many cases."""

    reached: bool
    kept: float
    edits: int
    step: float
    broken: dict[str, int]
    cases: dict[str, int]
    overcut: int
    refusal: str
    left_out: bool  # its metre alone stands above the target


@dataclass(frozen=True)
class SongRows:
    """A song and its rows by target; the share of sampled approaches that differ, where there were others."""

    group: str
    title: str
    seconds: float
    at: dict[float, Row]
    approaches: tuple[bool, ...] = field(default=())


def entries() -> list[tuple[str, Song]]:
    """The wide table's songs by group, and where they come from."""
    own = [read_tab(file.read_text()).song for file in sorted((ROOT / "tests/data/versions").glob("*.tab"))]
    groups = {
        "demo pieces": [read_tab(text).song for text in demo_texts()],
        "passages with versions by hand": own,
        **{f"made up: {role}": [song_of(role, seed) for seed in range(OF_A_ROLE)] for role in Role},
        "traditional tunes": list(tunes()),
        "chorales in two voices": list(chorales()),
        "strummed shapes": list(strummed()),
        "technique passages": list(passages()),
    }
    return [(name, song) for name, songs in groups.items() for song in songs]


def measured(entry: tuple[int, str, Song]) -> SongRows:
    """One staircase of a song, its laws, and for some what other approaches find."""
    number, group, song = entry
    part, begun = song.parts[0], time.perf_counter()
    found = staircase(song, part, LADDER, Wish(TARGETS))
    seconds = time.perf_counter() - begun
    at = {step.target: _row(number, song, part, step) for step in found}
    approaches = _approaches(song, part) if number % APPROACH_STRIDE == 0 else ()
    return SongRows(group, song.title, seconds, at, approaches)


def _row(number: int, song: Song, part: Part, found: Easier) -> Row:
    pair = Pair(part, found.version, shapes=LADDER.chord_shapes)
    in_the_way = found.blocking[0] if found.blocking else None
    refusal = ""
    if in_the_way:
        best = min((tried.step for tried in in_the_way.tried), default=in_the_way.step)
        refusal = (
            f"bar {part.bar_number(in_the_way.bar)} stays at {in_the_way.step:.2f} by {in_the_way.measure},"
            f" best left {best:.2f}"
        )
    metre = found.target < METRE and any(
        a.metre != b.metre for a, b in zip(part.bars, part.bars[1:], strict=False)
    )
    return Row(
        found.reached,
        found.kept.overall,
        len(found.edits),
        found.after.step,
        {law.name: len(law.broken(pair)) for law in LAWS},
        {law.name: law.cases(pair) for law in LAWS},
        _overcut(song, part, found) if number % OVERCUT_STRIDE == 0 else 0,
        refusal,
        metre,
    )


def _overcut(song: Song, part: Part, found: Easier) -> int:
    """Bars far below what the target leaves in which one change taken back would still meet it."""
    room = found.target - found.after.stamina - OVERCUT
    count = 0
    for bar in found.after.bars if found.reached else ():
        own = [edit for edit in found.edits if bar.index in edit.bars]
        if bar.step < room and own:
            versions = (version_of(part, found.edits, [edit.id]) for edit in own)
            count += any(
                highest(grade_part(song, version, LADDER)) <= found.target + TOLERANCE for version in versions
            )
    return count


def _approaches(song: Song, part: Part) -> tuple[bool, ...]:
    """For each approach that is musically possible, whether it differs from the sound approach at 3."""
    plain = easier(song, part, LADDER, 3.0)
    offered = {way.wish.approach for way in ways(song, part, LADDER, Wish((3.0,)))} - {Approach.SOUND}
    found = (staircase(song, part, LADDER, Wish((3.0,), approach))[0] for approach in sorted(offered))
    return tuple(differ(part, plain.version, own.version) for own in found)


def document(rows: Sequence[SongRows]) -> Iterator[str]:
    """The whole of docs/versions.md."""
    yield "# Easier versions, measured\n"
    yield (
        "Written by `make versions`: staircases of 4, 3 and 2 over the demo pieces, the ten passages of"
        " tests/data/versions, thirty songs of every role made up by a seed (tests/rolesongs.py), traditional"
        " tunes of music21's ABC corpus placed on the neck, chorales of the same corpus reduced to top voice"
        " and bass, sequences of full shapes from the chord data set, and technique passages from a"
        " generator. *Kept* is the median of the songs that needed changes.\n"
    )
    yield from _reached(rows)
    yield from _laws(rows)
    yield from _others(rows)
    yield from _refused(rows)
    yield from _worst(rows)
    yield "\n" + (ROOT / "tests/data/versions/as-read.md").read_text().rstrip()


def _reached(rows: Sequence[SongRows]) -> Iterator[str]:
    yield "| songs | count | reached at 4 | kept | at 3 | kept | at 2 | kept | median seconds |"
    yield "|---|---|---|---|---|---|---|---|---|"
    for group in [*dict.fromkeys(row.group for row in rows), "all"]:
        own = [row for row in rows if group in (row.group, "all")]
        cells = []
        for target in TARGETS:
            counted = [row.at[target] for row in own if not row.at[target].left_out]
            changed = [row.kept for row in counted if row.edits]
            share = 100 * sum(row.reached for row in counted) / max(len(counted), 1)
            cells += [f"{share:.1f} %", f"{statistics.median(changed):.0f} %" if changed else "-"]
        seconds = statistics.median(row.seconds for row in own)
        yield f"| {group} | {len(own)} | {' | '.join(cells)} | {seconds:.1f} |"
    left_out = sum(row.at[3.0].left_out for row in rows)
    yield f"\nLeft out at 3 and 2: {left_out} songs whose changing metre alone stands above them.\n"


def _laws(rows: Sequence[SongRows]) -> Iterator[str]:
    yield "## Laws counted\n\n| law | floor | holds at 4 | at 3 | at 2 | cases at 3 |"
    yield "|---|---|---|---|---|---|"
    for law in LAWS:
        cells = []
        for target in TARGETS:
            broken = sum(row.at[target].broken[law.name] for row in rows)
            cases = sum(row.at[target].cases[law.name] for row in rows)
            cells.append(f"{100 * (1 - broken / cases):.2f} %" if cases else "-")
        cases = sum(row.at[3.0].cases[law.name] for row in rows)
        yield f"| {law.says} | {100 * law.floor:g} % | {' | '.join(cells)} | {cases} |"
    yield "\nFigures that come back moved are looked at for their rhythm.\n"


def _others(rows: Sequence[SongRows]) -> Iterator[str]:
    for target in TARGETS[:2]:
        sampled = [row.at[target] for number, row in enumerate(rows) if number % OVERCUT_STRIDE == 0]
        bars = sum(row.cases["sounding"] for row in sampled if row.edits and row.reached)
        over = sum(row.overcut for row in sampled)
        yield (
            f"At {target:g}, of {bars} bars in every {OVERCUT_STRIDE}th song, {over}"
            f" ({100 * over / max(bars, 1):.1f} %, at most 10 allowed) stand more than {OVERCUT} below what"
            " the target leaves and could have one change back."
        )
    compared = [one for row in rows for one in row.approaches]
    share = 100 * sum(compared) / max(len(compared), 1)
    yield (
        f"\nApproaches: of {len(compared)} that every {APPROACH_STRIDE}th song allows at 3, {share:.0f} %"
        " differ from keeping the sound in a quarter of the changed bars (at least 60 wanted).\n"
    )


def _refused(rows: Sequence[SongRows]) -> Iterator[str]:
    for target in TARGETS[:2]:
        refused = [
            (row.title, row.at[target].refusal)
            for row in rows
            if not row.at[target].reached and not row.at[target].left_out
        ]
        yield f"## Refused at {target:g} ({len(refused)} songs)\n"
        yield from (f"- {title}: {words}" for title, words in refused)
        yield ""


def _worst(rows: Sequence[SongRows]) -> Iterator[str]:
    yield f"## The worst {WORST} at 4\n"
    reached = sorted((row.at[4.0].kept, row.title, row.at[4.0].step) for row in rows if row.at[4.0].reached)
    yield from (f"- {title}: Step {step:.2f}, {points:.0f} % kept" for points, title, step in reached[:WORST])


def main() -> None:
    numbered = [(number, *entry) for number, entry in enumerate(entries())]
    with ProcessPoolExecutor() as pool:
        rows = list(pool.map(measured, numbered, chunksize=4))
    (ROOT / "docs/versions.md").write_text("\n".join(document(rows)) + "\n")
    print("docs/versions.md is written")


if __name__ == "__main__":
    main()
