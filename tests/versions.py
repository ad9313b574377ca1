"""`make versions`: writes docs/versions.md, a table of versions found and of two honest baselines.

Seconds are of the machine that ran it; everything else is the same everywhere.
"""

import statistics
import time
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from fractions import Fraction
from pathlib import Path

from clear_steps.core.easier import TOLERANCE, Easier, Wish, easier, kept, staircase
from clear_steps.core.grade import GradeRequest, grade_part
from clear_steps.core.score import Part, Song
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.choices import MOST_EVENTS, best_bar_by_bar, can_be_tried, highest, with_only
from tests.corpus import chorales, passages, strummed, tunes

ROOT = Path(__file__).parents[1]
TARGETS = (2.0, 4.0)
CORPUS_TARGETS = (6.0, 4.0, 2.0)
SLOWEST = Fraction(10)
LADDER = default_ladder()
TUNE_STRIDE = 10
LONGEST_TRIED = 20  # bars, of a song in which every choice of notes is tried


@dataclass(frozen=True)
class Row:
    """A song at a target."""

    title: str
    target: float
    found: Easier
    seconds: float
    slow_tempo: Fraction | None  # the tempo at which slowing alone meets the target


def on_the_beat(part: Part) -> Part:
    """The first baseline: only what starts on a beat, lasting to the next."""
    bars = (
        replace(bar, events=with_only(bar, [onset % bar.metre.beat_quarters == 0 for onset in bar.onsets]))
        for bar in part.bars
    )
    return replace(part, bars=tuple(bars))


def slow_tempo(song: Song, part: Part, target: float) -> Fraction | None:
    """The second baseline: the fastest whole tempo at which the part as written grades at the target."""

    def met(tempo: Fraction) -> bool:
        return (
            highest(grade_part(song, part, LADDER, GradeRequest(practice_tempo=tempo))) <= target + TOLERANCE
        )

    low, high = SLOWEST, song.playing_tempo
    if met(high):
        return high
    if not met(low):
        return None
    while high - low > 1:
        middle = Fraction(int(low + high) // 2)
        low, high = (middle, high) if met(middle) else (low, middle)
    return low


def songs() -> list[Song]:
    texts = [
        *demo_texts(),
        *(file.read_text() for file in sorted((ROOT / "tests/data/calibration").glob("*.tab"))),
    ]
    return [read_tab(text).song for text in texts]


def rows() -> list[Row]:
    table = []
    for song in songs():
        for target in TARGETS:
            part, begun = song.parts[0], time.perf_counter()
            found = easier(song, part, LADDER, target)
            table.append(
                Row(song.title, target, found, time.perf_counter() - begun, slow_tempo(song, part, target))
            )
    return table


def against_the_beat(song: Song) -> float | None:
    """Points the search keeps more than the beat alone, at the Step that the beat alone reaches."""
    part = song.parts[0]
    thinned = on_the_beat(part)
    step = highest(grade_part(song, thinned, LADDER))
    if thinned == part or step >= highest(grade_part(song, part, LADDER)) - TOLERANCE:
        return None
    found = easier(song, part, LADDER, max(step, 1.0))
    return found.kept.overall - kept(part, thinned).overall if found.reached else None


def over_the_beat_at_best(song: Song) -> float | None:
    """Points that the best choice of notes keeps more than the beat alone at its Step; None where that is not
    tried."""
    part = song.parts[0]
    thinned = on_the_beat(part)
    step = highest(grade_part(song, thinned, LADDER))
    if (
        len(part.bars) > LONGEST_TRIED
        or not can_be_tried(part)
        or thinned == part
        or step >= highest(grade_part(song, part, LADDER)) - TOLERANCE
    ):
        return None
    return best_bar_by_bar(song, thinned, LADDER, max(step, 1.0)) - kept(part, thinned).overall


def margins_at_targets(song: Song, found: Sequence[Easier]) -> dict[float, float]:
    """By target: points the search keeps more than the beat alone, where both meet the target and edits were
    needed."""
    part = song.parts[0]
    thinned = on_the_beat(part)
    step, left = highest(grade_part(song, thinned, LADDER)), kept(part, thinned).overall
    return {
        each.target: each.kept.overall - left
        for each in found
        if each.reached and each.edits and step <= each.target + TOLERANCE
    }


def document(table: list[Row], margins: dict[str, float]) -> str:
    pairs = zip(table, (song for song in songs() for _ in TARGETS), strict=True)
    at_targets = [margin for row, song in pairs for margin in margins_at_targets(song, [row.found]).values()]
    lines = [
        "# Easier versions, measured",
        "",
        (
            "Written by `make versions` over the demo pieces and the calibration passages. *Kept* and *same"
            " onsets* are per cent,"
        ),
        (
            "*slow* is the tempo at which slowing alone would meet the target (of the marked one), `-` where"
            " no tempo down to"
        ),
        f"{SLOWEST} does. A version that needed no edit was easy enough already.",
        "",
        "| song | target | reached | before | after | kept | same onsets | edits | slow | seconds |",
        "|---|---|---|---|---|---|---|---|---|---|",
    ]
    for row in table:
        slow = (
            "-"
            if row.slow_tempo is None
            else f"{float(row.slow_tempo):g} of {float(row.found.before.tempo):g}"
        )
        reached = "yes" if row.found.reached else "no, see below"
        lines.append(
            f"| {row.title} | {row.target:g} | {reached} | {row.found.before.step:.2f} |"
            f" {row.found.after.step:.2f} | {row.found.kept.overall:.0f} | {row.found.kept.same_onsets:.0f} |"
            f" {len(row.found.edits)} | {slow} | {row.seconds:.1f} |"
        )
    for target in TARGETS:
        own = [row for row in table if row.target == target]
        share = 100 * sum(row.found.reached for row in own) / len(own)
        needed = [row for row in own if row.found.edits]
        medians = (
            statistics.median(row.found.kept.overall for row in needed),
            statistics.median(row.found.kept.same_onsets for row in needed),
        )
        lines += [
            "",
            (
                f"At {target:g}: {share:.0f} % reached; where edits were needed, median kept {medians[0]:.0f}"
                f" %, same onsets {medians[1]:.0f} %."
            ),
        ]
    lines += ["", "## Refusals"]
    for row in table:
        for bar in row.found.blocking:
            best = min(bar.tried, key=lambda tried: tried.step)
            where = f"bar {bar.bar + 1} stays at {bar.step:.2f} by {bar.measure}"
            lines.append(
                f"- {row.title} at {row.target:g}: {where}; best left is {best.kind} to {best.step:.2f}."
            )
    lines += [
        "",
        "## Against keeping only the notes on the beat",
        (
            f"Asked for the same Step ({' and '.join(f'{target:g}' for target in TARGETS)}), where both meet"
            " it and edits were needed,"
        ),
        "the search keeps a median of",
        f"{statistics.median(at_targets):.1f} points more ({len(at_targets)} cases).",
        "",
        (
            "At the Step that the beat alone reaches, the search keeps a median of"
            f" {statistics.median(margins.values()):.1f} points more over"
        ),
        f"{len(margins)} songs in which the beat alone is easier. The floor is 10.",
        "",
        "| song | points more |",
        "|---|---|",
        *(f"| {title} | {margin:.1f} |" for title, margin in margins.items()),
    ]
    return "\n".join(lines) + "\n"


@dataclass(frozen=True)
class CorpusRow:
    """A song of a corpus: at every target (reached, proof complete, kept, same onsets, edits), seconds, and
    the margin over the beat alone."""

    group: str
    title: str
    before: float
    at: dict[float, tuple[bool, bool, float, float, int]]
    seconds: float
    slow_tempo: float | None
    margin: float | None
    at_targets: dict[float, float]  # points more than the beat alone where both meet the target
    refusals: tuple[str, ...]


def corpus_row(entry: tuple[str, Song]) -> CorpusRow:
    """One staircase of a song, and its baselines."""
    group, song = entry
    part, begun = song.parts[0], time.perf_counter()
    found = staircase(song, part, LADDER, Wish(CORPUS_TARGETS))
    seconds = time.perf_counter() - begun
    at = {
        step.target: (
            step.reached,
            step.reached or all(row.tried for row in step.blocking),
            step.kept.overall,
            step.kept.same_onsets,
            len(step.edits),
        )
        for step in found
    }
    refusals = tuple(
        f"{song.title} at {step.target:g}: bar {part.bar_number(row.bar)} stays at {row.step:.2f} by"
        f" {row.measure}; best left is {min(row.tried, key=lambda tried: tried.step).kind} to"
        f" {min(tried.step for tried in row.tried):.2f}"
        for step in found
        if step.target == 4
        for row in step.blocking[:1]
    )
    slow = slow_tempo(song, part, 4.0)
    share = None if slow is None else float(slow / song.playing_tempo)
    return CorpusRow(
        group,
        song.title,
        found[0].before.step,
        at,
        seconds,
        share,
        against_the_beat(song),
        margins_at_targets(song, found),
        refusals,
    )


def corpus_entries() -> list[tuple[str, Song]]:
    demo = [read_tab(text).song for text in demo_texts()]
    groups = {
        "demo pieces": demo,
        "tunes": tunes(),
        "chorales": chorales(),
        "strummed": strummed(),
        "passages": passages(),
    }
    return [(name, song) for name, songs_of in groups.items() for song in songs_of]


def corpus_document(rows_of: list[CorpusRow]) -> str:
    """The wide table, a line a group and target, and what the beat alone and slowing alone would do."""
    lines = [
        "",
        "## In number",
        (
            "Staircases of 6, 4 and 2 over the demo pieces, traditional tunes of music21's ABC corpus placed"
            " on the neck, chorales of the same"
        ),
        (
            "corpus reduced to top voice and bass, sequences of full shapes from the chord data set, and"
            " technique passages from a generator."
        ),
        (
            "*Median kept* and *same onsets* are over the songs that needed edits; *tempo alone* is the share"
            " of the marked tempo to which"
        ),
        "slowing alone would have to go for Step 4 (median, where it can at all).",
        "",
        (
            "| songs | count | target | reached | median kept | median same onsets | median edits | median"
            " seconds | tempo alone |"
        ),
        "|---|---|---|---|---|---|---|---|---|",
    ]
    for group in [*dict.fromkeys(row.group for row in rows_of), "all"]:
        own = [row for row in rows_of if group in (row.group, "all")]
        for target in CORPUS_TARGETS:
            results = [row.at[target] for row in own]
            edited = [result for result in results if result[4]]
            medians = [
                statistics.median(result[at] for result in edited) if edited else 100.0 for at in (2, 3, 4)
            ]
            reached = 100 * sum(result[0] for result in results) / len(results)
            slow = [row.slow_tempo for row in own if row.slow_tempo is not None]
            lines.append(
                f"| {group} | {len(own)} | {target:g} | {reached:.1f} % | {medians[0]:.0f} % |"
                f" {medians[1]:.0f} % | {medians[2]:.0f} |"
                f" {statistics.median(row.seconds for row in own):.1f} |"
                f" {f'{statistics.median(slow):.0%}' if slow else '-'} |"
            )
    margins = [row.margin for row in rows_of if row.margin is not None]
    unproven = sum(not result[1] for row in rows_of for result in row.at.values())
    refused = [text for row in rows_of for text in row.refusals]
    lines += [
        "",
        (
            "At the Step that keeping only the notes on the beat reaches, the search keeps a median of"
            f" {statistics.median(margins):.1f} points more"
        ),
        (
            f"({len(margins)} songs in which the beat alone is easier). Refusals without their proof:"
            f" {unproven}."
        ),
        "",
        (
            "Asked for the same Step, where both meet it and edits were needed, the search keeps more than"
            " the beat alone by a median of"
        ),
        f"{'; '.join(_more_at(target, rows_of) for target in CORPUS_TARGETS)}.",
        "",
        f"### Refused at 4 ({len(refused)} songs)",
        *(f"- {text}." for text in refused),
    ]
    return "\n".join(lines) + "\n"


def choices_document(over_the_beat: dict[str, float], searched: dict[str, float]) -> str:
    """What other choices of the notes would keep, and what the search did."""
    little = sum(points < 10 for points in over_the_beat.values())
    lines = [
        "",
        "## Other choices of the notes",
        (
            "At the Step that the beat alone reaches, from the beat alone on: every subset of the notes of a"
            " bar was tried, one bar after another, not every"
        ),
        (
            f"combination of bars (songs of at most {LONGEST_TRIED} bars of at most {MOST_EVENTS} events; of"
            f" the tunes every {TUNE_STRIDE}th)."
        ),
        (
            f"In {little} of {len(over_the_beat)} songs what was found keeps less than 10 points more than"
            " the beat alone."
        ),
        "",
        "| song | bar by bar, points more | the search, points more |",
        "|---|---|---|",
        *(
            f"| {title} | {points:.1f} | {f'{searched[title]:.1f}' if title in searched else '-'} |"
            for title, points in over_the_beat.items()
        ),
    ]
    return "\n".join(lines) + "\n"


def _more_at(target: float, rows_of: list[CorpusRow]) -> str:
    margins = [row.at_targets[target] for row in rows_of if target in row.at_targets]
    return f"{statistics.median(margins):.1f} points at {target:g} ({len(margins)} songs)"


def main() -> None:
    margins = {song.title: margin for song in songs() if (margin := against_the_beat(song)) is not None}
    text = document(rows(), margins)
    with ProcessPoolExecutor() as pool:
        entries = corpus_entries()
        found = list(pool.map(corpus_row, entries, chunksize=4))
        tried = [*songs(), *[song for group, song in entries if group == "tunes"][::TUNE_STRIDE]]
        best = zip((song.title for song in tried), pool.map(over_the_beat_at_best, tried), strict=True)
        searched = margins | {row.title: row.margin for row in found if row.margin is not None}
        text += corpus_document(found) + choices_document(
            {title: points for title, points in best if points is not None}, searched
        )
    (ROOT / "docs/versions.md").write_text(text)
    print("docs/versions.md is written")


if __name__ == "__main__":
    main()
