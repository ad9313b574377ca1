"""Fingers part after part on the same tables; what a bar asks and how it is fingered is looked up where it
was met before.

Each bar is a leg of the path. A leg depends on the bar, the time into it and the cost of each grip it
is entered with, taken from the cheapest of them on: so after a change in one bar the legs before it
stand, and those after it stand again as soon as the costs of entering one are what they were.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field

from clear_steps.core.hand.costs import Costs, HandTables
from clear_steps.core.hand.demands import BarDemands, Leaving, Shape, begins_with_pull_off, demands_of_bar
from clear_steps.core.hand.grips import Grip, GripTable
from clear_steps.core.hand.path import Choices, Entry, Layer, trace, walk
from clear_steps.core.score import Bar, Part
from clear_steps.core.score.ringing import Hearing, hearing_of
from clear_steps.core.score.timing import BarTime

Grips = tuple[Grip, ...]


@dataclass(frozen=True, slots=True)
class Fingered:
    """What every bar asks, and for every hand the grips of every bar, one a demand."""

    bars: tuple[BarDemands, ...]
    hands: tuple[tuple[Grips, ...], ...]


@dataclass(frozen=True)
class _Leg:
    shape: Shape  # the last
    tables: tuple[GripTable, ...]  # one a layer
    costs: Costs  # of leaving in each grip, (hand, row), from the cheapest on
    choices: Choices
    traced: dict[tuple[int, int], tuple[int, Grips]] = field(default_factory=dict)


def gaps_of(bars: Sequence[BarDemands], times: Sequence[BarTime]) -> tuple[float, ...]:
    """Seconds from the demand before into each bar's first one; 0 where there is none."""
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
    bars = DemandsBook().of(part)
    return tuple(
        layer
        for bar, gap, time in zip(bars, gaps_of(bars, times), times, strict=True)
        for layer in layers_of(bar, gap, time.quarter_seconds)
    )


class DemandsBook:
    """What bars ask of the hands, each noted once."""

    def __init__(self) -> None:
        self._noted: dict[
            tuple[Leaving, int, int, Hearing], tuple[BarDemands, Bar, Bar | None]
        ] = {}  # the bars are held, so that their ids stay their own

    def of(self, part: Part) -> tuple[BarDemands, ...]:
        """What every bar of a part asks."""
        found: list[BarDemands] = []
        leaving: Leaving = ()
        hearing = hearing_of(part)
        for bar, following in zip(part.bars, (*part.bars[1:], None), strict=False):
            following = (
                following if following and begins_with_pull_off(following) else None
            )  # else it makes no difference
            key = (leaving, id(bar), id(following), hearing)
            if key not in self._noted:
                self._noted[key] = (demands_of_bar(bar, leaving, following, hearing), bar, following)
            found.append(self._noted[key][0])
            leaving = found[-1].leaving
        return tuple(found)


class Fingerer:
    """Fingers parts for one instrument; pure in what it gives, it only remembers."""

    def __init__(self, tables: HandTables) -> None:
        self._tables = tables
        self._book = DemandsBook()
        self._legs: dict[tuple[object, ...], _Leg] = {}
        self._same_grips: dict[tuple[int, ...], Grips] = {}  # hands that finger alike share one object

    def fingered(self, part: Part, times: Sequence[BarTime], hand: int | None = None) -> Fingered:
        """The cheapest path through a part for every hand of the tables, or for one alone."""
        bars = self._book.of(part)
        legs: list[_Leg | None] = []
        entry: Entry | None = None
        for bar, gap, time in zip(bars, gaps_of(bars, times), times, strict=True):
            leg = self._leg(bar, gap, time.quarter_seconds, entry) if bar.demands else None
            entry = Entry(leg.shape, leg.costs) if leg else entry
            legs.append(leg)
        hands = range(self._tables.hands) if hand is None else (hand,)
        return Fingered(bars, tuple(self._traced(legs, each) for each in hands))

    def _leg(self, bar: BarDemands, gap: float, quarter_seconds: float, entry: Entry | None) -> _Leg:
        key = (id(bar), gap, quarter_seconds, entry and (entry.shape, entry.costs.tobytes()))
        if key not in self._legs:
            layers = layers_of(bar, gap, quarter_seconds)
            costs, choices = walk(layers, self._tables, entry)
            tables = tuple(self._tables.table(layer.shape) for layer in layers)
            self._legs[key] = _Leg(
                layers[-1].shape, tables, costs - costs.min(axis=1, keepdims=True), choices
            )
        return self._legs[key]

    def _traced(self, legs: Sequence[_Leg | None], hand: int) -> tuple[Grips, ...]:
        last = next((leg for leg in reversed(legs) if leg), None)
        row = int(last.costs[hand].argmin()) if last else 0
        bars: list[Grips] = []
        for leg in reversed(legs):
            if leg is None:
                bars.append(())
                continue
            row, grips = self._back(leg, hand, row)
            bars.append(grips)
        bars.reverse()
        return tuple(bars)

    def _back(self, leg: _Leg, hand: int, row: int) -> tuple[int, Grips]:
        """The row the leg was entered from, and its grips."""
        if (hand, row) not in leg.traced:
            rows = trace(leg.choices, hand, row)
            own = rows[len(rows) - len(leg.tables) :]
            grips = tuple(table.grips[at] for table, at in zip(leg.tables, own, strict=True))
            leg.traced[hand, row] = (rows[0], self._same_grips.setdefault(tuple(map(id, grips)), grips))
        return leg.traced[hand, row]
