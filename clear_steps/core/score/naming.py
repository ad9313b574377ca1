"""What the teacher says that the hand holds: a name over an event, or that from there on nothing is held."""

import re
from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.song import Part

NOT_HELD = "N.C."  # as a chord's name: no grip is held until the next name (common practice, no source)
_A_NAME = re.compile(r"[^\s|]{0,16}")


def with_chord(part: Part, bar: int, event: int, name: str) -> Part:
    """The part with a chord's name over one event (bar and event by index), or without one where it is
    empty; raises InvalidValueError."""
    if bar >= len(part.bars) or event >= len(part.bars[bar].events):
        raise InvalidValueError(
            "place", f"bar {bar}, event {event}", "a bar and an event of the part, by index"
        )
    if not _A_NAME.fullmatch(name):
        raise InvalidValueError("chord", name, "a name such as F#m7 or D/F#, up to 16 signs without a space")
    old = part.bars[bar]
    named = replace(old.events[event], chord=name)
    events = (*old.events[:event], named, *old.events[event + 1 :])
    return replace(part, bars=(*part.bars[:bar], replace(old, events=events), *part.bars[bar + 1 :]))
