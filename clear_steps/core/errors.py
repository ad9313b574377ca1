"""The one family of errors that a user can cause."""

from dataclasses import dataclass


class ClearStepsError(Exception):
    """Base of every error that is the input's fault; `code` is stable, the text is for people."""

    code = "error"


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong in a text: line and column count from 1."""

    line: int
    column: int
    message: str

    def __str__(self) -> str:
        return f"{self.line}:{self.column}: {self.message}"


@dataclass(frozen=True, slots=True)
class Guess:
    """One thing a reading took for granted: what stands there, or is missing, and what it was taken for."""

    line: int  # 0 where the file has no lines of its own
    column: int
    what: str
    taken: str

    @property
    def message(self) -> str:
        """Both in one sentence."""
        return f"{self.what}; {self.taken}" if self.taken else self.what

    def __str__(self) -> str:
        return f"line {self.line}: {self.message}" if self.line else self.message


class ReadError(ClearStepsError):
    """A text or file could not be read; every problem found is in `problems`."""

    code = "unreadable"

    def __init__(self, problems: tuple[Problem, ...]) -> None:
        self.problems = problems
        super().__init__(str(problems[0]))

    def __reduce__(self) -> tuple[type["ReadError"], tuple[tuple[Problem, ...]]]:
        return ReadError, (self.problems,)  # so that it comes through from another process


class InvalidValueError(ClearStepsError):
    """A value lies outside what the field allows; the text says which and what was expected."""

    code = "invalid"

    def __init__(self, field: str, found: object, expected: str) -> None:
        self.field = field
        self._arguments = (field, found, expected)
        super().__init__(f"{field} is {found!r}; expected {expected}")

    def __reduce__(self) -> tuple[type["InvalidValueError"], tuple[str, object, str]]:
        return InvalidValueError, self._arguments  # as above
