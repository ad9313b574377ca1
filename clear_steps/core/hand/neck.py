"""The neck in millimetres: equal temperament."""

from dataclasses import dataclass
from functools import lru_cache


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


@lru_cache(maxsize=4096)
def fret_distance_mm(scale_length_mm: float, fret: float) -> float:
    """Distance from the nut to fret n of a bare neck, mm."""
    return float(scale_length_mm * (1 - 2 ** (-fret / 12)))
