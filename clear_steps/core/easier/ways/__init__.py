"""Ways down, by role: what a teacher would choose from, in the order in which it is done."""

from collections.abc import Callable, Mapping, Sequence
from fractions import Fraction

from clear_steps.core.easier.penalties import Edge, edges_of
from clear_steps.core.easier.wanted import WantedBar
from clear_steps.core.easier.ways.basses import fewer_basses
from clear_steps.core.easier.ways.fewer import fewer_notes
from clear_steps.core.easier.ways.picking import fewer_voices, slower_pattern, struck_as_one
from clear_steps.core.easier.ways.places import elsewhere
from clear_steps.core.easier.ways.plainer import bends, hammered_and_picked, ornaments, unsaid, unusual
from clear_steps.core.easier.ways.pushes import pushes
from clear_steps.core.easier.ways.roots import thinner_riff, thinner_texture
from clear_steps.core.easier.ways.scene import Choice, Option, Scene, Scope
from clear_steps.core.easier.ways.shapes import shapes
from clear_steps.core.easier.ways.strum_patterns import patterns
from clear_steps.core.grade import Ladder
from clear_steps.core.score import Part, Role

Edges = frozenset[tuple[int, Fraction]]
"""Bars (indexes) and onsets of the last and highest notes of phrases."""

_CHOICES: Mapping[Role, Callable[[Ladder, Edges], Sequence[Choice]]] = {
    Role.STRUM: lambda ladder, *_: (pushes(), shapes(), *unsaid(), ornaments(), patterns(ladder)),
    Role.RIFF: lambda *_: (
        elsewhere(),
        unusual(),
        bends(),
        *unsaid(),
        ornaments(),
        hammered_and_picked(),
        thinner_texture(),
        thinner_riff(),
    ),
    Role.PICKED: lambda *_: (
        elsewhere(),
        unusual(),
        *unsaid(),
        ornaments(),
        struck_as_one(),
        fewer_voices(),
        slower_pattern(),
    ),
    Role.LINE: lambda _, edges: (
        elsewhere(),
        unusual(),
        bends(),
        *unsaid(),
        ornaments(),
        hammered_and_picked(),
        fewer_notes(edges),
    ),
    Role.CHORD_MELODY: lambda *_: (
        elsewhere(),
        unusual(),
        bends(),
        *unsaid(),
        ornaments(),
        fewer_voices(),
        slower_pattern(),
    ),
    Role.BASS: lambda *_: (
        elsewhere(),
        unusual(),
        bends(),
        *unsaid(),
        ornaments(),
        hammered_and_picked(),
        fewer_basses(),
    ),
}


def choices_of(original: Part, wanted: Sequence[WantedBar], ladder: Ladder) -> dict[Role, tuple[Choice, ...]]:
    """For every role the choices there are, in the order in which they are made."""
    edges = _in_equal_bars(original, list(edges_of(original, [row.role for row in wanted])))
    return {role: tuple(of(ladder, edges)) for role, of in _CHOICES.items()}


def _in_equal_bars(original: Part, edges: Sequence[Edge]) -> Edges:
    """What ends a phrase in one bar stays in all that are written the same."""
    marked = {(original.bars[edge.bar].events, edge.onset) for edge in edges}
    return frozenset(
        (index, onset)
        for index, bar in enumerate(original.bars)
        for onset in bar.onsets
        if (bar.events, onset) in marked
    )


__all__ = ["Choice", "Option", "Scene", "Scope", "choices_of"]
