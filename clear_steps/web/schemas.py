"""What every answer may hold: errors, and problems by line and column."""

from pydantic import BaseModel

from clear_steps.core.errors import Guess, Problem
from clear_steps.formats.tabtext import Reading


class PlaceModel(BaseModel):
    """Where in a text: line and column from 1."""

    line: int
    column: int


class ProblemModel(BaseModel):
    """One thing wrong or guessed, with its place, and the bar there (part and bar as indexes), if any."""

    place: PlaceModel
    message: str
    part: int | None = None
    bar: int | None = None


class ErrorModel(BaseModel):
    """The one shape of every error."""

    code: str = "error"
    message: str = ""
    place: PlaceModel | None = None
    problems: list[ProblemModel] = []


def problem_model(problem: Problem | Guess, reading: Reading | None = None) -> ProblemModel:
    """A problem or guess as the API tells it; by a reading its bar as well, of a problem in lines that could
    not be placed the bar before them."""
    at = reading and reading.bar_at(problem.line, problem.column)
    if reading and at is None and isinstance(problem, Problem):
        at = reading.bar_before(problem.line)
    part, bar = at or (None, None)
    place = PlaceModel(line=problem.line, column=problem.column)
    return ProblemModel(place=place, message=problem.message, part=part, bar=bar)
