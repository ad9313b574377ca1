"""Shift: moving the hand along the neck in the time there is."""

from typing import NamedTuple

from clear_steps.core.grade.finding import Place, Told
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.measure import Found, Measure, Window
from clear_steps.core.grade.measures.words import beyond
from clear_steps.core.grade.played import Moment, Move, PlayedBar, TapMove
from clear_steps.core.hand import HARDEST_STEP
from clear_steps.core.score.words import finger_words, number_words, ordinal

_POWER = 6
_MORE_SHIFTS = 0.3  # leaping at every note is harder than once


class _Shift(NamedTuple):
    step: float
    move: Move | TapMove
    moment: Moment


def _find(bar: PlayedBar, ladder: Ladder) -> Found[_Shift]:
    curve = ladder.curves["shift"]
    found: list[tuple[float, _Shift]] = []
    for moment in bar.moments:
        at, move, tap = moment.sounding.onset_quarters, moment.move, moment.tap_move
        if move and move.way.distance_mm > 0 and not move.way.extension:
            found.append((at, _Shift(curve.step(move.load), move, moment)))
        if tap:
            found.append((at, _Shift(curve.step(tap.load), tap, moment)))
    return found


def _weigh(found: Found[_Shift], _: Window, __: Ladder) -> float:
    """The worst move of either hand, with a share of all the others."""
    steps = [shift.step for _, shift in found]
    worst = max(steps)
    together = sum(step**_POWER for step in steps) ** (1 / _POWER)
    return float(min(worst + _MORE_SHIFTS * (together - worst), HARDEST_STEP))


def _tell(found: Found[_Shift], bar: PlayedBar, _: Ladder) -> Told:
    worst = max((shift for _, shift in found), key=lambda shift: shift.move.load)
    move, moment = worst.move, worst.moment
    more = f"; {number_words(len(found))} moves in the bar" if len(found) > 1 else ""
    way = move if isinstance(move, TapMove) else move.way
    evidence = (
        f"At {bar.beat_words(moment.onset)} {_who(move, moment)}, {way.distance_mm:.0f} mm in"
        f" {move.seconds:.2f} s{bar.way_in(moment)}; it needs {way.needed_seconds:.2f} s{more}."
    )
    return Told(move.load, Place(moment.onset, moment.strings), evidence)


def _who(move: Move | TapMove, moment: Moment) -> str:
    """What goes from where to where: a hand, or one finger that goes farther."""
    if isinstance(move, TapMove):
        return (
            f"the tapping hand moves from the {ordinal(move.from_fret)} to the {ordinal(move.to_fret)} fret"
        )
    if move.way.jump:
        finger, start, stop = move.way.jump
        return f"the {finger_words((finger,))} jumps from the {ordinal(start)} to the {ordinal(stop)} fret"
    position = moment.grip.position if moment.grip else 1
    return (
        f"the hand moves from the {ordinal(max(move.way.before.position, 1))} to the"
        f" {ordinal(max(position, 1))} fret"
    )


def _rung(ladder: Ladder, step: int) -> str:
    curve = ladder.curves["shift"]
    return f"moves that need up to {round(curve.raw(step) * 100)} % of the time there is{beyond(curve, step)}"


SHIFT = Measure(
    name="shift",
    spoken="moving the hand",
    about="how little time there is to move the hand along the neck",
    unit="of the time there is",
    sign="M2 12C4 4 10 4 12 10M8.5 9.5 12.3 11 14 7",
    curves={"shift": "shift"},
    find=_find,
    weigh=_weigh,
    tell=_tell,
    rung=_rung,
    said={"es": "los cambios de posición"},
    helps={
        "en": "Look at the fret before the hand moves, and let one finger stay on its string.",
        "es": "Mirar el traste antes de mover la mano, y dejar un dedo en su cuerda.",
    },
)
