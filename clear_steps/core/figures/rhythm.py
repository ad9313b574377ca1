"""Bars struck alike: one strum or one way of picking on other notes."""

from collections import defaultdict

from clear_steps.core.figures.columns import Column, Stream
from clear_steps.core.figures.finding import Found
from clear_steps.core.figures.likeness import As, Likeness
from clear_steps.core.figures.stretches import Stretch, bars

_LOW = 4  # strings from here on are the thumb's (common practice, no source)
_CHORD = 3
_STRUMS, _PICKED, _PICKED_STRINGS = 3, 4, 3


def bars_of_one_rhythm(stream: Stream) -> list[list[Stretch]]:
    """Bars that are strummed or picked in one pattern, where there are several."""
    groups: dict[object, list[Stretch]] = defaultdict(list)
    for stretch in bars(stream):
        columns = stream.columns[stretch.first : stretch.last + 1]
        if key := _pattern(columns):
            groups[(columns[0].onset, stretch.length, key)].append(stretch)
    return [group for group in groups.values() if len(group) > 1]


def _pattern(columns: tuple[Column, ...]) -> object:
    start = columns[0].at
    ats = tuple([column.at - start for column in columns])
    sizes = [len(column.strings) for column in columns]
    if min(sizes) >= _CHORD - 1 and max(sizes) >= _CHORD:
        return (ats, "strummed") if len(columns) >= _STRUMS else None
    if max(sizes) >= 2:  # a bass and chords over it
        places = tuple([_touch(column) for column in columns])
        enough = len(columns) >= (_STRUMS if max(sizes) >= _CHORD else _PICKED)
        return (ats, places) if enough and len(set(places)) > 1 else None
    strings = tuple([_touch(column) for column in columns])
    if len(columns) >= _PICKED and len(set(strings)) >= _PICKED_STRINGS:
        return (ats, strings)
    return None


def _touch(column: Column) -> object:
    """Which fingers it takes: low strings are the thumb's, all chords are one."""
    if len(column.strings) > 1:
        return "chord" if max(column.strings) < _LOW else "bass and chord"
    return "thumb" if column.strings[0] >= _LOW else column.strings[0]


def of_one_rhythm(bar: Stretch) -> Found:
    """A bar as a place of another of its rhythm."""
    return Found(bar.first, Likeness(As.RHYTHM, 0, bar.columns, bar.columns, 0, bar.length))
