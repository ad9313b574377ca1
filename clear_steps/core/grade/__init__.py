"""From notes to a Step: measures, ladder, and what follows from them."""

from clear_steps.core.grade.adding import WEIGHINGS, Weighing, added_up
from clear_steps.core.grade.alternatives import SCHOOL_TITLES, alternatives
from clear_steps.core.grade.differences import Difference, difference
from clear_steps.core.grade.finding import Finding, Place
from clear_steps.core.grade.heard import guessed_ringing
from clear_steps.core.grade.ladder import TUNE_FLOOR, Ladder, Modifier
from clear_steps.core.grade.limits import Ability, Beyond, HardestShape, Limits
from clear_steps.core.grade.measures import CURVE_NAMES, HEADLINE, MEASURES, Measure
from clear_steps.core.grade.past import PastBar, Reach, bars_past, reach_of
from clear_steps.core.grade.pickinghand import asks_for_fingers
from clear_steps.core.grade.pins import pins_not_kept
from clear_steps.core.grade.rungs import Rung, rungs
from clear_steps.core.grade.step import (
    BarGrade,
    Grader,
    GradeRequest,
    Grading,
    grade_part,
    grade_song,
    hand_tables,
)
from clear_steps.core.grade.telling import three_sentences
from clear_steps.core.grade.uncertainty import StepRange, step_range
from clear_steps.core.grade.way import SAME_STEP, Alternative

__all__ = [
    "CURVE_NAMES",
    "HEADLINE",
    "MEASURES",
    "SAME_STEP",
    "SCHOOL_TITLES",
    "TUNE_FLOOR",
    "WEIGHINGS",
    "Ability",
    "Alternative",
    "BarGrade",
    "Beyond",
    "Difference",
    "Finding",
    "GradeRequest",
    "Grader",
    "Grading",
    "HardestShape",
    "Ladder",
    "Limits",
    "Measure",
    "Modifier",
    "PastBar",
    "Place",
    "Reach",
    "Rung",
    "StepRange",
    "Weighing",
    "added_up",
    "alternatives",
    "asks_for_fingers",
    "bars_past",
    "difference",
    "grade_part",
    "grade_song",
    "guessed_ringing",
    "hand_tables",
    "pins_not_kept",
    "reach_of",
    "rungs",
    "step_range",
    "three_sentences",
]
