"""One strum all through: bars of chords that had one rhythm keep one, where the target allows; a hand that strums does not change its pattern bar by bar."""

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from fractions import Fraction

from clear_steps.core.easier.kinds import KINDS
from clear_steps.core.easier.proposals import Proposals
from clear_steps.core.easier.writing import Writing
from clear_steps.core.score import Bar, Part

_KIND, _BREATH = "rhythm", "breath"
_FEWEST_STRINGS = 3  # on average, for a bar to be strummed
_DEAREST = 8.0  # points of what is kept that one strum may cost
_Rhythm = tuple[tuple[Fraction, bool], ...]


def strummed_alike(writing: Writing, proposals: Proposals, is_reached: Callable[[Part], bool]) -> frozenset[int]:
    """Give bars of one strum the same one again, the one that keeps most; the ids of the edits that do so."""
    holding: set[int] = set()
    for recurring in _of_one_strum(writing.original):
        # The last strum left out before a hard change is what hands do anyway.
        shortened = {index for edit in writing.edits if edit.kind == _BREATH for index in edit.bars}
        bars = [index for index in recurring if index not in shortened]
        rhythms = Counter(_rhythm(writing.version.bars[index]) for index in bars)
        if len(rhythms) < 2:
            continue
        tried = [made for rhythm in rhythms if (made := _all_with(writing, rhythm, bars, proposals))]
        worth = [made for made in sorted(tried, key=lambda made: -made.kept) if made.kept >= writing.kept - _DEAREST]
        if found := next((made for made in worth if is_reached(made.version)), None):
            writing.take_over(found)
            holding |= {edit.id for edit in found.edits if edit.kind == _KIND and set(edit.bars) <= set(bars)}
    return frozenset(holding)


def _all_with(writing: Writing, rhythm: _Rhythm, bars: Sequence[int], proposals: Proposals) -> Writing | None:
    """Every bar with a rhythm: without what thinned it to another, then thinned to this one; None where one cannot have it."""
    made = writing.fork(writing.edits, writing.version)
    model = next(index for index in bars if _rhythm(writing.version.bars[index]) == rhythm)
    for index in (index for index in bars if _rhythm(made.version.bars[index]) != rhythm):
        thinned = [edit for edit in made.edits if edit.kind == _KIND and edit.bars == (index,) and edit.id not in made.settled]
        made.edits, made.version = made.without(thinned, proposals)
        if _rhythm(made.version.bars[index]) != rhythm and not _thin(made, index, rhythm, model, proposals):
            return None
    return made


def _thin(made: Writing, index: int, rhythm: _Rhythm, model: int, proposals: Proposals) -> bool:
    number, like = made.original.bar_number(index), made.original.bar_number(model)
    for proposed in proposals.of_kind(KINDS[_KIND], made.version, index):
        if _rhythm(proposed.version.bars[index]) == rhythm:
            made.take(_KIND, proposed.changes, f"Bar {number}: one strum all through.", lambda _: f"bar {number}: strummed as bar {like} now is")
            made.version = proposed.version
            return True
    return False


def _rhythm(bar: Bar) -> _Rhythm:
    return tuple((event.quarters, bool(event.notes)) for event in bar.events)


def _of_one_strum(part: Part) -> Iterator[list[int]]:
    """Bars (indexes) of chords that share a rhythm, where there are several."""
    groups: dict[_Rhythm, list[int]] = {}
    for index, bar in enumerate(part.bars):
        struck = [len(event.struck) for event in bar.events if event.struck]
        if len(struck) > 1 and sum(struck) >= _FEWEST_STRINGS * len(struck):
            groups.setdefault(_rhythm(bar), []).append(index)
    yield from (group for group in groups.values() if len(group) > 1)
