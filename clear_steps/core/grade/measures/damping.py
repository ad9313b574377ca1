"""Damping: strings that would ring and must not."""

from fractions import Fraction

from clear_steps.core.grade.finding import Finding, Place, nothing, number_words
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import PlayedBar
from clear_steps.core.score import Event, Technique

UNIT = "damped moments/s"


def damping(bar: PlayedBar, ladder: Ladder) -> Finding:
    """Staccato notes, dead notes between sounding ones, and open strings stopped by a rest, per second."""
    damped: list[tuple[Fraction, tuple[int, ...]]] = []
    before: Event | None = None
    for onset, event in zip(bar.bar.onsets, bar.bar.events, strict=True):
        if Technique.STACCATO in event.techniques or (_sounds(before) and _is_dead(event)):
            damped.append((onset, tuple(note.string for note in event.notes)))
        elif before and not event.notes and any(note.fret == 0 and not note.dead for note in before.notes):
            damped.append((onset, tuple(note.string for note in before.notes)))
        before = event
    if not damped:
        return nothing(UNIT)
    rate = len(damped) / bar.seconds
    onset, strings = damped[0]
    times = (
        "once" if len(damped) == 1 else "twice" if len(damped) == 2 else f"{number_words(len(damped))} times"
    )
    evidence = f"Sounding strings are stopped {times}, first at {bar.beat_words(onset)}."
    return Finding(ladder.curves["damping"].step(rate), rate, UNIT, Place(onset, strings), evidence)


def _is_dead(event: Event) -> bool:
    return bool(event.notes) and all(note.dead for note in event.notes)


def _sounds(event: Event | None) -> bool:
    """Whether there is something to stop: within a run of dead strokes there is not."""
    return event is not None and bool(event.notes) and not _is_dead(event)
