"""From notes to a Step: measures, ladder, and what follows from them."""

from clear_steps.core.grade.alternatives import Alternative, alternatives
from clear_steps.core.grade.finding import Finding, Place
from clear_steps.core.grade.ladder import CURVE_NAMES, Ladder
from clear_steps.core.grade.measures import HEADLINE, MEASURES, Measure
from clear_steps.core.grade.step import BarGrade, Grader, GradeRequest, Grading, Weighing, grade_part, grade_song

__all__ = [
    "CURVE_NAMES", "HEADLINE", "MEASURES", "Alternative", "BarGrade", "Finding", "GradeRequest", "Grader", "Grading", "Ladder", "Measure",
    "Place", "Weighing", "alternatives", "grade_part", "grade_song",
]  # fmt: skip
