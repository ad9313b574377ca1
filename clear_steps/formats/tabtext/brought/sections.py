"""Section names on lines of their own, as `[Name xN]`."""

import re

from clear_steps.formats.tabtext.brought.headings import is_written_remark
from clear_steps.formats.tabtext.problems import Findings, short

_NAME = (
    r"(?:main |opening |clean |guitar )?"
    r"(?:intro|verse|pre-?chorus|chorus|refrain|bridge|solo|outro|interlude|riff|hook|break|breakdown|coda|ending|theme"
    r"|turnaround|middle(?: 8| eight)?|part [a-d]|tag)(?: ?(?:\d|[a-d]))?"
)
_TIMES = (
    r"(?:\(? ?(?:x ?(?P<{0}>\d{{1,2}})|(?P<{1}>\d{{1,2}}) ?x|(?:play |repeat )?(?P<{2}>\d{{1,2}}) times)"
    r" ?\)?)"
)
_SECTION = re.compile(
    rf"[-=*~ ]{{0,6}}\[?(?P<name>{_NAME})(?: ?{_TIMES.format('a', 'b', 'c')})?\]?:?"
    rf"(?: ?{_TIMES.format('d', 'e', 'f')})?"
    r"(?: ?\((?P<about>[^()]{1,60})\))?:?[-=*~ ]{0,6}",
    re.IGNORECASE,
)
_REPEAT = re.compile(r"(?:repeat|play)(?: this)? (?P<times>\d{1,2}) ?(?:times|x):?", re.IGNORECASE)
_SAME = re.compile(r"same as .*", re.IGNORECASE)


def with_sections(lines: list[str], findings: Findings) -> list[str]:
    """The lines with section names as ours; a repeat of what comes is a section of its own."""
    return [_line(line, number, findings) for number, line in enumerate(lines, start=1)]


def _line(line: str, number: int, findings: Findings) -> str:
    if is_written_remark(line):
        return line
    text = " ".join(line.split())
    if repeat := _REPEAT.fullmatch(text):
        findings.guessed(number, 1, f"'{short(text)}' is taken for what follows")
        return f"[Part x{repeat['times']}]"
    match = _SECTION.fullmatch(text)
    if match is None or (text.startswith("[") and text.endswith("]") and not match["about"]):
        return line
    times = next((match[key] for key in "abcdef" if match[key]), "")
    about = match["about"] or ""
    if _SAME.fullmatch(about):
        findings.guessed(number, 1, f"'{short(text)}': the same as a section before is not written out again")
        about = ""
    counted = f" x{times}" if times and int(times) > 1 else ""
    return f"[{match['name'].strip()}{counted}]" + (f" {{{about}}}" if about else "")
