"""Damping: strings that would ring and must not."""

from collections.abc import Iterator
from fractions import Fraction

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.measures.words import rate_words
from clear_steps.core.grade.played import PlayedBar
from clear_steps.core.score import Event, Technique
from clear_steps.core.score.words import number_words

_Damped = tuple[Fraction, tuple[int, ...]]
"""When, and the strings."""


def _find(bar: PlayedBar, _: Ladder) -> Found[_Damped]:
    return [(float(onset), (onset, strings)) for onset, strings in _damped(bar)]


def _damped(bar: PlayedBar) -> Iterator[_Damped]:
    """Staccato notes, strings stopped as written, dead notes between sounding ones, open strings stopped by a
    rest."""
    before: Event | None = None
    for onset, event in zip(bar.bar.onsets, bar.bar.events, strict=True):
        short = tuple(n.string for n in event.notes if Technique.STACCATO in event.techniques_of(n))
        if short or event.stopped:
            yield onset, (*short, *sorted(event.stopped))
        elif _sounds(before) and _is_dead(event):
            yield onset, tuple(note.string for note in event.notes)
        elif before and not event.notes and any(note.fret == 0 and not note.dead for note in before.notes):
            yield onset, tuple(note.string for note in before.notes)
        before = event


def _is_dead(event: Event) -> bool:
    return bool(event.notes) and all(note.dead for note in event.notes)


def _sounds(event: Event | None) -> bool:
    """Whether there is something to stop: within a run of dead strokes there is not."""
    return event is not None and bool(event.notes) and not _is_dead(event)


def _weigh(found: Found[_Damped], window: Window, ladder: Ladder) -> float:
    """By damped moments per second."""
    return ladder.curves["damping"].step(len(found) / window.seconds)


def _tell(found: Found[_Damped], bar: PlayedBar, _: Ladder) -> Told:
    onset, strings = found[0][1]
    count = len(found)
    times = {1: "once", 2: "twice"}.get(count, f"{number_words(count)} times")
    evidence = f"Sounding strings are stopped {times}, first at {bar.beat_words(onset)}."
    return Told(count / bar.seconds, Place(onset, strings), evidence)


def _rung(ladder: Ladder, step: int) -> str:
    return f"strings to be stopped up to {rate_words(ladder.curves['damping'], step)} times a second"


DAMPING = Measure(
    name="damping",
    spoken="stopping the strings",
    about="strings that would ring and must not",
    unit="damped moments/s",
    sign="M2 8h4M10 8h4M6 4v8M10 4v8",
    curves={"damping": "damping"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    of_the_score=True,
)
