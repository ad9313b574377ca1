"""Technique: the hardest thing done to a note, how often, and how many kinds."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from math import log2
from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder, Modifier
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.modifiers import Use, modifiers_of
from clear_steps.core.grade.played import Moment, PlayedBar
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.core.score import SETTINGS, TECHNIQUES
from clear_steps.core.score.words import number_words, string_words

_ONE_A_SECOND, _RATE_WEIGHT, _KIND_WEIGHT = 0.8, 0.34, 0.2  # the first two from memory
_ONCE_LESS = 0.5  # what comes once in a bar is half as often as what goes on (from memory)


@dataclass(frozen=True, slots=True)
class _Named:
    """A technique as it is counted and said."""

    name: str
    plural: str
    step: float
    setting: bool = False  # of the hand, for as long as it lasts: it does not add up
    bearing: tuple[Modifier, ...] = ()  # what makes it harder here


class _Demand(NamedTuple):
    named: _Named
    string: int
    moment: Moment


def _find(bar: PlayedBar, ladder: Ladder) -> Found[_Demand]:
    return [
        (moment.sounding.onset_quarters, _Demand(row, string, moment))
        for before, moment in zip((None, *bar.moments), bar.moments, strict=False)
        for row, string in _demands(moment, before, ladder)
        if row.step > 0
    ]


def _weigh(found: Found[_Demand], window: Window, _: Ladder) -> float:
    """The highest of Step + 0.8 + 0.34 log2(demands per second that are at least as hard), + 0.2 for each
    further kind: three times the time is half a Step.

    Easy demands, however many, do not make a hard one harder: a bend among palm-muted notes is one bend.
    """
    counts = Counter(demand.named for _, demand in found)
    step = max(
        row.step + _rate_step(_as_hard(counts, row), window.seconds) for row in counts
    ) + _KIND_WEIGHT * (len({row.name for row in counts}) - 1)
    return min(step, HARDEST_STEP)


def _rate_step(demands: int, seconds: float) -> float:
    """What so many demands in so many seconds add to a Step, or take off it."""
    if not demands:
        return 0.0
    return _ONE_A_SECOND - _RATE_WEIGHT * log2(seconds / (demands - _ONCE_LESS))


def _tell(found: Found[_Demand], bar: PlayedBar, _: Ladder) -> Told:
    counts = Counter(demand.named for _, demand in found)
    hardest, string, moment = max((demand for _, demand in found), key=lambda demand: demand.named.step)
    evidence = _evidence(bar, moment, string, hardest, counts)
    return Told(len(found) / bar.seconds, Place(moment.onset, (string,)), evidence)


def _as_hard(counts: Counter[_Named], least: _Named) -> int:
    if least.setting:
        return 0
    return sum(count for row, count in counts.items() if row.step >= least.step and not row.setting)


def _demands(moment: Moment, before: Moment | None, ladder: Ladder) -> Iterator[tuple[_Named, int]]:
    """Every technique of a moment with its string; the teacher's own count where the ladder knows them."""
    notes = {note.string: note for note in moment.sounding.struck}
    for row, string in moment.sounding.techniques:
        name, plural = TECHNIQUES[row].name, TECHNIQUES[row].plural
        bearing = modifiers_of(row, Use(notes[string], moment, before)) if string in notes else ()
        step = ladder.technique_steps[row] + sum(ladder.modifiers[modifier] for modifier in bearing)
        harder = tuple(modifier for modifier in bearing if ladder.modifiers[modifier] > 0)
        yield _Named(name, plural, max(step, 0.0), row in SETTINGS, harder), string
    for name in sorted(moment.event.own_techniques & set(ladder.own_techniques)):
        yield _Named(name, f"{name} notes", ladder.own_techniques[name]), moment.strings[0]


def _evidence(bar: PlayedBar, moment: Moment, string: int, hardest: _Named, counts: Counter[_Named]) -> str:
    kinds: Counter[tuple[str, str]] = Counter()
    for row, count in counts.items():
        kinds[row.name, row.plural] += count
    listed = [_counted(name, plural, count) for (name, plural), count in kinds.most_common()]
    every = listed[0] if len(listed) == 1 else f"{', '.join(listed[:-1])} and {listed[-1]}"
    where = f"at {bar.beat_words(moment.onset)} on the {string_words((string,))}"
    why = f" ({', '.join(hardest.bearing)})" if hardest.bearing else ""
    there = "There is" if every.startswith("one ") else "There are"
    if len(kinds) == 1:
        several = "the hardest " if len(counts) > 1 else "the first " if counts[hardest] > 1 else ""
        return f"{there} {every}, {several}{where}{why}."
    return f"{there} {every}; the hardest is the {hardest.name} {where}{why}."


def _counted(name: str, plural: str, count: int) -> str:
    single = (
        plural.replace("notes ", "note ", 1) if plural.startswith("notes ") else name
    )  # one note with vibrato
    return f"{number_words(count)} {single if count == 1 else plural}"


def _rung(ladder: Ladder, step: int) -> str:
    """What a single one, once in a slow bar, newly comes within reach."""
    named = {
        TECHNIQUES[row].plural: own for row, own in ladder.technique_steps.items() if own > 0
    } | ladder.own_techniques
    new = sorted(name for name, own in named.items() if step - 1 < own <= step)
    if new:
        return f"now also {', '.join(new)}"
    return (
        "no technique yet"
        if not any(own <= step for own in named.values())
        else "the same techniques, more of them"
    )


TECHNIQUE = Measure(
    name="technique",
    spoken="the technique",
    about="bends, slides, taps and the like, and how often",
    unit="techniques/s",
    sign="M2 11c2.5 0 3-7 6-7s2 8 6 5",
    curves={},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    said={"es": "la técnica"},
    helps={
        "en": "The technique alone on one note, then within its bar.",
        "es": "La técnica sola en una nota, después dentro de su compás.",
    },
)
