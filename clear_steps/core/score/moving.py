"""Music moved along the neck."""

from collections.abc import Sequence
from dataclasses import replace

from clear_steps.core.score.song import MAX_FRET, Event


def moved_events(events: Sequence[Event], frets: int) -> tuple[Event, ...] | None:
    """Events moved along the neck; open strings and dead notes stay. None where a note has no fret there."""
    if not frets:
        return tuple(events)
    moved = [_moved(event, frets) for event in events]
    return None if None in moved else tuple(filter(None, moved))


def _moved(event: Event, frets: int) -> Event | None:
    position = None if event.position is None else event.position + frets
    stopped = [note.fret + frets for note in event.notes if note.fret and not note.dead]
    if (position is not None and position < 1) or any(not 0 < fret <= MAX_FRET for fret in stopped):
        return None
    notes = [
        replace(note, fret=note.fret + frets) if note.fret and not note.dead else note for note in event.notes
    ]
    return replace(event, notes=tuple(notes), position=position)
