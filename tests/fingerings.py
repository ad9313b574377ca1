"""`make fingerings`: writes docs/fingerings.md: the laws of fingers counted over many songs.

All of it is the same everywhere.
"""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from itertools import pairwise
from pathlib import Path

from clear_steps.core.grade import Grading, alternatives, grade_part
from clear_steps.core.hand import Demand, Grip
from clear_steps.core.score import Part, Song
from clear_steps.core.shapes.carried import POWER_CHORD, interval
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.corpus import chorales, passages, strummed, tunes

ROOT = Path(__file__).parents[1]
LADDER = default_ladder()
BESIDE = 2  # frets: farther away the hand goes on
FIFTHS = {"13", "134", "1", "3"}
EASIER = 0.2  # Steps that no other way may be easier than what is shown
WAYS_EVERY = 4  # bars of the demo and the calibration whose other ways are looked at

Counts = Counter[str]
"""By law: how many cases, and under `law!` how many break it."""


@dataclass(frozen=True)
class Case:
    """A song and the set it is of."""

    group: str
    song: Song


def cases() -> Iterator[Case]:
    """Every song that is looked at."""
    for text in demo_texts():
        yield Case("demo", read_tab(text).song)
    for file in sorted((ROOT / "tests/data/calibration").rglob("*.tab")):
        yield Case("calibration", read_tab(file.read_text()).song)
    for group, songs in (
        ("tunes", tunes()),
        ("chorales", chorales()),
        ("strummed", strummed()),
        ("techniques", passages()),
    ):
        for song in songs:
            yield Case(group, song)


def counted(case: Case) -> tuple[str, Counts]:
    """The laws over one song."""
    counts: Counts = Counter()
    for part in case.song.parts:
        grading = grade_part(case.song, part, LADDER)
        for law, cases_of in (("crossing", crossings), ("fifths", fifths), ("same bar", same_bars_differ)):
            _add(counts, law, cases_of(part, grading))
        _add(counts, "same bar and the one before", same_after_the_same(part, grading))
        if case.group in ("demo", "calibration"):
            _add(counts, "other ways", easier_ways(case.song, part))
    return case.group, counts


def _add(counts: Counts, law: str, broken: Iterable[bool]) -> None:
    for breaks in broken:
        counts[law] += 1
        counts[f"{law}!"] += breaks


def _fingered(grading: Grading) -> Iterator[tuple[Demand, Grip]]:
    route, hand = grading.fingered.route, grading.hand
    for run in route.runs:
        for index in run:
            yield from zip(
                grading.fingered.bars[index].demands, grading.fingered.hands[hand][index], strict=True
            )


def crossings(_: Part, grading: Grading) -> Iterator[bool]:
    """Single notes on neighbouring strings: a higher finger on a lower fret; pins and taught shapes aside."""
    for (one, old), (other, new) in pairwise(_fingered(grading)):
        if not (_is_free(one) and _is_free(other)):
            continue
        (finger, a), (then, b) = old.presses[0], new.presses[0]
        if abs(a.string - b.string) == 1 and 0 < abs(a.fret - b.fret) <= BESIDE and "T" not in (finger, then):
            yield (then > finger) != (b.fret > a.fret) and then != finger


def _is_free(demand: Demand) -> bool:
    shape = demand.shape
    return len(shape.spots) == 1 and not shape.pinned and (shape.loose or not shape.schools)


def fifths(part: Part, grading: Grading) -> Iterator[bool]:
    """A root and its fifth, and the octave over it: by 1 and 3, 1-3-4 or one finger."""
    for demand, grip in _fingered(grading):
        frets = {spot.string: spot.fret for spot in demand.shape.spots}
        whole = len(frets) == len(demand.shape.spots) and not demand.shape.open_strings
        if whole and not demand.shape.pinned and interval(frets, part.tuning) == POWER_CHORD:
            yield (
                "".join(dict.fromkeys(grip.finger_on(string) or "" for string in sorted(frets)[::-1]))
                not in FIFTHS
            )


def _fingers(grading: Grading, index: int) -> tuple[str, ...]:
    grips = grading.fingered.hands[grading.hand][index]
    return tuple("".join(f"{finger}{spot.string}" for finger, spot in grip.presses) for grip in grips)


def same_bars_differ(part: Part, grading: Grading) -> Iterator[bool]:
    """Bars that are equal: other fingers than the first of them."""
    first: dict[object, int] = {}
    for index, bar in enumerate(part.bars):
        if not grading.fingered.bars[index].demands:
            continue
        if bar.unpinned_events in first:
            yield _fingers(grading, index) != _fingers(grading, first[bar.unpinned_events])
        first.setdefault(bar.unpinned_events, index)


def same_after_the_same(part: Part, grading: Grading) -> Iterator[bool]:
    """Bars that are equal and come after equal ones: other fingers than the first of them."""
    first: dict[object, int] = {}
    for index in range(1, len(part.bars)):
        pair = (part.bars[index - 1].unpinned_events, part.bars[index].unpinned_events)
        if not grading.fingered.bars[index].demands:
            continue
        if pair in first:
            yield _fingers(grading, index) != _fingers(grading, first[pair])
        first.setdefault(pair, index)


def easier_ways(song: Song, part: Part) -> Iterator[bool]:
    """Bars for which another way of the same places is easier than what is shown."""
    alone = replace(song, parts=(part,))
    for index in range(0, len(part.bars), WAYS_EVERY):
        if not part.bars[index].silent:
            written, *others = alternatives(alone, part, index, index, LADDER)
            same = [way for way in others if not way.title.startswith("Elsewhere")]
            yield min((way.step_with_neighbours for way in same), default=written.step_with_neighbours) < (
                written.step_with_neighbours - EASIER
            )


LAW_WORDS = {
    "crossing": "a higher finger on a lower fret beside it on the next string",
    "fifths": "root and fifth by other fingers than 1-3, 1-3-4 or one",
    "same bar": "a bar equal to an earlier one with other fingers",
    "same bar and the one before": "the same, the bars before them being equal too",
    "other ways": f"another way of the same places more than {EASIER} Step easier",
}


def document(totals: Mapping[str, Counts]) -> Iterator[str]:
    """The table, group by group and in all."""
    yield "# Laws of fingers, counted"
    yield ""
    yield "Written by `make fingerings`; broken of all cases. The demo songs, the calibration passages in"
    yield "`tests/data`, traditional tunes and two-voice chorales placed on the neck, strummed shapes, and"
    yield "passages of techniques."
    yield f"Other ways are looked at in every {WAYS_EVERY}th bar of the demo and the calibration."
    yield ""
    yield f"| law: never | {' | '.join(totals)} | all |"
    yield f"|---|{'---|' * (len(totals) + 1)}"
    for law, words in LAW_WORDS.items():
        rows = [(counts[f"{law}!"], counts[law]) for counts in totals.values()]
        every = (sum(broken for broken, _ in rows), sum(cases for _, cases in rows))
        cells = [f"{broken} of {cases}" if cases else "" for broken, cases in (*rows, every)]
        yield f"| {words} | {' | '.join(cells)} |"


def main() -> None:
    totals: dict[str, Counts] = {}
    with ProcessPoolExecutor() as pool:
        for group, counts in pool.map(counted, cases(), chunksize=4):
            totals.setdefault(group, Counter()).update(counts)
    (ROOT / "docs/fingerings.md").write_text("\n".join(document(totals)) + "\n")
    print("docs/fingerings.md is written")


if __name__ == "__main__":
    main()
