"""One line of the music alone: the melody, the bass."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from itertools import pairwise

from clear_steps.core.easier.chordbook import ChordBook
from clear_steps.core.easier.kinds.bars import with_notes, without
from clear_steps.core.easier.roles import roles_of
from clear_steps.core.easier.voices import Voices, traced
from clear_steps.core.score import Bar, Event, Note, Part, Role, Song, Technique
from clear_steps.core.score.tuning import bass_from

Bars = tuple[tuple[Event, ...], ...]
"""The events of every bar of a part, written anew."""

_MELODY_OF = {Role.STRUM: Role.LINE}
_BASS_OF = {Role.LINE: Role.CHORD_MELODY, Role.RIFF: Role.BASS}
_DRONES = 3  # strikes of one open string in a bar
_ALTERNATING = 0.4  # of what is struck


def melody(_song: Song, part: Part, _book: ChordBook) -> Bars:
    """The tune of every bar by its role, open strings that only drone beside it left out; of strums their top
    notes."""
    return _line(part, _MELODY_OF, lambda voices: voices.tune, without_drone)


def bass(_song: Song, part: Part, _book: ChordBook) -> Bars:
    """The bass of every bar by its role: of a riff its roots, of a line what lies on the lower strings."""
    low = bass_from(part.tuning.strings)

    def lowest(voices: Voices) -> Note | None:
        return voices.bass or (voices.tune if voices.tune and voices.tune.string >= low else None)

    return _line(part, _BASS_OF, lowest, lambda bar: bar)


def _line(
    part: Part,
    as_role: dict[Role, Role],
    choose: Callable[[Voices], Note | None],
    of: Callable[[Bar], Bar],
) -> Bars:
    bars = []
    held: Note | None = None
    for bar, role in zip(part.bars, roles_of(part), strict=True):
        own, events = of(bar), []
        for event, voices in zip(own.events, traced(part, own, as_role.get(role, role)), strict=True):
            note = choose(voices) or _held_on(event, held)
            events.append(with_notes(event, [without(note, {Technique.SLAP})] if note else []))
            held = note
        bars.append(joined(events))
    return tuple(bars)


def _held_on(event: Event, held: Note | None) -> Note | None:
    """The note of a line that is held into an event in which the line strikes nothing."""
    place = (held.string, held.fret) if held else None
    return next((note for note in event.notes if note.tied and (note.string, note.fret) == place), None)


def without_drone(bar: Bar) -> Bar:
    """The bar without the open string that is struck again and again beside what moves on others."""
    struck = [event for event in bar.events if event.struck]
    for string in {note.string for event in struck for note in event.struck if not note.fret}:
        if _drones(struck, string):
            events = (
                with_notes(event, [note for note in event.notes if note.string != string])
                for event in bar.events
            )
            return replace(bar, events=tuple(events))
    return bar


def _drones(struck: Sequence[Event], string: int) -> bool:
    """Whether a string is only struck open, often, and either together with what moves or alternating with
    it."""
    own = [[note for note in event.struck if note.string == string] for event in struck]
    rest = [[note for note in event.struck if note.string != string] for event in struck]
    strikes = sum(map(bool, own))
    moving = len({(note.string, note.fret) for notes in rest for note in notes}) > 1
    if strikes < _DRONES or not moving or any(note.fret for notes in own for note in notes):
        return False
    if all(beside for notes, beside in zip(own, rest, strict=True) if notes):
        return all(len(beside) == 1 for notes, beside in zip(own, rest, strict=True) if notes)
    alternating = not any(a and b for a, b in pairwise(own))
    return alternating and strikes >= _ALTERNATING * len(struck) and not any(map(_both, own, rest))


def _both(notes: Sequence[Note], beside: Sequence[Note]) -> bool:
    return bool(notes and beside)


def joined(events: Iterable[Event]) -> tuple[Event, ...]:
    """What falls silent between two notes belongs to the note before; a rest stays one at the bar's start."""
    found: list[Event] = []
    for event in events:
        if found and not event.notes and not event.remark and not event.chord:
            found[-1] = replace(found[-1], quarters=found[-1].quarters + event.quarters)
        else:
            found.append(event)
    return tuple(found)
