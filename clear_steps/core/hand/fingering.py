"""Fingers part after part on the same tables; what a bar asks and how it is fingered is looked up where it
was met before.

The path runs in the order played. Each visit to a bar is a leg of it, and depends on the bar, the time into
it and the cost of each grip it is entered with, taken from the cheapest of them on: so after a change in one
bar the legs before it stand, and those after it stand again as soon as the costs of entering one are what
they were. A bar that is met again keeps one fingering: the path runs free first, and once more with what
returns settled.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field

from clear_steps.core.hand.book import DemandsBook
from clear_steps.core.hand.costs import Costs, HandTables
from clear_steps.core.hand.demands import BarDemands, Shape
from clear_steps.core.hand.grips import Grip, GripTable
from clear_steps.core.hand.path import Choices, Entry, Layer, Rows, trace, walk
from clear_steps.core.hand.returns import Settled, Visit, settled_returns
from clear_steps.core.score import Part, Route
from clear_steps.core.score.timing import BarTime

Grips = tuple[Grip, ...]


@dataclass(frozen=True, slots=True)
class Fingered:
    """What every bar asks, the grips of every bar by hand, one a demand, and the route they are for."""

    bars: tuple[BarDemands, ...]
    hands: tuple[tuple[Grips, ...], ...]
    route: Route


@dataclass(frozen=True)
class _Leg:
    shape: Shape  # the last
    tables: tuple[GripTable, ...]  # one a layer
    costs: Costs  # of leaving in each grip, (hand, row), from the cheapest on
    choices: Choices
    traced: dict[tuple[int, int], tuple[int, Rows, Grips]] = field(default_factory=dict)


_Traced = list[tuple[Rows, Grips]]
"""Of every visit of a run."""


def gaps_of(bars: Sequence[BarDemands], times: Sequence[BarTime]) -> tuple[float, ...]:
    """Seconds from the demand before into each bar's first one, of bars one after the other; 0 where there
    is none."""
    gaps, waited = [], None
    for bar, time in zip(bars, times, strict=True):
        first = bar.demands[0].onset_quarters * time.quarter_seconds if bar.demands else time.seconds
        gaps.append(round(waited + first, 9) if bar.demands and waited is not None else 0.0)
        if bar.demands:
            waited = time.seconds - bar.demands[-1].onset_quarters * time.quarter_seconds
        elif waited is not None:
            waited += time.seconds
    return tuple(gaps)


def layers_of(bar: BarDemands, gap: float, quarter_seconds: float) -> tuple[Layer, ...]:
    """A bar's demands as layers of the path."""
    seconds = [
        gap,
        *(
            round((b.onset_quarters - a.onset_quarters) * quarter_seconds, 9)
            for a, b in zip(bar.demands, bar.demands[1:], strict=False)
        ),
    ]
    return tuple(
        Layer(demand.shape, demand.links, time) for demand, time in zip(bar.demands, seconds, strict=False)
    )


def layers_of_part(part: Part, times: Sequence[BarTime]) -> tuple[Layer, ...]:
    """Every demand of a part as a layer, in written order."""
    bars = DemandsBook().of(part, Route(tuple(range(len(part.bars))), ()))
    return tuple(
        layer
        for bar, gap, time in zip(bars, gaps_of(bars, times), times, strict=True)
        for layer in layers_of(bar, gap, time.quarter_seconds)
    )


class Fingerer:
    """Fingers parts for one instrument; pure in what it gives, it only remembers."""

    def __init__(self, tables: HandTables) -> None:
        self._tables = tables
        self._book = DemandsBook()
        self._legs: dict[tuple[object, ...], _Leg] = {}
        self._layers: dict[tuple[int, float, float], tuple[Layer, ...]] = {}
        self._same_grips: dict[tuple[int, ...], Grips] = {}  # hands that finger alike share one object

    def fingered(self, part: Part, times: Sequence[BarTime], route: Route) -> Fingered:
        """The cheapest path through a part for every hand of the tables."""
        bars = self._book.of(part, route)
        runs = [self._visits(bars, times, run) for run in route.shortened.runs]
        traced = [self._run(run, (None,) * len(run)) for run in runs]
        settled = settled_returns(runs, [_rows(hands) for hands in traced], self._tables)
        if settled:
            traced = [self._run(run, [settled.get(visit.bar) for visit in run]) for run in runs]
        hands = tuple(_by_bar(runs, traced, hand, len(bars)) for hand in range(self._tables.hands))
        return Fingered(bars, hands, route)

    def _visits(
        self, bars: Sequence[BarDemands], times: Sequence[BarTime], run: Sequence[int]
    ) -> list[Visit]:
        asked, taken = [bars[index] for index in run], [times[index] for index in run]
        rows = zip(run, asked, taken, gaps_of(asked, taken), strict=True)
        return [
            Visit(index, bar, self._layers_of(bar, gap, time.quarter_seconds))
            for index, bar, time, gap in rows
        ]

    def _layers_of(self, bar: BarDemands, gap: float, quarter_seconds: float) -> tuple[Layer, ...]:
        key = (id(bar), gap, quarter_seconds)
        if key not in self._layers:
            self._layers[key] = layers_of(bar, gap, quarter_seconds)
        return self._layers[key]

    def _run(self, visits: Sequence[Visit], settled: Sequence[Settled | None]) -> list[_Traced]:
        """By hand what the cheapest path through a run has at every visit."""
        legs: list[_Leg | None] = []
        entry: Entry | None = None
        for visit, own in zip(visits, settled, strict=True):
            leg = self._leg(visit.layers, entry, own) if visit.layers else None
            entry = Entry(leg.shape, leg.costs) if leg else entry
            legs.append(leg)
        return [self._traced(legs, hand) for hand in range(self._tables.hands)]

    def _leg(self, layers: tuple[Layer, ...], entry: Entry | None, settled: Settled | None) -> _Leg:
        key = (id(layers), settled, entry and (entry.shape, entry.costs.tobytes()))
        if key not in self._legs:
            costs, choices = walk(layers, self._tables, entry, settled)
            tables = tuple(self._tables.table(layer.shape) for layer in layers)
            least = costs.min(axis=1, keepdims=True)
            self._legs[key] = _Leg(layers[-1].shape, tables, costs - least, choices)
        return self._legs[key]

    def _traced(self, legs: Sequence[_Leg | None], hand: int) -> _Traced:
        last = next((leg for leg in reversed(legs) if leg), None)
        row = int(last.costs[hand].argmin()) if last else 0
        found: _Traced = []
        for leg in reversed(legs):
            if leg is None:
                found.append(((), ()))
                continue
            row, rows, grips = self._back(leg, hand, row)
            found.append((rows, grips))
        found.reverse()
        return found

    def _back(self, leg: _Leg, hand: int, row: int) -> tuple[int, Rows, Grips]:
        """The row the leg was entered from, its rows and its grips."""
        if (hand, row) not in leg.traced:
            rows = trace(leg.choices, hand, row)
            own = tuple(rows[len(rows) - len(leg.tables) :])
            grips = tuple(table.grips[at] for table, at in zip(leg.tables, own, strict=True))
            same = self._same_grips.setdefault(tuple(map(id, grips)), grips)
            leg.traced[hand, row] = (rows[0], own, same)
        return leg.traced[hand, row]


def _rows(hands: Sequence[_Traced]) -> list[list[Rows]]:
    return [[rows for rows, _ in traced] for traced in hands]


def _by_bar(
    runs: Sequence[Sequence[Visit]], traced: Sequence[Sequence[_Traced]], hand: int, bars: int
) -> tuple[Grips, ...]:
    """The grips of every written bar, as at its first visit; at all others they are the same."""
    found: dict[int, Grips] = {}
    for run, hands in zip(runs, traced, strict=True):
        for visit, (_, grips) in zip(run, hands[hand], strict=True):
            found.setdefault(visit.bar, grips)
    return tuple(found[index] for index in range(bars))
