"""Collects what is wrong and what was guessed while a text is read."""

from dataclasses import dataclass, field

from clear_steps.core.errors import Problem

MAX_PROBLEMS, MAX_GUESSES = 50, 1_000
MOST_QUOTED = 40  # characters


def short(text: str) -> str:
    """What was found, as a message quotes it."""
    return text if len(text) <= MOST_QUOTED else f"{text[:MOST_QUOTED]}..."


@dataclass
class Findings:
    """Problems stop the reading of the song; guesses are told and do not."""

    problems: list[Problem] = field(default_factory=list)
    guesses: list[Problem] = field(default_factory=list)

    def wrong(self, line: int, column: int, message: str) -> None:
        """Note a problem; line and column count from 1."""
        if len(self.problems) < MAX_PROBLEMS:
            self.problems.append(Problem(line, column, message))

    def guessed(self, line: int, column: int, message: str) -> None:
        """Note a guess the teacher should see."""
        if len(self.guesses) < MAX_GUESSES:
            self.guesses.append(Problem(line, column, message))
