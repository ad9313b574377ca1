"""The measures of a bar, one module each, behind one small interface."""

from collections.abc import Callable
from dataclasses import dataclass

from clear_steps.core.grade.finding import Finding
from clear_steps.core.grade.ladder import Ladder
from clear_steps.core.grade.measures.damping import damping
from clear_steps.core.grade.measures.independence import independence
from clear_steps.core.grade.measures.picking import picking
from clear_steps.core.grade.measures.rhythm import rhythm
from clear_steps.core.grade.measures.shapes import shapes
from clear_steps.core.grade.measures.shift import shift
from clear_steps.core.grade.measures.speed import speed
from clear_steps.core.grade.measures.stretch import stretch
from clear_steps.core.grade.measures.technique import technique
from clear_steps.core.grade.played import PlayedBar


@dataclass(frozen=True, slots=True)
class Measure:
    """A name, what it looks at in words, and the function that judges a bar by a ladder."""

    name: str
    about: str
    judge: Callable[[PlayedBar, Ladder], Finding]
    of_the_score: bool = False  # whatever the fingering, the same at one tempo


_ROWS = (
    Measure("stretch", "how far the fingers spread, against the hand's span", stretch),
    Measure("shift", "how little time there is to move the hand along the neck", shift),
    Measure("speed", "notes per second, fretting and picking hand apart", speed),
    Measure("technique", "bends, slides, taps and the like, and how often", technique),
    Measure("shapes", "how hard a grip is to set, and how often it changes", shapes),
    Measure(
        "picking",
        "what the picking hand must find: strings skipped, far strings at once",
        picking,
        of_the_score=True,
    ),
    Measure("damping", "strings that would ring and must not", damping, of_the_score=True),
    Measure("rhythm", "syncopation, tuplets, odd or changing metre", rhythm, of_the_score=True),
    Measure("independence", "re-fretting one voice while another rings on", independence),
)
MEASURES: dict[str, Measure] = {row.name: row for row in _ROWS}
HEADLINE = ("stretch", "shift", "speed", "technique")
