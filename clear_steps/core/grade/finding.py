"""What a measure says about a bar: a Step, the raw value behind it, and the evidence."""

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property
from typing import NamedTuple


@dataclass(frozen=True, slots=True)
class Place:
    """A moment in a bar: onset in quarters, and the strings meant."""

    onset: Fraction
    strings: tuple[int, ...]


class Told(NamedTuple):
    """The raw value, its place, and the evidence in a sentence."""

    value: float | None
    place: Place | None
    evidence: str


@dataclass(frozen=True, eq=False)  # no slots: what is told is kept
class Finding:
    """One measure of one bar; `value` is in `unit`. Nothing found: Step 0, no value, no place.

    It is told when somebody asks: most Steps that are looked at while a version is sought are not.
    """

    step: float
    unit: str
    tell: Callable[[], Told]

    @cached_property
    def _told(self) -> Told:
        return self.tell()

    @property
    def value(self) -> float | None:
        """The raw value."""
        return self._told.value

    @property
    def place(self) -> Place | None:
        """Where the worst of it is."""
        return self._told.place

    @property
    def evidence(self) -> str:
        """A sentence in plain words."""
        return self._told.evidence

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Finding) and (self.step, self.unit, self._told) == (
            other.step,
            other.unit,
            other._told,
        )

    __hash__ = None  # type: ignore[assignment]


def _told_nothing() -> Told:
    return Told(None, None, "")


def nothing(unit: str) -> Finding:
    """The finding of a measure with nothing to measure."""
    return Finding(0.0, unit, _told_nothing)
