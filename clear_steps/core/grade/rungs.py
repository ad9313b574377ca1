"""The ladder in words: what each measure alone allows at a Step, made from its data."""

from dataclasses import dataclass

from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures import MEASURES

STEPS = range(1, 11)


@dataclass(frozen=True, slots=True)
class Rung:
    """One Step: a sentence a measure."""

    step: int
    sentences: tuple[tuple[str, str], ...]  # (measure, words)


def rungs(ladder: Ladder) -> tuple[Rung, ...]:
    """Ten rungs, easiest first."""
    return tuple(
        Rung(step, tuple((measure.name, measure.rung(ladder, step)) for measure in MEASURES.values()))
        for step in STEPS
    )
