"""One header line of a text changed: everything else stays as it was typed."""

from clear_steps.core.errors import InvalidValueError
from clear_steps.core.score import Part, Song
from clear_steps.formats.tabtext.brought import as_we_write
from clear_steps.formats.tabtext.brought.tunings import said_tuning
from clear_steps.formats.tabtext.header import Headers, read_header_value
from clear_steps.formats.tabtext.lines import HEADING
from clear_steps.formats.tabtext.problems import Findings

HEADLINES = ("Title", "Tempo", "Time", "Tuning", "Capo")


def with_heading(text: str, key: str, value: str) -> str:
    """The text with a header line, in place of the line that says the same in its own words, else where ours
    stand; without it where the value is empty. Raises InvalidValueError for a value that says nothing."""
    value = " ".join(value.split())
    if key not in HEADLINES:
        raise InvalidValueError("heading", key, f"one of {', '.join(HEADLINES)}")
    if value and key == "Tuning":
        value = said_tuning(value) or value
    if value:
        read_header_value(Headers(Song(), Part()), key, value)
    lines = text.split("\n")
    understood = as_we_write([line.rstrip("\r") for line in lines], Findings())
    said = [line.removeprefix(HEADING).split(":", 1)[0] for line in understood]
    at = said.index(key) if key in said else None
    if at is not None:
        lines[at : at + 1] = [f"{key}: {value}"] if value else []
    elif value:
        before = HEADLINES[: HEADLINES.index(key)]
        behind = max((said.index(own) + 1 for own in before if own in said), default=0)
        lines.insert(behind, f"{key}: {value}")
    return "\n".join(lines)
