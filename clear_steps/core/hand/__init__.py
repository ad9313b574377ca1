"""What the fretting hand does: the neck in mm, grips, moves and the cheapest path."""

from clear_steps.core.hand.curve import HARDEST_STEP, Curve
from clear_steps.core.hand.demands import Demand, Links, Shape, Spot, demands_of, is_fretted
from clear_steps.core.hand.grips import FULL_BARRE_STRINGS, Grip, grip_table
from clear_steps.core.hand.moves import SLIDE_SHARE, movement_seconds, passing_factor
from clear_steps.core.hand.neck import Neck, fret_distance_mm
from clear_steps.core.hand.path import HandPath, HandTables, PathCosts, ShapeSteps, best_paths
from clear_steps.core.hand.player import PRESET_SPANS_MM, SCHOOLS, Player, School

__all__ = [
    "FULL_BARRE_STRINGS", "HARDEST_STEP", "PRESET_SPANS_MM", "SCHOOLS", "SLIDE_SHARE", "Curve", "Demand", "Grip",
    "HandPath", "HandTables", "Links", "Neck", "PathCosts", "Player", "School", "Shape", "ShapeSteps", "Spot", "best_paths",
    "demands_of", "fret_distance_mm", "grip_table", "is_fretted", "movement_seconds", "passing_factor",
]  # fmt: skip
