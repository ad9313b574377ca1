"""Every way fingers can be set on a shape, as rows of arrays."""

from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import overload

import numpy as np
from numpy.typing import NDArray

from clear_steps.core.hand.assignments import FINGERS, Presses, assignments_of
from clear_steps.core.hand.demands import Shape, Spot
from clear_steps.core.hand.neck import Neck
from clear_steps.core.hand.player import Habits, LittleFinger
from clear_steps.core.score import Finger

FINGER_NUMBERS = (1, 2, 3, 4, 5)  # as tables write them, the thumb last
FULL_BARRE_STRINGS = 5
PAST_ANY_HAND_MM = 400.0  # the reach of a grip that has more places than fingers
FLAT_STRINGS = 2  # that a finger lies over without being a barre: a double stop

# Conventions, in the unit of the path's costs (a held reach of Step 3 costs 729). They only
# order grips that reach and move alike; from memory of how teachers number fingers.
_WIDE_COST = 30.0  # a fret more between two fingers than they lie apart
_CRAMPED_COST = 9.0  # a fret less
_FINGER_COST = {
    Finger.INDEX: 0.0,
    Finger.MIDDLE: 0.5,
    Finger.RING: 1.5,
    Finger.LITTLE: 6.0,
    Finger.THUMB: 20.0,
}
_SPARED_COST = 400_000.0  # avoided is meant: dearer than to leave a taught shape
_LITTLE_FINGER_COST = {
    LittleFinger.AVOIDED: _SPARED_COST,
    LittleFinger.USUAL: 6.0,
    LittleFinger.PREFERRED: 0.0,
}
# A bend is made by the ring finger with helpers behind it; the index has none, the little finger is
# weak: rather the hand changes its place.
_BEND_COST = {
    Finger.INDEX: 600.0,
    Finger.MIDDLE: 300.0,
    Finger.RING: 0.0,
    Finger.LITTLE: 600.0,
    Finger.THUMB: 400.0,
}
# A barre by the ring finger is common; by the little finger it can hardly be held beside others.
_BARRE_COST = {Finger.INDEX: 0.0, Finger.MIDDLE: 300.0, Finger.RING: 90.0, Finger.LITTLE: 4000.0}
_FLAT_COST = 60.0  # one finger for a whole double stop, as easy as two, but people number it for two
# Neighbouring strings at one fret and nothing else to sound: one finger flat, index or ring.
_ROW_BY_MANY_COST = 250.0
_ROW_COST = {Finger.INDEX: 0.0, Finger.MIDDLE: 60.0, Finger.RING: 10.0, Finger.LITTLE: 400.0}
_SPLIT_BARRE_COST = 120.0  # two fingers at one fret, one of them a barre: one barre would do
_GAP_BARRE_COST = 40.0  # a barre over strings not its own, where a finger each would do
_IDLE_INDEX_COST = 15.0  # two fingers or more, and the index is not among them
_WEAK_GAP_COST = 5_000.0  # two frets between ring and little finger: index or middle would take it
_ACROSS_COST = 8.0  # neighbouring fingers at one fret, strings farther apart than fingers lie


@dataclass(frozen=True, slots=True)
class Setting:
    """What of a grip is set anew: so many fingers, and the barre among them (0 strings without one)."""

    fingers: int
    barre_strings: int
    barre_fret: int
    thumbed: bool


@dataclass(frozen=True, slots=True)
class Grip:
    """Fingers on spots; `position` is the fret the index finger covers, below 1 where it hangs over the
    nut."""

    position: int
    presses: tuple[tuple[Finger, Spot], ...]
    barre_strings: int  # strings the widest barre spans, 0 without one
    barre_fret: int
    reach_mm: float  # along the neck, thumb left out

    @property
    def fingers(self) -> tuple[Finger, ...]:
        """Fingers in use, index first."""
        return tuple(dict.fromkeys(finger for finger, _ in self.presses))

    @property
    def thumbed(self) -> bool:
        """Whether the thumb frets a bass."""
        return any(finger is Finger.THUMB for finger, _ in self.presses)

    @property
    def finger_frets(self) -> dict[Finger, int]:
        """The fret every finger presses; the thumb left out."""
        return {finger: spot.fret for finger, spot in self.presses if finger is not Finger.THUMB}

    def setting(self, fresh: Collection[Finger]) -> Setting:
        """What it is to set some of its fingers, the others lying there already."""
        strings, fret = max((self._lies_over(finger) for finger in fresh), default=(0, 0))
        return Setting(len(fresh), *((strings, fret) if strings > 1 else (0, 0)), Finger.THUMB in fresh)

    def _lies_over(self, finger: Finger) -> tuple[int, int]:
        """Strings from the first to the last that a finger presses, and its fret."""
        spots = [spot for own, spot in self.presses if own is finger]
        strings = [spot.string for spot in spots if spot.fret == spots[-1].fret]
        return max(strings) - min(strings) + 1, spots[-1].fret

    def helpers_on(self, string: int) -> tuple[tuple[Finger, Spot], ...]:
        """Free lower fingers that can lie behind the one on a string, a fret apart, and push a bend with
        it."""
        bending = [
            (finger, spot) for finger, spot in self.presses if spot.string == string and finger in FINGERS
        ]
        if not bending:
            return ()
        finger, spot = bending[-1]
        free = [lower for lower in FINGERS if lower < finger and lower not in self.fingers]
        behind = ((lower, spot.fret - (int(finger) - int(lower))) for lower in free)
        return tuple((lower, Spot(string, fret)) for lower, fret in behind if fret > 0)

    def finger_on(self, string: int) -> Finger | None:
        """The finger that sounds a string: the one at its highest fret."""
        on = [(spot.fret, finger) for finger, spot in self.presses if spot.string == string]
        return max(on)[1] if on else None


@dataclass(frozen=True)
class GripTable:
    """All grips of one shape; every array has one row a grip."""

    grips: Sequence[Grip]
    position_mm: NDArray[np.float64]
    target_width_mm: NDArray[np.float64]
    farthest_mm: NDArray[np.float64]  # highest pressed spot, from the position
    reach_mm: NDArray[np.float64]
    convention: NDArray[np.float64]
    finger_mm: NDArray[np.float64]  # (row, finger 1-4): where along the neck, NaN = lifted
    strings: int

    @cached_property
    def spots(self) -> NDArray[np.int64]:
        """(row, finger 1-4): code of what the finger presses, 0 = lifted."""
        return np.array([_spot_codes(grip) for grip in self.grips], dtype=np.int64)

    @cached_property
    def string_finger(self) -> NDArray[np.int64]:
        """(row, string): number of the finger that sounds it, 0 = none, 5 = thumb."""
        return np.array([_string_fingers(grip, self.strings) for grip in self.grips], dtype=np.int64)

    @cached_property
    def lone_finger(self) -> NDArray[np.int64]:
        """(row): number of the first finger, 5 for the thumb."""
        return np.array([finger_number(grip.presses[0][0]) for grip in self.grips], dtype=np.int64)

    def fingers_on(self, spot: Spot) -> NDArray[np.int64]:
        """(row): number of the finger that presses a spot, 0 = none."""
        return np.array(
            [
                next((finger_number(finger) for finger, pressed in grip.presses if pressed == spot), 0)
                for grip in self.grips
            ],
            dtype=np.int64,
        )

    def on_string(self, string: int) -> "GripTable":
        """The table of a single note on another string: along the neck nothing differs."""
        return replace(self, grips=_OnString(self.grips, string))


class _OnString(Sequence[Grip]):
    """Grips of a single note on another string, each made when it is first asked for and the same from then
    on."""

    def __init__(self, grips: Sequence[Grip], string: int) -> None:
        self._grips, self._string = grips, string
        self._made: dict[int, Grip] = {}

    def __len__(self) -> int:
        return len(self._grips)

    @overload
    def __getitem__(self, row: int) -> Grip: ...
    @overload
    def __getitem__(self, row: slice) -> Sequence[Grip]: ...
    def __getitem__(self, row: int | slice) -> Grip | Sequence[Grip]:
        if isinstance(row, slice):
            return [self[at] for at in range(*row.indices(len(self)))]
        made = self._made.get(row)
        if made is None:
            grip = self._grips[row]
            made = self._made[row] = replace(
                grip, presses=tuple((finger, Spot(self._string, spot.fret)) for finger, spot in grip.presses)
            )
        return made


def grip_table(shape: Shape, neck: Neck, strings: int, habits: Habits = Habits()) -> GripTable:
    """Enumerate grips: fingers rise with the fret, and at one fret from thick to thin strings."""
    finger_costs = {
        **_FINGER_COST,
        Finger.LITTLE: _LITTLE_FINGER_COST[habits.little_finger],
        **dict.fromkeys(habits.spared, _SPARED_COST),
    }
    found = [
        (grip, cost + sum(_BEND_COST[finger] for finger, spot in grip.presses if spot.string in shape.bent))
        for presses in assignments_of(shape, strings, habits.thumb_over)
        for grip, cost in _placed(presses, neck, finger_costs, _is_row(shape))
    ]
    found = [entry for entry in found if shape.position in (None, entry[0].position)] or found
    grips = tuple(grip for grip, _ in found)
    position = np.array([neck.fret_mm(grip.position) for grip in grips])
    frets = [
        [spot.fret for finger, spot in grip.presses if finger is not Finger.THUMB] or [grip.position]
        for grip in grips
    ]
    return GripTable(
        grips,
        position,
        np.array([neck.fret_width_mm(max(grip.position, 1)) for grip in grips]),
        np.array([neck.fret_mm(max(row)) for row in frets]) - position,
        np.array([grip.reach_mm for grip in grips]),
        np.array([cost for _, cost in found]),
        np.array([_finger_mm(grip, neck) for grip in grips]),
        strings,
    )


def keeps_taught(shape: Shape, grip: Grip) -> bool:
    """Whether a grip has the fingers that some school teaches for a shape, where any are."""
    if shape.loose or not shape.schools:
        return True
    return any(all(grip.finger_on(string) == finger for string, finger in own) for own in shape.schools)


def _is_row(shape: Shape) -> bool:
    """Neighbouring strings at one fret, no open string with them."""
    strings = {spot.string for spot in shape.spots}
    one_fret = len({spot.fret for spot in shape.spots}) == 1
    return one_fret and not shape.open_strings and max(strings) - min(strings) + 1 == len(strings) > 1


def _placed(
    presses: Presses, neck: Neck, finger_costs: dict[Finger, float], row: bool
) -> Iterator[tuple[Grip, float]]:
    """A grip for each position the hand may take, with its convention cost."""
    fretting = [(finger, spots) for finger, spots in presses if finger is not Finger.THUMB]
    flat = tuple((finger, spot) for finger, spots in presses for spot in spots)
    frets = [spots[0].fret for _, spots in fretting]
    reach = neck.fret_mm(max(frets)) - neck.fret_mm(min(frets)) if frets else 0.0
    if any(len({spot.fret for spot in spots}) > 1 for _, spots in fretting if not _on_one_string(spots)):
        reach = PAST_ANY_HAND_MM
    barres = [
        (max(s.string for s in spots) - min(s.string for s in spots) + 1, spots[0].fret)
        for _, spots in fretting
        if len(spots) > 1
    ]
    width, barre_fret = max(barres, default=(0, 0))
    cost = sum(finger_costs[finger] for finger, _ in presses) + _spread_cost(fretting)
    if row:
        cost += _ROW_COST[fretting[0][0]] if len(fretting) == 1 else _ROW_BY_MANY_COST
    else:
        cost += sum(_BARRE_COST[finger] for finger, spots in fretting if len(spots) > 1)
        cost += _FLAT_COST * (len(fretting) == 1 and width == FLAT_STRINGS)
    cost += _gap_barre_cost(fretting) if fretting else 0.0
    if len(fretting) > 1 and fretting[0][0] is not Finger.INDEX:
        cost += _IDLE_INDEX_COST
    if not fretting:
        yield Grip(max(flat[0][1].fret, 1), flat, 0, 0, 0.0), cost
        return
    first, spots = fretting[0]
    natural = spots[0].fret - (int(first) - 1)  # below the 1st fret the index hangs over the nut
    # A finger alone leaves the hand a fret of freedom either way; two or more, or the index, fix it.
    free = first is not Finger.INDEX and len(fretting) == 1
    choices = [natural, natural - 1, natural + 1] if free else [natural]
    for position in choices:
        if position <= spots[0].fret:
            apart = _apart_cost(spots[0].fret - position, int(first) - 1)
            yield Grip(position, flat, width, barre_fret, reach), cost + apart


def _gap_barre_cost(fretting: Sequence[tuple[Finger, tuple[Spot, ...]]]) -> float:
    """What people do not do though the hand could: a barre under others in a shape of four notes on two
    frets."""
    few = sum(len(spots) for _, spots in fretting) <= len(FINGERS)
    if not few or fretting[-1][1][0].fret - fretting[0][1][0].fret > 1:
        return 0.0
    barres = ([spot.string for spot in spots] for _, spots in fretting if len(spots) > 1)
    return _GAP_BARRE_COST * sum(max(strings) - min(strings) + 1 > len(strings) for strings in barres)


def _on_one_string(spots: Sequence[Spot]) -> bool:
    return len({spot.string for spot in spots}) == 1


def _apart_cost(frets: int, natural: int) -> float:
    """Cost of two fingers that lie so many frets apart, against how far they lie apart at rest."""
    return _WIDE_COST * max(frets - natural, 0) ** 2 + _CRAMPED_COST * max(natural - frets, 0) ** 2


def _spread_cost(fretting: Sequence[tuple[Finger, tuple[Spot, ...]]]) -> float:
    cost = 0.0
    for (low, low_spots), (high, high_spots) in pairwise(fretting):
        apart = high_spots[0].fret - low_spots[0].fret
        natural = int(high) - int(low)
        stiffness = 1.0 if low is Finger.INDEX else 2.0  # the index moves away most freely
        cost += stiffness * _apart_cost(apart, natural)
        if apart >= 2 and (low, high) == (Finger.RING, Finger.LITTLE):
            cost += _WEAK_GAP_COST
        if apart == 0:
            across = low_spots[-1].string - high_spots[0].string
            cost += _ACROSS_COST * max(across - natural, 0) ** 2 + _SPLIT_BARRE_COST * (
                len(low_spots) + len(high_spots) > 2
            )
    return cost


def _spot_codes(grip: Grip) -> list[int]:
    codes = [0, 0, 0, 0]
    for finger, spot in grip.presses:
        if finger is not Finger.THUMB:
            codes[int(finger) - 1] = codes[int(finger) - 1] * 331 + spot.fret * 16 + spot.string
    return codes


def finger_number(finger: Finger) -> int:
    """As tables write it."""
    return 5 if finger is Finger.THUMB else int(finger)


def _finger_mm(grip: Grip, neck: Neck) -> list[float]:
    frets = grip.finger_frets
    return [neck.fret_mm(frets[finger]) if finger in frets else np.nan for finger in FINGERS]


def _string_fingers(grip: Grip, strings: int) -> list[int]:
    fingers = (grip.finger_on(string) for string in range(1, strings + 1))
    return [0 if finger is None else 5 if finger is Finger.THUMB else int(finger) for finger in fingers]
