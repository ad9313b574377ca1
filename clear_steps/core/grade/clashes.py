"""Open strings of a way to play a passage that ring into what follows, and what stops them.

What stops which string is common practice, no source.
"""

import itertools
from collections.abc import Iterable, Iterator
from functools import partial
from typing import NamedTuple

from clear_steps.core.score import Event, Note, Part, Technique
from clear_steps.core.score.pitch import letter_of
from clear_steps.core.score.words import bar_words, beat_words, ordinal

_RUBBING = frozenset({1, 11})  # half tones, octaves apart alike
_WHOLE_TONE, _OCTAVE = 2, 12
_STOPPED = frozenset({Technique.PALM_MUTE, Technique.STACCATO, Technique.NATURAL_HARMONIC})


class _Struck(NamedTuple):
    """An event of the passage with its bar (index) and number in it."""

    bar: int
    number: int
    event: Event


def clash_words(written: Part, way: Part, bars: range) -> str:
    """`the open 2nd string clashes with the C at bar 2, beat 1: stop it with the tip of the finger there, and
    1 more`; empty where none rings on that did not as written."""
    places = list(dict.fromkeys(_clashes(written, way, bars)))
    if not places:
        return ""
    return places[0] + (f", and {len(places) - 1} more" if len(places) > 1 else "")


def _clashes(written: Part, way: Part, bars: range) -> Iterator[str]:
    struck = [
        _Struck(index, number, event)
        for index in bars
        for number, event in enumerate(way.bars[index].events)
        if event.struck
    ]
    for at, own in enumerate(struck):
        before = written.bars[own.bar].events[own.number]
        for note in own.event.struck:
            if _rings_open(note, own.event) and not _is_open_in(before, note.string):
                over = itertools.takewhile(partial(_leaves_alone, note.string), struck[at + 1 :])
                yield from itertools.islice(_clash(way, note, over), 1)


def _rings_open(note: Note, event: Event) -> bool:
    return note.fret == 0 and not note.dead and not event.techniques_of(note) & _STOPPED


def _is_open_in(event: Event, string: int) -> bool:
    return any(note.string == string and note.fret == 0 for note in event.notes)


def _leaves_alone(string: int, after: _Struck) -> bool:
    return all(note.string != string for note in after.event.notes)


def _clash(way: Part, ringing: Note, over: Iterable[_Struck]) -> Iterator[str]:
    for after in over:
        for note in after.event.struck:
            apart = abs(way.pitch_of(note) - way.pitch_of(ringing))
            if not note.dead and (apart == _WHOLE_TONE or apart % _OCTAVE in _RUBBING):
                clash = f"clashes with the {letter_of(way.pitch_of(note))} {_place(way, after)}"
                yield f"the open {ordinal(ringing.string)} string {clash}: stop it {_by(ringing, note)}"


def _place(way: Part, struck: _Struck) -> str:
    bar = way.bars[struck.bar]
    beat = beat_words(way.starts_at(struck.bar) + bar.onsets[struck.number], bar.metre)
    return f"at {bar_words(way.bar_number(struck.bar))}, {beat}"


def _by(ringing: Note, note: Note) -> str:
    """A finger on the next thinner string reaches it with its tip, one on the next thicker string lies over
    it."""
    if note.fret and note.string == ringing.string - 1:
        return "with the tip of the finger there"
    if note.fret and note.string == ringing.string + 1:
        return "by laying the finger there flat over it"
    return "with the picking hand"
