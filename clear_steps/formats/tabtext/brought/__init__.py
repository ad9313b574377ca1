"""What people bring, made into what we write: each step changes lines where they stand, so that line numbers
hold, and tells what it took for what. What we write ourselves goes through unchanged."""

from clear_steps.formats.tabtext.brought.headings import with_headings
from clear_steps.formats.tabtext.brought.shells import without_shell
from clear_steps.formats.tabtext.problems import Findings


def as_we_write(lines: list[str], findings: Findings) -> list[str]:
    """The lines of a text as our own grammar has them; guesses are told."""
    return with_headings(without_shell(lines, findings), findings)


__all__ = ["as_we_write"]
