"""From notes to a Step: measures, ladder, and what follows from them."""

from clear_steps.core.grade.finding import Finding, Place
from clear_steps.core.grade.ladder import CURVE_NAMES, Ladder
from clear_steps.core.grade.measures import HEADLINE, MEASURES, Measure
from clear_steps.core.grade.step import BarGrade, GradeRequest, Grading, Weighing, base_and_memory, grade_part, grade_song, hand_tables

__all__ = [
    "CURVE_NAMES", "HEADLINE", "MEASURES", "BarGrade", "Finding", "GradeRequest", "Grading", "Ladder", "Measure",
    "Place", "Weighing", "base_and_memory", "grade_part", "grade_song", "hand_tables",
]  # fmt: skip
