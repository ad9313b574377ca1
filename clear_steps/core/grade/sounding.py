"""What the score alone says of a bar's moments: what is struck, where, and what is done to it."""

from fractions import Fraction
from typing import NamedTuple

from clear_steps.core.score import UNPICKED, Bar, Event, Note, Technique

_Techniques = tuple[tuple[Technique, int], ...]
"""Each with its string; those of a whole event once."""


class Sounding(NamedTuple):
    """What the score alone says of notes struck together."""

    onset: Fraction
    onset_quarters: float
    event: Event
    struck: tuple[Note, ...]
    strings: tuple[int, ...]  # struck, thickest first as the eye reads a chord from the bass
    picked: bool  # the picking hand sounds at least one of them
    techniques: _Techniques


def soundings_of(bar: Bar) -> list[tuple[int, Sounding]]:
    """Every event that strikes something, with its index."""
    found: list[tuple[int, Sounding]] = []
    for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True)):
        struck = event.struck
        if not struck:
            if found and event.notes:
                place, sounding = found[-1]
                found[-1] = (place, sounding._replace(techniques=_with_tied(sounding.techniques, event)))
            continue
        strings = tuple(note.string for note in reversed(struck))
        techniques = _techniques_in(event, struck)
        picked = not techniques or not all(UNPICKED & event.techniques_of(note) for note in struck)
        onset_quarters = bar.ticks[number] / bar.ticks_a_quarter
        found.append((number, Sounding(onset, onset_quarters, event, struck, strings, picked, techniques)))
    return found


def _with_tied(sounding: _Techniques, event: Event) -> _Techniques:
    """What is done to a note that is held on, a release say, belongs to its stroke."""
    held = [
        (technique, note.string)
        for note in event.notes
        for technique in event.techniques_of(note) - event.techniques
    ]
    return (*sounding, *sorted(set(held) - set(sounding)))


def _techniques_in(event: Event, struck: tuple[Note, ...]) -> _Techniques:
    if not event.techniques and not any(note.techniques or note.bend for note in event.notes):
        return ()
    shared = [(technique, struck[0].string) for technique in sorted(event.techniques)]
    own = [
        (technique, note.string)
        for note in event.notes
        for technique in sorted(event.techniques_of(note) - event.techniques)
        if technique is not Technique.DEAD
    ]
    dead = [(Technique.DEAD, note.string) for note in struck if note.dead][
        :1
    ]  # one stroke, however many strings
    return tuple(shared + own + dead)
