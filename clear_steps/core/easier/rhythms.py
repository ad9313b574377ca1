"""Rhythms of bars, and the bars that share one: what has one pattern keeps one."""

from collections import defaultdict
from collections.abc import Sequence
from fractions import Fraction

from clear_steps.core.score import Bar, Part, Role

Rhythm = tuple[tuple[Fraction, bool], ...]
_LEAST = 2  # onsets of a pattern


PATTERNED = frozenset({Role.STRUM, Role.RIFF, Role.PICKED})  # their bars share a rhythm, or lose it


def rhythm_of(bar: Bar) -> Rhythm:
    """Lengths of a bar's events, and which of them are struck; what is held on belongs to the note before."""
    rows: list[tuple[Fraction, bool]] = []
    for event in bar.events:
        struck = bool(event.struck)
        if rows and not struck and (event.notes or not rows[-1][1]):
            rows[-1] = (rows[-1][0] + event.quarters, rows[-1][1])
        else:
            rows.append((event.quarters, struck))
    return tuple(rows)


def bars_of_one_rhythm(part: Part, roles: Sequence[Role]) -> list[list[int]]:
    """Bars (indexes) of one role and one rhythm of two strokes or more, where there are several, in the order
    of their first."""
    groups = bars_that_choose_together(part, roles)
    return [
        group
        for group in groups
        if len(group) > 1 and sum(struck for _, struck in rhythm_of(part.bars[group[0]])) >= _LEAST
    ]


def bars_that_choose_together(part: Part, roles: Sequence[Role]) -> list[list[int]]:
    """All bars (indexes) that sound, those of one role, metre and rhythm together, in the order of their
    first."""
    groups: dict[object, list[int]] = defaultdict(list)
    for index, (bar, role) in enumerate(zip(part.bars, roles, strict=True)):
        if not bar.silent:
            groups[role, bar.metre, rhythm_of(bar)].append(index)
    return list(groups.values())
