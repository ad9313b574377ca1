"""How much a note of the tune matters: its place in the bar, its length, where it stands in its phrase,
whether it belongs to a figure that comes back.

All weights from memory.
"""

from fractions import Fraction

from clear_steps.core.figures import coming_back
from clear_steps.core.figures.bars import moments_of_figures
from clear_steps.core.score import Bar, Event, Part

_EDGE = 1.4  # a note that opens or closes a phrase
_MOTIF = 1.15  # a note of a figure that comes back, as it is or moved


def salience_of(part: Part) -> tuple[tuple[float, ...], ...]:
    """The weight of every event of every bar; 0 where nothing is struck."""
    edges, motif = phrase_edges(part), moments_of_figures(part, coming_back(part))
    return tuple(
        tuple(
            _in_the_bar(part.starts_at(index) + onset, event, bar)
            * (_EDGE if (index, number) in edges else 1.0)
            * (_MOTIF if (index, number) in motif else 1.0)
            if event.struck
            else 0.0
            for number, (onset, event) in enumerate(zip(bar.onsets, bar.events, strict=True))
        )
        for index, bar in enumerate(part.bars)
    )


def _in_the_bar(onset: Fraction, event: Event, bar: Bar) -> float:
    """The bar's first onset counts 1, other beats 0.8, halves of a beat 0.5, others 0.3; long notes
    more."""
    place = onset / bar.metre.beat_quarters
    metrical = (
        1.0 if onset == 0 else 0.8 if place.denominator == 1 else 0.5 if place.denominator == 2 else 0.3
    )
    return metrical * (0.5 + 0.5 * min(float(event.quarters), 1.0))


def phrases(part: Part) -> tuple[tuple[tuple[int, int], ...], ...]:
    """The struck notes of every phrase as (bar, event): it ends where a section does, or in a silence of a
    beat or more."""
    starts = {section.first_bar for section in part.sections}
    found: list[list[tuple[int, int]]] = []
    silence = Fraction(0)
    for index, bar in enumerate(part.bars):
        for number, event in enumerate(bar.events):
            if not event.struck:
                silence += Fraction(0) if event.notes else event.quarters
                continue
            crosses = bool(found) and index in starts and found[-1][-1][0] < index
            if not found or silence >= bar.metre.beat_quarters or crosses:
                found.append([])
            found[-1].append((index, number))
            silence = Fraction(0)
    return tuple(map(tuple, found))


def phrase_edges(part: Part) -> frozenset[tuple[int, int]]:
    """(bar, event) of the first and last note of every phrase."""
    return frozenset(edge for phrase in phrases(part) for edge in (phrase[0], phrase[-1]))
