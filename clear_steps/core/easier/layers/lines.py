"""One line of the music alone: the melody, the bass."""

from collections.abc import Callable, Iterable
from dataclasses import replace

from clear_steps.core.easier.kinds.bars import with_notes
from clear_steps.core.score import Bar, Event, Note, Part, Song
from clear_steps.core.score.ringing import Texture, bass_from, hearing_of, ringing_in

_MOST_VOICES = 3  # more notes at once are a chord

Bars = tuple[tuple[Event, ...], ...]
"""The events of every bar of a part, written anew."""


def melody(_song: Song, part: Part) -> Bars:
    """The top voice alone; where a bass moves under it, the bass strings are left out, else a line keeps all
    its strings."""
    return _line(part, lambda bar, event: _top(part, event, _has_two_voices(part, bar)))


def bass(_song: Song, part: Part) -> Bars:
    """The lowest note on the lower half of the strings alone."""
    return _line(part, lambda _, event: _lowest(part, event))


def _line(part: Part, choose: Callable[[Bar, Event], list[Note]]) -> Bars:
    return tuple(joined(with_notes(event, choose(bar, event)) for event in bar.events) for bar in part.bars)


def _has_two_voices(part: Part, bar: Bar) -> bool:
    """A bass that rings under an upper voice, or is struck together with one some strings away."""
    low = bass_from(part.tuning.strings)
    together = any(
        any(
            note.string >= low > other.string and note.string - other.string >= 2
            for note in event.notes
            for other in event.notes
        )
        and len(event.notes) <= _MOST_VOICES
        for event in bar.events
    )
    return together or any(Texture.BASS in row.guessed for row in ringing_in(bar, hearing_of(part)))


def _top(part: Part, event: Event, upper: bool) -> list[Note]:
    low = bass_from(part.tuning.strings)
    notes = [note for note in event.notes if not note.dead and (not upper or note.string < low)]
    return [max(notes, key=part.pitch_of)] if notes else []


def _lowest(part: Part, event: Event) -> list[Note]:
    low = bass_from(part.tuning.strings)
    notes = [note for note in event.notes if note.string >= low and not note.dead]
    return [min(notes, key=part.pitch_of)] if notes else []


def joined(events: Iterable[Event]) -> tuple[Event, ...]:
    """What falls silent between two notes belongs to the note before; a rest stays one at the bar's start."""
    found: list[Event] = []
    for event in events:
        if found and not event.notes and not event.remark and not event.chord:
            found[-1] = replace(found[-1], quarters=found[-1].quarters + event.quarters)
        else:
            found.append(event)
    return tuple(found)
