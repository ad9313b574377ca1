"""Damping: strings that would ring and must not."""

from collections.abc import Iterator
from fractions import Fraction
from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.measures.words import rate_words
from clear_steps.core.grade.played import PlayedBar
from clear_steps.core.score import Event, Technique
from clear_steps.core.score.words import number_words

# Of stopping a string exactly, as written: touching an open one, lifting a finger (from memory).
_TOUCHED_SHARE, _LIFTED_SHARE = 0.6, 0.3


class _Damped(NamedTuple):
    """When, the strings, and how much there is to do."""

    onset: Fraction
    strings: tuple[int, ...]
    work: float


def _find(bar: PlayedBar, _: Ladder) -> Found[_Damped]:
    return [(float(damped.onset), damped) for damped in _damped(bar)]


def _damped(bar: PlayedBar) -> Iterator[_Damped]:
    """Notes cut short, by a staccato or a rest, strings stopped as written, dead notes between sounding
    ones."""
    before: Event | None = None
    since = Fraction(0)
    for onset, event in zip(bar.bar.onsets, bar.bar.events, strict=True):
        short = tuple(n.string for n in event.notes if Technique.STACCATO in event.techniques_of(n))
        if event.stopped:
            yield _Damped(onset, (*short, *sorted(event.stopped)), 1.0)
        elif short:
            yield _Damped(onset, short, _to_stop(event))
        elif _sounds(before) and _is_dead(event):
            yield _Damped(onset, tuple(note.string for note in event.notes), 1.0)
        elif before and not event.notes and _sounds(before):
            yield _Damped(since, tuple(note.string for note in before.notes), _to_stop(before))
        before, since = event, onset


def _to_stop(event: Event) -> float:
    """A fretted note ends where its finger is lifted; an open string has to be touched."""
    is_open = any(note.fret == 0 and not note.dead for note in event.notes)
    return _TOUCHED_SHARE if is_open else _LIFTED_SHARE


def _is_dead(event: Event) -> bool:
    return bool(event.notes) and all(note.dead for note in event.notes)


def _sounds(event: Event | None) -> bool:
    """Whether there is something to stop: within a run of dead strokes there is not."""
    return event is not None and bool(event.notes) and not _is_dead(event)


def _weigh(found: Found[_Damped], window: Window, ladder: Ladder) -> float:
    """By damped moments per second."""
    return ladder.curves["damping"].step(sum(damped.work for _, damped in found) / window.seconds)


def _tell(found: Found[_Damped], bar: PlayedBar, _: Ladder) -> Told:
    first = found[0][1]
    count = len(found)
    times = {1: "once", 2: "twice"}.get(count, f"{number_words(count)} times")
    evidence = f"Sounding strings are stopped {times}, first at {bar.beat_words(first.onset)}."
    return Told(count / bar.seconds, Place(first.onset, first.strings), evidence)


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
    said={"es": "apagar las cuerdas"},
    helps={
        "en": "Decide for every string which finger or side of the hand keeps it quiet.",
        "es": "Decidir para cada cuerda qué dedo o qué lado de la mano la apaga.",
    },
)
