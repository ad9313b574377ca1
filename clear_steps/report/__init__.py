"""What the command line prints as JSON that scripts depend on; its shape is in docs/command-line.md."""

from clear_steps.report.grades import (
    compared_report,
    fingering_report,
    grade_report,
    ways_report,
    with_scale_length,
)
from clear_steps.report.lessons import chunks_report, figures_report, words_report
from clear_steps.report.shapes import shapes_report

__all__ = [
    "chunks_report",
    "compared_report",
    "figures_report",
    "fingering_report",
    "grade_report",
    "shapes_report",
    "ways_report",
    "with_scale_length",
    "words_report",
]
