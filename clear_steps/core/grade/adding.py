"""How measures add up to a bar's Step, and bars to a song's."""

from collections.abc import Iterable, Mapping
from enum import StrEnum

from clear_steps.core.hand import HARDEST_STEP

EASIEST_STEP = 1.0
_POWER = 6


class Weighing(StrEnum):
    """Two schools of weighing, and the balance between: the hardest passage, or the whole song."""

    HARDEST = "hardest"
    BALANCED = "balanced"
    WHOLE = "whole"


# Shares of peak and typical in the song's base Step.
WEIGHINGS: dict[Weighing, tuple[float, float]] = {
    Weighing.HARDEST: (1.0, 0.0),
    Weighing.BALANCED: (0.6, 0.4),
    Weighing.WHOLE: (0.2, 0.8),
}


def added_up(steps: Mapping[str, float]) -> dict[str, float]:
    """What each measure adds to a bar's Step where they are put on one another, the hardest first: the sum is
    the Step. The first stands for itself, the others for what they make it harder."""
    found = sorted(((name, step) for name, step in steps.items() if step > 0), key=lambda row: -row[1])
    shares: dict[str, float] = {}
    so_far = 0.0
    for count, (name, _) in enumerate(found, start=1):
        then = min(_power_sum(step for _, step in found[:count]), HARDEST_STEP)
        shares[name] = then - so_far
        so_far = then
    return shares


def _power_sum(steps: Iterable[float]) -> float:
    return float(sum(step**_POWER for step in steps) ** (1 / _POWER))


def weighed(peak: float, typical: float, on_top: float, weighing: Weighing) -> float:
    """A song's Step from its peak and typical bar, and what is added on top."""
    peak_share, typical_share = WEIGHINGS[weighing]
    return min(peak_share * peak + typical_share * typical + on_top, HARDEST_STEP)


def norm(steps: Iterable[float], past_hand: bool, on_top: float = 0.0) -> float:
    """A bar's Step from those of its measures, and what is added on top."""
    together = _power_sum(steps) + on_top
    return HARDEST_STEP if past_hand else min(max(together, EASIEST_STEP), HARDEST_STEP)


def cubic_mean(steps: list[float], weights: list[float]) -> float:
    """The typical bar: hard ones count more than easy ones."""
    if not steps:
        return EASIEST_STEP
    total = sum(weight * step**3 for step, weight in zip(steps, weights, strict=True))
    return float((total / sum(weights)) ** (1 / 3))
