"""Several guitars in one text: a name over every system says whose it is, and each becomes a part."""

import re
from collections.abc import Sequence

from clear_steps.formats.tabtext.brought.strings import runs_of
from clear_steps.formats.tabtext.lines import GOES_ON
from clear_steps.formats.tabtext.problems import Findings

_NAME = re.compile(
    r"[-=*\s\[(]*(?P<name>(?:(?:lead|rhythm|clean|acoustic|electric|bass|solo|first|second|1st|2nd) )?"
    r"(?:gtr|guitar|git|bass|lead|rhythm|ukulele)s?\.? ?(?:\d|[ivIV]{1,3}|one|two|three)?)"
    r"(?: ?\((?P<about>[^()]{1,40})\))?[-=*\s\]):.]*",
    re.IGNORECASE,
)
_FARTHEST = 6  # lines between a guitar's name and its system


def with_parts(lines: list[str], findings: Findings) -> list[str]:
    """The lines with the names of guitars as parts that begin or go on, where there are two of them."""
    named = {at: name for at in _over_systems(lines) if (name := _name_in(lines[at]))}
    names = list(dict.fromkeys(named.values()))
    if len(names) < 2:
        return lines
    made = list(lines)
    for at, name in named.items():
        made[at] = f"{GOES_ON}: {name}"
    first = min(named)
    what = f"{len(names)} guitars stand in the text: {', '.join(names)}"
    findings.guessed(first + 1, 1, what, "each is a part")
    return made


def _name_in(line: str) -> str:
    match = _NAME.fullmatch(line)
    return " ".join(match["name"].split()) if match else ""


def _over_systems(lines: Sequence[str]) -> list[int]:
    """Lines that stand over a system, nothing but words or an empty line between."""
    found: list[int] = []
    runs = runs_of(lines)
    taken = {at for run in runs for at in run}
    for run in runs:
        for at in range(run[0] - 1, max(run[0] - 1 - _FARTHEST, -1), -1):
            if at in taken:
                break
            found.append(at)
    return sorted(set(found))
