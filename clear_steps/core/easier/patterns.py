"""One pattern all through: bars that were strummed or picked alike stay so, where the target allows; a hand
does not change its pattern bar by bar."""

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from fractions import Fraction

from clear_steps.core.easier.kinds.rhythm import thinned_to
from clear_steps.core.easier.proposals import Proposals
from clear_steps.core.easier.writing import Writing
from clear_steps.core.score import Bar, Part

_KIND, _BREATH = "rhythm", "breath"
_FEWEST_STRINGS = (
    3  # struck at once, on average, for a bar to be strummed; or in all, for it to be picked in a pattern
)
_DEAREST = 8.0  # points of what is kept that one pattern may cost
_Rhythm = tuple[tuple[Fraction, bool], ...]
Reach = Callable[[Writing, Sequence[int]], bool]
"""Whether a writing meets the target, at need lowered further, with the rhythm of some bars kept."""


def with_one_pattern(writing: Writing, proposals: Proposals, reach: Reach) -> frozenset[int]:
    """Give bars of one pattern the same rhythm again, the one that keeps most; the ids of the edits that do
    so.

    `reach` says whether such a writing, with these bars alike, meets the target; it may lower it further
    for that.
    """
    holding: set[int] = set()
    for recurring in _of_one_pattern(writing.original):
        # The last strum or note left out before a hard change is what hands do anyway.
        shortened = {index for edit in writing.edits if edit.kind == _BREATH for index in edit.bars}
        bars = [index for index in recurring if index not in shortened]
        rhythms = Counter(rhythm_of(writing.version.bars[index]) for index in bars)
        if len(rhythms) < 2:
            continue
        tried = [made for rhythm in rhythms if (made := _all_with(writing, rhythm, bars, proposals))]
        worth = [
            made
            for made in sorted(tried, key=lambda made: -made.kept)
            if made.kept >= writing.kept - _DEAREST
        ]
        reaching = (made for made in worth if reach(made, bars))
        if found := next(
            (made for made in reaching if made.kept >= writing.kept - _DEAREST), None
        ):  # what lowered it further costs too
            writing.become(found)
            holding |= {edit.id for edit in found.edits if edit.kind == _KIND and set(edit.bars) <= set(bars)}
    return frozenset(holding)


def _all_with(writing: Writing, rhythm: _Rhythm, bars: Sequence[int], proposals: Proposals) -> Writing | None:
    """Every bar with a rhythm: without what thinned it to another, or without all that was done to it, then
    thinned to this one; None where one cannot have it."""
    made = writing.fork(writing.edits, writing.version)
    model = next(index for index in bars if rhythm_of(writing.version.bars[index]) == rhythm)
    for index in (index for index in bars if rhythm_of(made.version.bars[index]) != rhythm):
        own = [edit for edit in made.edits if edit.bars == (index,) and edit.id not in made.settled]
        for undone in ([edit for edit in own if edit.kind == _KIND], own):
            begun = made.fork(*made.without(undone, proposals))
            same = rhythm_of(begun.version.bars[index]) == rhythm
            if same or _thin(begun, index, rhythm, model, proposals):
                made.become(begun)
                break
        else:
            return None
    return made


def _thin(made: Writing, index: int, rhythm: _Rhythm, model: int, proposals: Proposals) -> bool:
    number, like = made.original.bar_number(index), made.original.bar_number(model)
    pattern = made.version.bars[model]
    onsets = [onset for onset, event in zip(pattern.onsets, pattern.events, strict=True) if event.notes]
    for changes in thinned_to(made.version, index, onsets):
        version = proposals.made(made.version, changes, index)
        if version and rhythm_of(version.bars[index]) == rhythm:
            made.take(
                _KIND,
                changes,
                f"Bar {number}: one pattern all through.",
                lambda _: f"bar {number}: the pattern of bar {like} now",
            )
            made.version = version
            return True
    return False


def rhythm_of(bar: Bar) -> _Rhythm:
    """Lengths of a bar's events, and which of them sound."""
    return tuple((event.quarters, bool(event.notes)) for event in bar.events)


def _of_one_pattern(part: Part) -> Iterator[list[int]]:
    """Bars (indexes) strummed or picked alike, where there are several."""
    groups: dict[object, list[int]] = {}
    for index, bar in enumerate(part.bars):
        if pattern := _pattern(bar):
            groups.setdefault(pattern, []).append(index)
    yield from (group for group in groups.values() if len(group) > 1)


def bars_of_one_pattern(part: Part) -> frozenset[int]:
    """Indexes of the bars that are strummed or picked like another."""
    return frozenset(index for bars in _of_one_pattern(part) for index in bars)


def _pattern(bar: Bar) -> object:
    """The rhythm of strummed chords; of what is picked the fingers that pick too, or else the strings; none
    of a bar with little in it."""
    strings = [tuple(note.string for note in event.struck) for event in bar.events if event.struck]
    if len(strings) < 2:
        return None
    if sum(map(len, strings)) >= _FEWEST_STRINGS * len(strings):
        return rhythm_of(bar)
    if len(set().union(*strings)) < _FEWEST_STRINGS:
        return None
    fingers = [tuple(note.picking for note in event.struck) for event in bar.events if event.struck]
    return (rhythm_of(bar), *(fingers if all(map(all, fingers)) else strings))
