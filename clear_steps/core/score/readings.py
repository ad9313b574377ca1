"""Alternative readings of a bar: every performance differs, both are kept, one is in use."""

from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.song import BarReading, Part

FIRST_NAME = "as first written"


def reading_in_use(part: Part, bar: int) -> str:
    """The name of the reading that stands in the part; empty where a bar has only one."""
    named = [reading.name for reading in part.readings if reading.bar == bar and reading.content is None]
    return named[0] if named else FIRST_NAME if any(reading.bar == bar for reading in part.readings) else ""


def with_reading(part: Part, bar: int, name: str) -> Part:
    """Begin another reading of a bar (index): it stands in the part from now on, the one so far is kept
    aside.

    Raises InvalidValueError for a bar that is not there, or a name that is empty or taken.
    """
    name = " ".join(name.split())
    if not 0 <= bar < len(part.bars):
        raise InvalidValueError("bar", bar, f"0 to {len(part.bars) - 1}")
    used = reading_in_use(part, bar) or FIRST_NAME
    if (
        not name
        or len(name) > 60
        or name in {used, *(reading.name for reading in part.readings if reading.bar == bar)}
    ):
        raise InvalidValueError(
            "name of the reading", name, "1 to 60 letters that no other reading of this bar has"
        )
    others = tuple(reading for reading in part.readings if (reading.bar, reading.name) != (bar, used))
    return replace(
        part, readings=_sorted((*others, BarReading(bar, used, part.bars[bar]), BarReading(bar, name, None)))
    )


def with_reading_in_use(part: Part, bar: int, name: str) -> Part:
    """Put a kept reading in the bar's place; the one so far is kept aside. Raises InvalidValueError."""
    wanted = next(
        (
            reading
            for reading in part.readings
            if (reading.bar, reading.name) == (bar, name) and reading.content
        ),
        None,
    )
    if wanted is None or wanted.content is None:
        raise InvalidValueError("reading", name, f"a reading kept of bar {part.bar_number(bar)}")
    used = reading_in_use(part, bar)
    others = tuple(
        reading for reading in part.readings if not (reading.bar == bar and reading.name in (name, used))
    )
    bars = (*part.bars[:bar], wanted.content, *part.bars[bar + 1 :])
    return replace(
        part,
        bars=bars,
        readings=_sorted((*others, BarReading(bar, used, part.bars[bar]), BarReading(bar, name, None))),
    )


def _sorted(readings: tuple[BarReading, ...]) -> tuple[BarReading, ...]:
    return tuple(sorted(readings, key=lambda reading: reading.bar))
