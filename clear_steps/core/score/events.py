"""One event of a part, by the indexes of its bar and of itself."""

from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.song import Event, Part


def event_at(part: Part, bar: int, event: int) -> Event:
    """Raises InvalidValueError where there is none."""
    if bar >= len(part.bars) or event >= len(part.bars[bar].events):
        raise InvalidValueError(
            "place", f"bar {bar}, event {event}", "a bar and an event of the part, by index"
        )
    return part.bars[bar].events[event]


def with_event(part: Part, bar: int, event: int, made: Event) -> Part:
    """The part with another event in its place."""
    old = part.bars[bar]
    events = (*old.events[:event], made, *old.events[event + 1 :])
    return replace(part, bars=(*part.bars[:bar], replace(old, events=events), *part.bars[bar + 1 :]))
