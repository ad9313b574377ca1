"""One fingering for what comes back: of the ways it has on the free path the one that costs least summed over
its places."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from clear_steps.core.hand.costs import COST_UNITS, HandTables
from clear_steps.core.hand.demands import BarDemands, Shape
from clear_steps.core.hand.path import Layer, Rows

_SWEEPS = 2
_MOST_WAYS = 3  # of one bar that are compared
_LET_GO = 100_000 * COST_UNITS  # that others save at a visit: a move of nearly Step 7 (from memory)

Settled = tuple[Rows, ...]
"""The rows of a bar, by hand."""


@dataclass(frozen=True, slots=True)
class Visit:
    """A time that a written bar (index) is played, with what it asks there."""

    bar: int
    asked: BarDemands
    layers: tuple[Layer, ...]


@dataclass(frozen=True, slots=True)
class _Place:
    """A visit with the rows it has on the free path, between those before and after it."""

    visit: Visit
    rows: Rows
    before: "_Place | None" = None
    after: "_Place | None" = None


def settled_returns(
    runs: Sequence[Sequence[Visit]], free: Sequence[Sequence[Sequence[Rows]]], tables: HandTables
) -> dict[int, Settled]:
    """For every written bar that comes back, itself or as another that asks the same, the rows it keeps;
    `free` has them by run, hand and visit. Empty where they are the same already."""
    kinds = _kinds(visit for run in runs for visit in run if visit.layers)
    kept: list[dict[int, Rows]] = []
    differs = False
    for hand in range(tables.hands):
        places = _places(runs, [rows[hand] for rows in free], kinds)
        kept.append({})
        ways = {kind: Counter(place.rows for place in own) for kind, own in places.items()}
        differs = differs or any(len(counted) > 1 for counted in ways.values())
        for kind in [*places] * _SWEEPS:  # again, once those beside it are settled too
            rows = [way for way, _ in ways[kind].most_common(_MOST_WAYS)]
            kept[-1] |= _cheapest(places[kind], rows, kept[-1], kinds, hand, tables)
    return {bar: tuple(rows[bar] for rows in kept) for bar in kinds} if differs else {}


def _kinds(visits: Iterable[Visit]) -> dict[int, int]:
    """By written bar what it is the same as, of those that come more than once."""
    first: dict[tuple[object, ...], int] = {}
    kinds: dict[int, int] = {}
    count: Counter[int] = Counter()
    for visit in visits:
        if visit.bar not in kinds:
            kinds[visit.bar] = first.setdefault(_signature(visit.asked), visit.bar)
        count[kinds[visit.bar]] += 1
    return {bar: kind for bar, kind in kinds.items() if count[kind] > 1}


def _signature(bar: BarDemands) -> tuple[object, ...]:
    return tuple([(each.onset_quarters, _bare(each.shape), each.links) for each in bar.demands])


def _bare(shape: Shape) -> Shape:
    """What lies around a bar may show a place of the hand in one and not in the other."""
    return shape.untaught if shape.loose else shape


def _places(
    runs: Sequence[Sequence[Visit]], free: Sequence[Sequence[Rows]], kinds: Mapping[int, int]
) -> dict[int, list[_Place]]:
    """By kind every place where it comes."""
    found: dict[int, list[_Place]] = defaultdict(list)
    for run, rows in zip(runs, free, strict=True):
        pressing = [_Place(visit, own) for visit, own in zip(run, rows, strict=True) if visit.layers]
        around = zip((None, *pressing), pressing, (*pressing[1:], None), strict=False)
        for before, place, after in around:
            if place.visit.bar in kinds:
                own_kind = kinds[place.visit.bar]
                found[own_kind].append(_Place(place.visit, place.rows, before, after))
    return found


def _cheapest(
    places: Sequence[_Place],
    ways: Sequence[Rows],
    kept: Mapping[int, Rows],
    kinds: Mapping[int, int],
    hand: int,
    tables: HandTables,
) -> dict[int, Rows]:
    """By written bar the way that costs least in all, or its own where that saves much."""
    bars = dict.fromkeys(place.visit.bar for place in places)
    if len(ways) == 1:
        return dict.fromkeys(bars, ways[0])
    costs: dict[int, list[int]] = {bar: [0] * len(ways) for bar in bars}
    count = Counter(place.visit.bar for place in places)
    for place in places:
        for at, way in enumerate(ways):
            costs[place.visit.bar][at] += sum(_costs(place, way, kept, kinds, hand, tables))
    best = min(range(len(ways)), key=lambda at: sum(own[at] for own in costs.values()))
    chosen = {}
    for bar, own in costs.items():
        least = min(range(len(ways)), key=lambda at: own[at])
        lets_go = own[best] - own[least] > _LET_GO * count[bar]
        chosen[bar] = ways[least if lets_go else best]
    return chosen


def _costs(
    place: _Place,
    way: Rows,
    kept: Mapping[int, Rows],
    kinds: Mapping[int, int],
    hand: int,
    tables: HandTables,
) -> Iterator[int]:
    """Of a way at one place: its grips, the moves in it, into it and out of it; a bar of its kind next to it
    is fingered the same."""
    layers = place.visit.layers
    steps = list(zip(layers, way, strict=True))
    for neighbour, end in ((place.before, -1), (place.after, 0)):
        if neighbour:
            same = kinds.get(neighbour.visit.bar) == kinds[place.visit.bar]
            rows = way if same else kept.get(neighbour.visit.bar, neighbour.rows)
            steps.insert(0 if end else len(steps), (neighbour.visit.layers[end], rows[end]))
    for layer, row in zip(layers, way, strict=True):
        yield int(tables.grip_costs(layer.shape)[hand, row])
    for (before, old), (after, new) in pairwise(steps):
        moves = tables.move_costs(before.shape, after.shape, after.links, after.seconds)
        yield int(moves[hand, old, new])
