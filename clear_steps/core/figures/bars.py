"""Bars and notes that belong to figures: what is learnt once, and what may be changed alike."""

from collections.abc import Iterable, Iterator
from dataclasses import replace

from clear_steps.core.figures.likeness import As
from clear_steps.core.figures.told import ComingBack, Place
from clear_steps.core.score import Bar, Part
from clear_steps.core.score.moving import moved_events

Moment = tuple[int, int]  # bar and event, both counted from 0


def moments_of_figures(part: Part, found: ComingBack) -> frozenset[Moment]:
    """What is struck in any place of a figure that has more than its rhythm in common."""
    rows = ([place for place in figure.places if place.how is not As.RHYTHM] for figure in found.figures)
    return frozenset(_moments(part, (place for places in rows if len(places) > 1 for place in places)))


def bars_known_before(part: Part, found: ComingBack) -> frozenset[int]:
    """Bars (indexes) in which all that is struck came before, the same or moved."""
    later = (place for figure in found.figures for place in figure.later if place.how is not As.RHYTHM)
    known = set(_moments(part, later))
    return frozenset(
        index
        for index, bar in enumerate(part.bars)
        if not bar.silent
        and all((index, number) in known for number, event in enumerate(bar.events) if event.struck)
    )


def bars_of_one_shape(part: Part, found: ComingBack) -> dict[int, tuple[int, int]]:
    """For every bar (index) the first that it is, and by how many frets moved: itself where there is none.

    Bars that are written the very same, and those that figures say are another moved along the neck.
    """
    written: dict[Bar, int] = {}
    moved = _moved_bars(part, found)
    firsts: dict[int, tuple[int, int]] = {}
    for index, bar in enumerate(part.bars):
        same = written.setdefault(_plain(bar), index)
        like, by = (same, 0) if same != index else moved.get(index, (index, 0))
        first, before = firsts.get(like, (like, 0))
        firsts[index] = (first, before + by)
    return firsts


def _moved_bars(part: Part, found: ComingBack) -> dict[int, tuple[int, int]]:
    """Bars in places of figures that are, note for note, earlier bars so many frets higher."""
    moved: dict[int, tuple[int, int]] = {}
    for figure in found.figures:
        for place in figure.later:
            apart = place.first.bar - figure.first.first.bar
            if place.how is not As.MOVED or apart < 1:
                continue
            for index in range(place.first.bar, place.last.bar + 1):
                earlier, own = part.bars[index - apart], part.bars[index]
                if own.metre == earlier.metre and own.events == moved_events(earlier.events, place.by):
                    moved.setdefault(index, (index - apart, place.by))
    return moved


def _plain(bar: Bar) -> Bar:
    return replace(bar, repeat_start=False, repeat_times=0, endings=(), double_bar=False)


def _moments(part: Part, places: Iterable[Place]) -> Iterator[Moment]:
    for place in places:
        for index in range(place.first.bar, place.last.bar + 1):
            bar = part.bars[index]
            for number, onset in enumerate(bar.onsets):
                after = index > place.first.bar or onset >= place.first.onset
                if after and (index < place.last.bar or onset <= place.last.onset):
                    yield index, number
