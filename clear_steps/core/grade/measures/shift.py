"""Shift: moving the hand along the neck in the time there is."""

from clear_steps.core.grade.finding import Finding, Place, finger_words, nothing, number_words, ordinal
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.played import Moment, Move, PlayedBar, TapMove
from clear_steps.core.hand import HARDEST_STEP

UNIT = "of the time there is"
_POWER = 6
_MORE_SHIFTS = 0.3  # leaping at every note is harder than once


def shift(bar: PlayedBar, ladder: Ladder) -> Finding:
    """The load of the worst move of either hand, with a share of all the others."""
    moves: list[tuple[Move | TapMove, Moment]] = [
        (moment.move, moment)
        for moment in bar.moments
        if moment.move and moment.move.way.distance_mm > 0 and not _is_extension(moment.move, moment)
    ]
    moves += [(moment.tap_move, moment) for moment in bar.moments if moment.tap_move]
    if not moves:
        return nothing(UNIT)
    steps = [ladder.curves["shift"].step(move.load) for move, _ in moves]
    worst = max(steps)
    together = sum(step**_POWER for step in steps) ** (1 / _POWER)
    step = min(worst + _MORE_SHIFTS * (together - worst), HARDEST_STEP)
    move, moment = moves[max(range(len(moves)), key=lambda index: moves[index][0].load)]
    more = f"; {number_words(len(moves))} moves in the bar" if len(moves) > 1 else ""
    way = move if isinstance(move, TapMove) else move.way
    evidence = (
        f"At {bar.beat_words(moment.onset)} {_who(move, moment)}, {way.distance_mm:.0f} mm in"
        f" {move.seconds:.2f} s; it needs {way.needed_seconds:.2f} s{more}."
    )
    return Finding(step, move.load, UNIT, Place(moment.onset, moment.strings), evidence)


def _is_extension(move: Move, moment: Moment) -> bool:
    """Up to one fret, taken by another finger than before: the hand opens, and that is a stretch."""
    before, now = move.way.before, moment.grip
    if now is None or move.way.jump or len(before.presses) != 1 or len(now.presses) != 1:
        return False
    (old, _), (new, _) = before.presses[0], now.presses[0]
    return old is not new and abs(now.position - before.position) <= 1


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
