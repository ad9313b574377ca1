"""What the teacher says that the hand holds: a name over an event, or that from there on nothing is held."""

import re
from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.events import event_at, with_event
from clear_steps.core.score.song import Part

NOT_HELD = "N.C."  # as a chord's name: no grip is held until the next name (common practice, no source)
_A_NAME = re.compile(r"[^\s|]{0,16}")


def with_chord(part: Part, bar: int, event: int, name: str) -> Part:
    """The part with a chord's name over one event (bar and event by index), or without one where it is
    empty; raises InvalidValueError."""
    written = event_at(part, bar, event)
    if not _A_NAME.fullmatch(name):
        raise InvalidValueError("chord", name, "a name such as F#m7 or D/F#, up to 16 signs without a space")
    return with_event(part, bar, event, replace(written, chord=name))
