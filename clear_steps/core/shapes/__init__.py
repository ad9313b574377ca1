"""What a player sees: grips held and carried, places of the hand, open strings; read from the score alone."""

from clear_steps.core.shapes.patterns import Pattern, Said
from clear_steps.core.shapes.reading import read_shapes
from clear_steps.core.shapes.stretch import Grip, Kind, Place, Shapes, Stretch

__all__ = [
    "Grip",
    "Kind",
    "Pattern",
    "Place",
    "Said",
    "Shapes",
    "Stretch",
    "read_shapes",
]
