"""What the fretting hand does: the neck in mm, grips, moves and the cheapest path."""

from clear_steps.core.hand.book import DemandsBook
from clear_steps.core.hand.costs import HandTables, PathCosts, ShapeSteps, shared_tables
from clear_steps.core.hand.curve import HARDEST_STEP, Curve
from clear_steps.core.hand.demands import (
    BarDemands,
    Demand,
    Links,
    Shape,
    Spot,
    Tapped,
    demands_of_bar,
    is_fretted,
)
from clear_steps.core.hand.elsewhere import AT_ITS_PLACE, moments_of, on_other_strings, put_down
from clear_steps.core.hand.fingering import (
    Fingered,
    Fingerer,
    gaps_of,
    layers_of,
    layers_of_part,
)
from clear_steps.core.hand.grips import (
    FULL_BARRE_STRINGS,
    PAST_ANY_HAND_MM,
    Grip,
    Setting,
    grip_table,
    keeps_taught,
)
from clear_steps.core.hand.moves import A_SHAPE, GUIDE_SHARE, SLIDE_SHARE, movement_seconds, passing_factor
from clear_steps.core.hand.neck import Neck, fret_distance_mm
from clear_steps.core.hand.path import HandPath, Layer, best_paths, k_best_paths
from clear_steps.core.hand.placing import Moment, Pitch, can_be_placed, place, places_of
from clear_steps.core.hand.player import PRESET_SPANS_MM, SCHOOLS, Habits, LittleFinger, Player, School

__all__ = [
    "AT_ITS_PLACE",
    "A_SHAPE",
    "FULL_BARRE_STRINGS",
    "GUIDE_SHARE",
    "HARDEST_STEP",
    "PAST_ANY_HAND_MM",
    "PRESET_SPANS_MM",
    "SCHOOLS",
    "SLIDE_SHARE",
    "BarDemands",
    "Curve",
    "Demand",
    "DemandsBook",
    "Fingered",
    "Fingerer",
    "Grip",
    "Habits",
    "HandPath",
    "HandTables",
    "Layer",
    "Links",
    "LittleFinger",
    "Moment",
    "Neck",
    "PathCosts",
    "Pitch",
    "Player",
    "School",
    "Setting",
    "Shape",
    "ShapeSteps",
    "Spot",
    "Tapped",
    "best_paths",
    "can_be_placed",
    "demands_of_bar",
    "fret_distance_mm",
    "gaps_of",
    "grip_table",
    "is_fretted",
    "k_best_paths",
    "keeps_taught",
    "layers_of",
    "layers_of_part",
    "moments_of",
    "movement_seconds",
    "on_other_strings",
    "passing_factor",
    "place",
    "places_of",
    "put_down",
    "shared_tables",
]  # fmt: skip
