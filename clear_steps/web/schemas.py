"""What every answer may hold: errors, and problems by line and column."""

from pydantic import BaseModel

from clear_steps.core.errors import Problem


class PlaceModel(BaseModel):
    """Where in a text: line and column from 1."""

    line: int
    column: int


class ProblemModel(BaseModel):
    """One thing wrong or guessed, with its place."""

    place: PlaceModel
    message: str


class ErrorModel(BaseModel):
    """The one shape of every error."""

    code: str = "error"
    message: str = ""
    place: PlaceModel | None = None
    problems: list[ProblemModel] = []


def problem_model(problem: Problem) -> ProblemModel:
    """A problem as the API tells it."""
    return ProblemModel(place=PlaceModel(line=problem.line, column=problem.column), message=problem.message)
