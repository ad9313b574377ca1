"""Collects what is wrong and what was guessed while a text is read."""

from dataclasses import dataclass, field

from clear_steps.core.errors import Guess, Problem

MAX_PROBLEMS, MAX_GUESSES = 50, 1_000
NO_METRE, NO_TUNING = "no metre is written", "no tuning is written"
MOST_QUOTED = 40  # characters


def short(text: str, most: int = MOST_QUOTED) -> str:
    """What was found, as a message quotes it: so many characters of it at most."""
    return text if len(text) <= most else f"{text[:most]}..."


@dataclass
class Findings:
    """Problems stop the reading of the song; guesses are told and do not."""

    problems: list[Problem] = field(default_factory=list)
    guesses: list[Guess] = field(default_factory=list)
    remarks: list[tuple[int, str]] = field(default_factory=list)  # words taken off a line of a system

    def has_told(self, what: str) -> bool:
        """Whether the same was guessed before."""
        return any(guess.what == what for guess in self.guesses)

    def wrong(self, line: int, column: int, message: str) -> None:
        """Note a problem; line and column count from 1."""
        if len(self.problems) < MAX_PROBLEMS:
            self.problems.append(Problem(line, column, message))

    def remarked(self, line: int, text: str) -> None:
        """Keep words of a line of a system as a remark behind it."""
        self.remarks.append((line, text))

    def guessed(self, line: int, column: int, what: str, taken: str) -> None:
        """Note a guess the teacher should see: what stands there, and what it is taken for."""
        if len(self.guesses) < MAX_GUESSES:
            self.guesses.append(Guess(line, column, what, taken))
