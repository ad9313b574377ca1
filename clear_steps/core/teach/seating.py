"""Who plays what in a group: each within what they can."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Playable:
    """A version, or a part of the original, for one player: its Step, how many bars are past them, and
    whether it is within their reach by all that is known of them."""

    key: int  # which of what is offered
    step: float
    past: int
    within: bool


def best_fit(choices: Sequence[Playable], taken: Collection[int]) -> Playable:
    """What one player takes: the hardest within their reach, one that nobody has `taken` (keys) before one
    that somebody has; where nothing is within, what has the fewest bars past them, then the easiest."""
    within = [row for row in choices if row.within]
    if within:
        return max(within, key=lambda row: (row.key not in taken, row.step, -row.key))
    return min(choices, key=lambda row: (row.past, row.step))
