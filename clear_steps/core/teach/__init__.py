"""What a teacher hands over beside the notes: shapes to draw, and what to take care of."""

from clear_steps.core.teach.cautions import LOUDNESS, PAIN, Caution, cautions
from clear_steps.core.teach.seating import Playable, best_fit
from clear_steps.core.teach.shapes import Shape, ShapePlace, shape_places, shapes

__all__ = [
    "LOUDNESS",
    "PAIN",
    "Caution",
    "Playable",
    "Shape",
    "ShapePlace",
    "best_fit",
    "cautions",
    "shape_places",
    "shapes",
]
