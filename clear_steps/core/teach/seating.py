"""Who plays what in a group: each within what they can."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Playable:
    """A version, or a part of the original, for one player: its Step and how many bars are past them."""

    key: int  # which of what is offered
    step: float
    past: int


def seated(
    players: Sequence[float | None], offered: int, playable: Callable[[int, int], Playable]
) -> tuple[int, ...]:
    """What each of the players takes, by its number among what is offered.

    `players` are their comfortable Steps, `playable(player, number)` is asked for each. A player takes the
    hardest within their limits and comfortable Step, one that nobody has taken before one that somebody has;
    where nothing is within, what has the fewest bars past them, then the easiest.
    """
    taken: list[int] = []
    for player, comfortable in enumerate(players):
        choices = [playable(player, number) for number in range(offered)]
        within = [row for row in choices if not row.past and row.step <= (comfortable or row.step)]
        if within:
            best = max(within, key=lambda row: (row.key not in taken, row.step, -row.key))
        else:
            best = min(choices, key=lambda row: (row.past, row.step))
        taken.append(best.key)
    return tuple(taken)
