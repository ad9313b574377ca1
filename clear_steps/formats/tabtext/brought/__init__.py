"""What people bring, made into what we write: each step changes lines where they stand, so that line numbers
hold, and tells what it took for what. What we write ourselves goes through unchanged."""

from clear_steps.formats.tabtext.brought.diagrams import DIAGRAM, without_diagrams
from clear_steps.formats.tabtext.brought.guitars import with_parts
from clear_steps.formats.tabtext.brought.headings import with_headings
from clear_steps.formats.tabtext.brought.labels import with_our_labels
from clear_steps.formats.tabtext.brought.sections import with_sections
from clear_steps.formats.tabtext.brought.shells import without_shell
from clear_steps.formats.tabtext.brought.signs import with_our_signs
from clear_steps.formats.tabtext.brought.songs import first_song, songs_in
from clear_steps.formats.tabtext.brought.systems import with_even_systems
from clear_steps.formats.tabtext.problems import Findings

_STEPS = (
    without_diagrams,
    with_sections,
    with_parts,
    with_even_systems,
    with_our_labels,
    with_our_signs,
    with_headings,
)


def as_we_write(lines: list[str], findings: Findings) -> list[str]:
    """The lines of a text as our own grammar has them; guesses are told."""
    plain = first_song(without_shell(lines, findings), findings)
    for step in _STEPS:
        plain = step(plain, findings)
    return plain


__all__ = ["DIAGRAM", "as_we_write", "songs_in"]
