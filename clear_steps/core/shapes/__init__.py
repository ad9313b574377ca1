"""What a player sees: grips held and carried, places of the hand, open strings; read from the score alone."""

from clear_steps.core.shapes.familiar import familiar_grips, open_grips
from clear_steps.core.shapes.moments import HAND_FRETS, Moment
from clear_steps.core.shapes.naming import index_fret, sounding_name
from clear_steps.core.shapes.patterns import Pattern, Said
from clear_steps.core.shapes.reading import read_shapes, shapes_in
from clear_steps.core.shapes.stretch import Grip, Kind, Place, Shapes, Stretch
from clear_steps.core.shapes.taught import Around, around_bars, taught_in

__all__ = [
    "HAND_FRETS",
    "Around",
    "Grip",
    "Kind",
    "Moment",
    "Pattern",
    "Place",
    "Said",
    "Shapes",
    "Stretch",
    "around_bars",
    "familiar_grips",
    "index_fret",
    "open_grips",
    "read_shapes",
    "shapes_in",
    "sounding_name",
    "taught_in",
]
