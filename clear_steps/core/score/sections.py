"""What a teacher says of a section."""

from dataclasses import replace

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score.playing import Role
from clear_steps.core.score.song import Part


def with_role(part: Part, first_bar: int, role: Role | None) -> Part:
    """The part with the section that begins at a bar (index) having a role, or a guessed one again; raises
    InvalidValueError where none begins."""
    starts = [section.first_bar for section in part.sections]
    if first_bar not in starts:
        expected = ", ".join(str(part.bar_number(start)) for start in starts) or "a song with sections"
        found = f"bar {part.bar_number(first_bar)}"
        raise InvalidValueError("section", found, f"the first bar of one: {expected}")
    sections = (
        replace(section, role=role) if section.first_bar == first_bar else section
        for section in part.sections
    )
    return replace(part, sections=tuple(sections))
