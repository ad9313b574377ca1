"""Thinner texture: fewer notes at once, easier shapes of the same chord."""

import itertools
from collections.abc import Callable, Iterator
from dataclasses import replace
from functools import partial

from clear_steps.core.easier.edit import Change
from clear_steps.core.easier.kinds.bars import each, with_notes
from clear_steps.core.score import Event, Note, Part

_MUDDY_BELOW = (
    48  # MIDI: notes under the C below middle C sound muddy when they lie close (common practice, no source)
)
_CLEAR_APART = 7  # half tones: a fifth sounds clear


def optional_out(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Notes marked optional go first."""
    yield from each(
        part, index, lambda event: (with_notes(event, [note for note in event.notes if not note.optional]),)
    )


def inner_optional(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """What lies between the lowest and the highest note of a chord in brackets: to be played if it can be."""

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        if len(event.notes) < 3:
            return None
        lowest, *inner, highest = _by_pitch(part, event)
        return (with_notes(event, [lowest, *(replace(note, optional=True) for note in inner), highest]),)

    yield from each(part, index, rewrite)


def bass_alone(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Of a chord just its bass."""
    yield from each(
        part,
        index,
        lambda event: (with_notes(event, _by_pitch(part, event)[:1]),) if len(event.notes) > 1 else None,
    )


def bass_and_top(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Of three notes or more, the lowest and the highest."""

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        if len(event.notes) < 3:
            return None
        ordered = _by_pitch(part, event)
        return (with_notes(event, [ordered[0], ordered[-1]]),)

    yield from each(part, index, rewrite)


def upper_two(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Of three notes or more, the two highest: more of the chord than its top note, for a finger or two."""
    yield from each(
        part,
        index,
        lambda event: (with_notes(event, _by_pitch(part, event)[-2:]),) if len(event.notes) > 2 else None,
    )


def muddy_out(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Of low notes that lie close together, the bass alone; what sounds above them stays."""

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        ordered = _by_pitch(part, event)
        low = [note for note in ordered if part.pitch_of(note) < _MUDDY_BELOW]
        muddy = [b for a, b in itertools.pairwise(low) if part.pitch_of(b) - part.pitch_of(a) < _CLEAR_APART]
        return (with_notes(event, [note for note in ordered if note not in muddy]),) if muddy else None

    yield from each(part, index, rewrite)


def top_only(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """The top note of a chord alone."""
    yield from each(
        part,
        index,
        lambda event: (with_notes(event, _by_pitch(part, event)[-1:]),) if len(event.notes) > 1 else None,
    )


def power_to_root(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """Root, fifth and octave: the root alone."""

    def rewrite(event: Event) -> tuple[Event, ...] | None:
        ordered = _by_pitch(part, event)
        above = {(part.pitch_of(note) - part.pitch_of(ordered[0])) % 12 for note in ordered[1:]}
        return (with_notes(event, ordered[:1]),) if above and above <= {0, 7} else None

    yield from each(part, index, rewrite)


def simpler_chord(part: Part, index: int) -> Iterator[tuple[Change, ...]]:
    """A full chord as its three upper strings, or as root and fifth."""
    for choose in (_upper_three, _root_and_fifth):
        yield from each(part, index, partial(_chosen, part, choose))


_Choice = Callable[[Part, Event], list[Note] | None]


def _chosen(part: Part, choose: _Choice, event: Event) -> tuple[Event, ...] | None:
    notes = choose(part, event) if len(event.notes) >= 4 else None
    return (with_notes(event, notes),) if notes else None


def _by_pitch(part: Part, event: Event) -> list[Note]:
    return sorted(event.notes, key=part.pitch_of)


def _upper_three(part: Part, event: Event) -> list[Note] | None:
    return sorted(event.notes, key=lambda note: note.string)[:3]


def _root_and_fifth(part: Part, event: Event) -> list[Note] | None:
    ordered = _by_pitch(part, event)
    root = ordered[0]
    fifth = next(
        (note for note in ordered[1:] if (part.pitch_of(note) - part.pitch_of(root)) % 12 == 7), None
    )
    return [replace(root), fifth] if fifth else None
