"""The neck in millimetres: equal temperament."""

from dataclasses import dataclass
from functools import lru_cache
from math import hypot


@dataclass(frozen=True, slots=True)
class Neck:
    """A neck of one scale length (mm) with a capo; frets below count from the capo."""

    scale_length_mm: float = 648.0
    capo: int = 0
    nut_spacing_mm: float = 7.0  # between neighbouring strings (from memory)
    bridge_spacing_mm: float = 10.5

    def fret_mm(self, fret: float) -> float:
        """Distance from the nut to a fret: L (1 - 2^(-n/12))."""
        return fret_distance_mm(self.scale_length_mm, fret + self.capo)

    def across_mm(self, strings: int, fret: float) -> float:
        """Distance across so many strings at a fret, between the spacing at the nut and that at the
        bridge."""
        share = self.fret_mm(fret) / self.scale_length_mm
        return abs(strings) * (self.nut_spacing_mm + (self.bridge_spacing_mm - self.nut_spacing_mm) * share)

    def true_mm(self, a: tuple[int, int], b: tuple[int, int]) -> float:
        """Distance between two (string, fret) spots, along and across."""
        along = abs(self.fret_mm(a[1]) - self.fret_mm(b[1]))
        return hypot(along, self.across_mm(a[0] - b[0], (a[1] + b[1]) / 2))

    def fret_width_mm(self, fret: int) -> float:
        """Distance from the fret before it: the room a finger aims at."""
        return self.fret_mm(fret) - self.fret_mm(fret - 1)


@lru_cache(maxsize=4096)
def fret_distance_mm(scale_length_mm: float, fret: float) -> float:
    """Distance from the nut to fret n of a bare neck, mm."""
    return float(scale_length_mm * (1 - 2 ** (-fret / 12)))
