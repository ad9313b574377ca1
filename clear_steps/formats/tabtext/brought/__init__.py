"""What people bring, made into what we write: each step changes lines where they stand, so that line numbers
hold, and tells what it took for what. What we write ourselves goes through unchanged."""

from clear_steps.formats.tabtext.brought.headings import first_song, with_headings
from clear_steps.formats.tabtext.brought.sections import with_sections
from clear_steps.formats.tabtext.brought.shells import without_shell
from clear_steps.formats.tabtext.brought.signs import with_our_signs
from clear_steps.formats.tabtext.brought.systems import with_even_systems
from clear_steps.formats.tabtext.problems import Findings


def as_we_write(lines: list[str], findings: Findings) -> list[str]:
    """The lines of a text as our own grammar has them; guesses are told."""
    plain = with_sections(first_song(without_shell(lines, findings), findings), findings)
    return with_headings(with_our_signs(with_even_systems(plain, findings)), findings)


__all__ = ["as_we_write"]
