"""Voices: strings that sing or walk on their own under or over the others."""

from collections import Counter
from itertools import chain, pairwise

from clear_steps.core.figures.choosing import Coming, coming
from clear_steps.core.figures.columns import Stream

_AT_ONCE = 3  # columns, at the least, in which both voices are struck
_AT_ONCE_SHARE = 0.15
_STRUMMED, _STRUMMED_SHARE = 3, 0.25  # notes of a voice at once, in so many of its columns
_COLUMNS, _SPOTS = 4, 3  # of a figure


def voices(stream: Stream) -> list[tuple[int, ...]]:
    """The strings of the voices there may be: those above and those below the string over which most is
    struck at once; none that is strummed."""
    used = sorted({string for column in stream.columns for string in column.strings})
    together = Counter(chain.from_iterable(pairwise(column.strings) for column in stream.columns))
    splits = [(used[:number], used[number:]) for number in range(1, len(used))]
    counts = [sum(together[a, b] for a in upper for b in lower) for upper, lower in splits]
    most = max(counts, default=0)
    if most < max(_AT_ONCE, _AT_ONCE_SHARE * len(stream.columns)):
        return []
    return [tuple(row) for row in splits[counts.index(most)] if not _is_strummed(stream, {*row})]


def _is_strummed(stream: Stream, strings: set[int]) -> bool:
    sizes = [size for column in stream.columns if (size := len({*column.strings} & strings))]
    return sum(size >= _STRUMMED for size in sizes) > _STRUMMED_SHARE * len(sizes)


def heard_by_itself(voice: Stream, row: Coming) -> Coming | None:
    """What is the same all through, as far as there is enough in it to be heard by itself."""
    own = voice.columns[row.stretch.first : row.stretch.last + 1]
    same = [place for place in row.places if not place.likeness.other]
    if not same or len(own) < _COLUMNS or len({column.spots for column in own}) < _SPOTS:
        return None
    return coming(voice, row.stretch, same)
