"""Where to play pitches: the cheapest places on the neck, by the same costs as the path of grips.

A beam over the layered graph whose nodes are a place for every note together with a grip: exact where
no more than `_BEAM` places compete, and deterministic always.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from clear_steps.core.hand.costs import COST_UNITS, Costs, HandTables
from clear_steps.core.hand.demands import Links, Shape, Spot
from clear_steps.core.score import Tuning

HIGHEST_FRET = 19
_BEAM = 16
_LOW_POSITION = 4
_MOST_PLACES = 12  # of one event that are tried
_WIDEST_FRETS = 4  # a chord's frets lie so far apart at most, open strings aside
# an open string while the hand is up the neck: it sounds and lies apart from its neighbours (from memory)
_OPEN_STRING_COST = 60
_FRET_COST = 8  # a fret, a note: between equals people write low on the neck (from memory)
# on top of it a fret above the fifth: a move saved is no reason to take a tune up the thick strings (from
# memory)
_HIGH_COST = 80
# a held note that must make room on its string: about what a reach or a move of Step 3.5 costs (from memory)
_CUT_COST = 2000


@dataclass(frozen=True, slots=True)
class Pitch:
    """A note to be placed: its MIDI number, or where it must stay; `follows` is the note of the event before
    whose string it keeps."""

    midi: int
    fixed: Spot | None = None
    follows: int | None = None
    pressed: bool = False  # an open string will not do: it is bent, shaken or slid


@dataclass(frozen=True, slots=True)
class Moment:
    """Pitches struck together, `seconds` after the moment before.

    `held` names what still sounds of the moment before: its pitches by index, then, counted on, what was held
    in it.
    """

    seconds: float
    pitches: tuple[Pitch, ...]
    held: tuple[int, ...] = ()


Placed = tuple[Spot, ...]
Allowed = Callable[[Spot], bool]


@dataclass(frozen=True, slots=True)
class _State:
    """The cheapest way to be in each grip of a shape, with the places chosen on it."""

    shape: Shape | None  # None: nothing was pressed so far
    waited: float  # seconds since that shape was set
    costs: Costs  # (1, row)
    placed: Placed
    held: tuple[Spot | None, ...]  # None: cut off by a note on its string
    before: "_State | None"

    def still_held(self, moment: Moment, placed: Placed) -> tuple[Spot | None, ...]:
        """What sounds here and is to go on sounding in the next moment, under the places chosen there."""
        sounding = (*self.placed, *self.held)
        struck = {spot.string for spot in placed}
        return tuple(
            spot if (spot := sounding[at]) and spot.string not in struck else None for at in moment.held
        )


def places_of(midi: int, tuning: Tuning, capo: int, allowed: Allowed = lambda _: True) -> list[Spot]:
    """Every spot that sounds a pitch, lowest fret first."""
    frets = ((string, midi - capo - tuning.open_pitch(string)) for string in range(1, tuning.strings + 1))
    spots = [Spot(string, fret) for string, fret in frets if 0 <= fret <= HIGHEST_FRET]
    return sorted((spot for spot in spots if allowed(spot)), key=lambda spot: (spot.fret, spot.string))


def place(
    moments: Sequence[Moment],
    tuning: Tuning,
    capo: int,
    tables: HandTables,
    allowed: Allowed = lambda _: True,
) -> tuple[Placed, ...] | None:
    """A spot for every pitch of every moment, in order; None where some moment cannot be placed."""
    states = [_State(None, 0.0, np.zeros((1, 1), dtype=np.int64), (), (), None)]
    for moment in moments:
        choices = list(_choices(moment, tuning, capo, allowed))
        grown = [
            _grown(state, moment, placed, tables)
            for state in states
            for placed in choices
            if _keeps_strings(moment, state.placed, placed)
        ]
        if not grown:
            return None
        states = _cheapest_of_each(grown)
    best = min(states, key=lambda state: int(state.costs.min()))
    found: list[Placed] = []
    state: _State | None = best
    while state is not None and state.before is not None:
        found.append(state.placed)
        state = state.before
    return tuple(reversed(found))


def can_be_placed(pitches: Sequence[Pitch], tuning: Tuning, capo: int) -> bool:
    """Whether pitches struck together find strings of their own within a hand's reach."""
    return any(_choices(Moment(0.0, tuple(pitches)), tuning, capo, lambda _: True))


def _choices(moment: Moment, tuning: Tuning, capo: int, allowed: Allowed) -> Iterator[Placed]:
    """Ways to place the pitches of one moment on strings of their own, the most compact first."""
    if all(pitch.fixed for pitch in moment.pitches):
        yield tuple(pitch.fixed for pitch in moment.pitches if pitch.fixed)
        return
    options = [
        [pitch.fixed]
        if pitch.fixed
        else [spot for spot in places_of(pitch.midi, tuning, capo, allowed) if spot.fret or not pitch.pressed]
        for pitch in moment.pitches
    ]
    yield from sorted(
        _combined(options),
        key=lambda placed: (_width(placed), max((spot.fret for spot in placed), default=0)),
    )[:_MOST_PLACES]


def _combined(options: Sequence[Sequence[Spot]], chosen: Placed = ()) -> Iterator[Placed]:
    if len(chosen) == len(options):
        yield chosen
        return
    for spot in options[len(chosen)]:
        if all(spot.string != other.string for other in chosen) and _width((*chosen, spot)) <= _WIDEST_FRETS:
            yield from _combined(options, (*chosen, spot))


def _width(placed: Placed) -> int:
    frets = [spot.fret for spot in placed if spot.fret]
    return max(frets) - min(frets) if frets else 0


def _keeps_strings(moment: Moment, before: Placed, placed: Placed) -> bool:
    return all(
        pitch.follows is None or pitch.follows >= len(before) or before[pitch.follows].string == spot.string
        for pitch, spot in zip(moment.pitches, placed, strict=True)
    )  # fmt: skip


def _grown(state: _State, moment: Moment, placed: Placed, tables: HandTables) -> _State:
    going_on = state.still_held(moment, placed)
    held = tuple(spot for spot in going_on if spot)
    extra = COST_UNITS * _extra_cost(state, len(going_on) - len(held), placed)
    waited = state.waited + moment.seconds
    pressed = tuple(
        sorted((spot for spot in (*placed, *held) if spot.fret), key=lambda spot: (spot.fret, -spot.string))
    )
    if not pressed:
        return _State(state.shape, waited, state.costs + extra, placed, going_on, state)
    shape = Shape(pressed, frozenset(spot.string for spot in (*placed, *held) if not spot.fret))
    costs = tables.grip_costs(shape)[:1] + extra
    if state.shape is None:
        return _State(shape, 0.0, costs + int(state.costs.min()), placed, going_on, state)
    links = Links(kept=tuple(spot.string for spot in held if spot.fret))
    moves = tables.move_costs(state.shape, shape, links, max(round(waited, 9), 0.01))[:1]
    return _State(shape, 0.0, (state.costs[:, :, None] + moves).min(axis=1) + costs, placed, going_on, state)


def _extra_cost(state: _State, cut: int, placed: Placed) -> int:
    """What no grip or move costs: frets up the neck, open strings among them, notes cut off."""
    frets = sum(_FRET_COST * spot.fret + _HIGH_COST * max(spot.fret - 5, 0) for spot in placed)
    is_up = state.shape is not None and state.shape.spots[0].fret > _LOW_POSITION
    return (
        frets + _CUT_COST * cut + (_OPEN_STRING_COST * sum(not spot.fret for spot in placed) if is_up else 0)
    )


def _cheapest_of_each(states: list[_State]) -> list[_State]:
    """The cheapest state of every way to place the moment, and of these the cheapest few."""
    best: dict[tuple[object, ...], _State] = {}
    for state in states:
        key = (state.placed, state.held, state.shape)
        if key not in best or state.costs.min() < best[key].costs.min():
            best[key] = state
    return sorted(best.values(), key=lambda state: int(state.costs.min()))[:_BEAM]
