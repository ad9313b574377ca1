"""`make laws`: writes docs/laws.md: the laws of the grade counted over songs of every texture, and what the
calibration passages are at a third of their tempo.

All of it is the same everywhere.
"""

import random
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from fractions import Fraction
from itertools import pairwise
from pathlib import Path

from clear_steps.core.grade import GradeRequest, Grading, grade_part
from clear_steps.core.score import Bar, Event, Song, Technique
from clear_steps.demo import demo_texts
from clear_steps.formats.tabtext import read_tab
from clear_steps.ladders import default_ladder
from tests.textures import textured_songs

ROOT = Path(__file__).parents[1]
LADDER = default_ladder()
SONGS, BARS, SEED = 100, 6, 11
SLACK, SEEN, CLEARLY = 1e-9, 0.05, 0.3
PER_CENT = range(30, 151)
TEMPO_EVERY = 5  # songs
LISTED = 12
STRUM = 3


@dataclass(frozen=True)
class Trial:
    """One law tried once: by how much it is broken (0 where it holds), and where."""

    law: str
    broken: float
    where: str


def graded(song: Song, tempo: Fraction | None = None) -> Grading:
    """The song's only part."""
    return grade_part(song, song.parts[0], LADDER, GradeRequest(practice_tempo=tempo))


def with_bar(song: Song, index: int, events: tuple[Event, ...]) -> Song:
    """The same with other events in a bar."""
    bars = song.parts[0].bars
    made = replace(bars[index], events=events)
    return with_bars(song, (*bars[:index], made, *bars[index + 1 :]))


def with_bars(song: Song, bars: tuple[Bar, ...]) -> Song:
    """The same with other bars."""
    return replace(song, parts=(replace(song.parts[0], bars=bars),))


def fewer_notes(song: Song, before: Grading, draw: random.Random, where: str) -> Iterator[Trial]:
    """A note left out of a chord, an octave or a power chord."""
    bars = song.parts[0].bars
    chords = [
        (i, j) for i, bar in enumerate(bars) for j, event in enumerate(bar.events) if len(event.notes) > 1
    ]
    for i, j in draw.sample(chords, min(4, len(chords))):
        event = bars[i].events[j]
        out = draw.randrange(len(event.notes))
        fewer = replace(event, notes=event.notes[:out] + event.notes[out + 1 :])
        after = graded(with_bar(song, i, (*bars[i].events[:j], fewer, *bars[i].events[j + 1 :])))
        added = [now.step - was.step for now, was in zip(after.bars, before.bars, strict=True)]
        neighbours = max(added[:i] + added[i + 1 :])
        place = f"{where}, bar {i + 1}, event {j + 1}, without string {event.notes[out].string}"
        yield Trial("a note left out raises its bar by more than 0.05", _over(added[i], SEEN), place)
        yield Trial("a note left out raises another bar by more than 0.05", _over(neighbours, SEEN), place)
        yield Trial("a note left out raises any bar by more than 0.3", _over(max(added), CLEARLY), place)


def repeated(song: Song, _: Grading, draw: random.Random, where: str) -> Iterator[Trial]:
    """A bar alone, and four times."""
    for index in draw.sample(range(BARS), 2):
        bar = song.parts[0].bars[index]
        once, often = (graded(with_bars(song, (bar,) * times)).step for times in (1, 4))
        yield Trial(
            "a bar four times is easier than once", _over(once - often, SLACK), f"{where}, bar {index + 1}"
        )


def staccato(song: Song, _: Grading, draw: random.Random, where: str) -> Iterator[Trial]:
    """Every note of a bar cut short, or half as long and a rest."""
    for index in draw.sample(range(BARS), 2):
        events = song.parts[0].bars[index].events
        short = tuple(replace(each, techniques=each.techniques | {Technique.STACCATO}) for each in events)
        halves = [(replace(each, quarters=each.quarters / 2), Event(each.quarters / 2)) for each in events]
        rests = tuple(piece for both in halves for piece in both)
        one, other = (graded(with_bar(song, index, made)).bars[index].step for made in (short, rests))
        apart = _over(abs(one - other), 0.2)
        yield Trial("staccato and note with rest lie more than 0.2 apart", apart, f"{where}, bar {index + 1}")


def free_time(song: Song, before: Grading, draw: random.Random, where: str) -> Iterator[Trial]:
    """A bar's last note half as long, or a rest, before the next bar."""
    for index in draw.sample(range(BARS - 1), 2):
        *others, last = song.parts[0].bars[index].events
        half = last.quarters / 2
        endings: tuple[tuple[Event, ...], ...] = (
            (replace(last, quarters=half), Event(half)),
            (Event(last.quarters),),
        )
        for ending in endings:
            after = graded(with_bar(song, index, (*others, *ending)))
            added = after.bars[index + 1].step - before.bars[index + 1].step
            place = f"{where}, into bar {index + 2}"
            yield Trial("more free time makes the next bar harder by 0.05", _over(added, SEEN), place)


def tempi(song: Song, where: str) -> Iterator[Trial]:
    """From 0.3 to 1.5 of the tempo in steps of one per cent."""
    steps = [graded(song, song.playing_tempo * Fraction(each, 100)).step for each in PER_CENT]
    for at, (slow, fast) in zip(PER_CENT, pairwise(steps), strict=False):
        place = f"{where}, {at} to {at + 1} %"
        yield Trial("one per cent quicker is easier", _over(slow - fast, SLACK), place)
        yield Trial("one per cent quicker jumps by more than 0.1", _over(fast - slow, 0.1), place)


def a_third(song: Song, where: str) -> Iterator[Trial]:
    """Marked tempo and a third of it, of what is Step 2.5 or more."""
    for part in song.parts:
        alone = replace(song, parts=(part,))
        full = graded(alone).step
        if full < 2.5:
            continue
        fall = full - graded(alone, song.playing_tempo / 3).step
        strums = sum(len(event.struck) >= STRUM for bar in part.bars for event in bar.events)
        least = 0.8 if strums > len(part.bars) else 0.5
        yield Trial("at a third of the tempo it falls by too little", _over(least - fall, SLACK), where)
        yield Trial("at a third of the tempo it falls by more than 5", _over(fall, 5.0), where)


def _over(found: float, most: float) -> float:
    return found if found > most else 0.0


def generated(number: int) -> list[Trial]:
    """All laws over one made-up song."""
    song = list(textured_songs(number + 1, bars=BARS, seed=SEED))[number]
    draw, where = random.Random(number), f"song {number}"
    before = graded(song)
    laws: tuple[Callable[..., Iterator[Trial]], ...] = (fewer_notes, repeated, staccato, free_time)
    found = [trial for law in laws for trial in law(song, before, draw, where)]
    return found + (list(tempi(song, where)) if number % TEMPO_EVERY == 0 else [])


def written() -> list[Trial]:
    """The demo and the calibration at a third of their tempo."""
    texts = [*demo_texts()]
    folder = ROOT / "tests" / "data" / "calibration"
    texts += [path.read_text() for at in (folder, folder / "teacher") for path in sorted(at.glob("*.tab"))]
    songs = [read_tab(text).song for text in texts]
    return [trial for song in songs for trial in a_third(song, song.title)]


def page(trials: list[Trial]) -> str:
    """The table, and the worst of what breaks each law."""
    lines = [
        "# Laws of the grade, counted",
        "",
        f"`make laws` over {SONGS} made-up songs of every texture ({BARS} bars each), the demo and the"
        " calibration.",
        "",
        "| broken where | tries | broken | share | worst |",
        "|---|---|---|---|---|",
    ]
    laws = {
        law: [trial for trial in trials if trial.law == law] for law in dict.fromkeys(t.law for t in trials)
    }
    for law, own in laws.items():
        broken = [trial.broken for trial in own if trial.broken]
        share = 100 * len(broken) / len(own)
        lines.append(f"| {law} | {len(own)} | {len(broken)} | {share:.1f} % | {max(broken, default=0):.2f} |")
    for law, own in laws.items():
        worst = sorted((trial for trial in own if trial.broken), key=lambda trial: -trial.broken)[:LISTED]
        if worst:
            lines += ["", f"## {law[0].upper()}{law[1:]}", ""]
            lines += [f"- {trial.broken:.2f}: {trial.where}" for trial in worst]
    return "\n".join(lines) + "\n"


def main() -> None:
    """Count, and write the page."""
    with ProcessPoolExecutor() as pool:
        trials = [trial for found in pool.map(generated, range(SONGS)) for trial in found]
    (ROOT / "docs" / "laws.md").write_text(page([*trials, *written()]))


if __name__ == "__main__":
    main()
