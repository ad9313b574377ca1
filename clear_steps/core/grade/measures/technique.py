"""Technique: the hardest thing done to a note, how often, and how many kinds."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from math import log2

from clear_steps.core.grade.finding import Finding, Place, nothing, number_words, string_words
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.modifiers import Use, modified
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.core.score import SETTINGS, TECHNIQUES

UNIT = "techniques/s"
_RATE_WEIGHT, _KIND_WEIGHT = 0.5, 0.2


@dataclass(frozen=True, slots=True)
class _Named:
    """A technique as it is counted and said."""

    name: str
    plural: str
    step: float
    setting: bool = False  # of the hand, for as long as it lasts: it does not add up


def technique(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The highest of Step + 0.5 log2(1 + demands per second that are at least as hard), + 0.2 for each
    further kind.

    Easy demands, however many, do not make a hard one harder: a bend among palm-muted notes is one bend.
    """
    used = [
        (row, string, moment)
        for before, moment in zip((None, *bar.moments), bar.moments, strict=False)
        for row, string in _demands(moment, before, ladder)
        if row.step > 0
    ]
    if not used:
        return nothing(UNIT)
    counts = Counter(row for row, _, _ in used)
    rate = len(used) / bar.seconds
    hardest, string, moment = max(used, key=lambda entry: entry[0].step)
    step = max(
        row.step + _RATE_WEIGHT * log2(1 + _as_hard(counts, row) / bar.seconds) for row in counts
    ) + _KIND_WEIGHT * (len({row.name for row in counts}) - 1)
    return Finding(
        min(step, HARDEST_STEP),
        rate,
        UNIT,
        Place(moment.onset, (string,)),
        _evidence(bar, moment, string, hardest, counts),
    )


def _as_hard(counts: Counter[_Named], least: _Named) -> int:
    if least.setting:
        return 0
    return sum(count for row, count in counts.items() if row.step >= least.step and not row.setting)


def _demands(moment: Moment, before: Moment | None, ladder: Ladder) -> Iterator[tuple[_Named, int]]:
    """Every technique of a moment with its string; the teacher's own count where the ladder knows them."""
    notes = {note.string: note for note in moment.sounding.struck}
    for row, string in moment.sounding.techniques:
        step = ladder.technique_steps[row]
        if string in notes:
            step = modified(row, Use(notes[string], moment, before), ladder)
        yield _Named(TECHNIQUES[row].name, TECHNIQUES[row].plural, step, row in SETTINGS), string
    for name in sorted(moment.event.own_techniques & set(ladder.own_techniques)):
        yield _Named(name, f"{name} notes", ladder.own_techniques[name]), moment.strings[0]


def _evidence(bar: PlayedBar, moment: Moment, string: int, hardest: _Named, counts: Counter[_Named]) -> str:
    listed = [_counted(row, count) for row, count in counts.most_common()]
    every = listed[0] if len(listed) == 1 else f"{', '.join(listed[:-1])} and {listed[-1]}"
    if len(counts) == 1:
        first = "first " if counts[hardest] > 1 else ""
        return (
            f"{every.capitalize()}, {first}at {bar.beat_words(moment.onset)} on the"
            f" {string_words((string,))}."
        )
    where = f"at {bar.beat_words(moment.onset)} on the {string_words((string,))}"
    return f"{every.capitalize()}; the hardest is the {hardest.name} {where}."


def _counted(row: _Named, count: int) -> str:
    single = (
        row.plural.replace("notes ", "note ", 1) if row.plural.startswith("notes ") else row.name
    )  # one note with vibrato
    return f"{number_words(count)} {single if count == 1 else row.plural}"
