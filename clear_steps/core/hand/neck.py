"""The neck in millimetres: equal temperament and tapering strings."""

from dataclasses import dataclass
from functools import lru_cache

# String spacing at nut and bridge, mm (from memory: usual for steel strings).
NUT_SPACING_MM, BRIDGE_SPACING_MM = 7.0, 10.5


@dataclass(frozen=True, slots=True)
class Neck:
    """A neck of one scale length (mm) with a capo; frets below count from the capo."""

    scale_length_mm: float = 648.0
    capo: int = 0

    def fret_mm(self, fret: float) -> float:
        """Distance from the nut to a fret: L (1 - 2^(-n/12))."""
        return fret_distance_mm(self.scale_length_mm, fret + self.capo)

    def fret_width_mm(self, fret: int) -> float:
        """Distance from the fret before it: the room a finger aims at."""
        return self.fret_mm(fret) - self.fret_mm(fret - 1)

    def string_mm(self, string: int, fret: float) -> float:
        """Distance of a string from the 1st at a fret, across the neck."""
        along = self.fret_mm(fret) / self.scale_length_mm
        return (string - 1) * (NUT_SPACING_MM + (BRIDGE_SPACING_MM - NUT_SPACING_MM) * along)


@lru_cache(maxsize=4096)
def fret_distance_mm(scale_length_mm: float, fret: float) -> float:
    """Distance from the nut to fret n of a bare neck, mm."""
    return float(scale_length_mm * (1 - 2 ** (-fret / 12)))
