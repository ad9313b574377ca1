"""Bars that a repeat or a double bar cuts in two: what is short at the end of one section is made up at the
beginning of another."""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction


@dataclass(frozen=True, slots=True)
class BarLength:
    """How many quarters a bar holds, how many its metre has, and whether a repeat or a double bar stands
    before and after it."""

    quarters: Fraction
    whole: Fraction
    begins: bool = False
    ends: bool = False

    @property
    def short(self) -> bool:
        """Whether it holds something, and less than its metre."""
        return 0 < self.quarters < self.whole


def cut_bars(bars: Sequence[BarLength]) -> frozenset[int]:
    """Indexes of the short bars that make a whole one with another across the bar lines: a part's last with a
    pickup, its own or the next part's."""
    last = len(bars) - 1
    tails = [
        at for at, bar in enumerate(bars) if bar.short and (bar.ends or at == last or bars[at + 1].begins)
    ]
    heads = [at for at, bar in enumerate(bars) if bar.short and (bar.begins or at == 0 or bars[at - 1].ends)]
    pairs = (
        (tail, head)
        for tail in tails
        for head in heads
        if tail != head and bars[tail].quarters + bars[head].quarters == bars[tail].whole
    )
    return frozenset(at for pair in pairs for at in pair)
