"""What a mail, a web page or an editor puts around a tab: quoting, line numbers, other dashes and blanks."""

import html
import itertools
import re

from clear_steps.formats.tabtext.lines import NOTHING
from clear_steps.formats.tabtext.problems import Findings

_MOSTLY = 0.8  # of the lines that are not empty
_LEAST_LINES = 4
_DASHES = str.maketrans(dict.fromkeys("‐‑‒–—―−─━", "-"))
_BLANKS = str.maketrans({**dict.fromkeys("\u00a0\u2007\u2009\u202f\u3000", " "), "\u200b": "", "\ufeff": ""})
_BAR_LINES = str.maketrans(dict.fromkeys("│┃｜¦", "|"))
_ENTITY = re.compile(r"&(?:[a-z]{2,6}|#\d{2,5});", re.IGNORECASE)
_TAG = re.compile(r"</?(?:pre|br|p|div|span|code|tt|b|i|font|html|body)\b[^<>]*>", re.IGNORECASE)
_QUOTED = re.compile(r"(?:> ?)+")
_NUMBERED = re.compile(r"\s{0,4}(?P<number>\d{1,5})(?P<behind>[:.)]?(?:\s{1,3}|$))")
_BROKEN = re.compile(r"\s{0,4}[A-Ga-g][#b]?\d?\s?[|:].{50,}[^|\s]")  # as wide as a mail is
_REST = re.compile(r"[-|0-9hpbrstxX/\\~()<>=.*]+\|")
_LEAST_DASHES = 3  # of a string line


def without_shell(lines: list[str], findings: Findings) -> list[str]:
    """The lines as they were before they were sent, shown or copied."""
    lines = [line.translate(_BLANKS) for line in lines]
    for peeled, what, taken in (
        (_unescaped(lines), "signs of a web page", "read as what they stand for"),
        (_unquoted(lines), "the quoting of a mail", "taken off"),
        (_unnumbered(lines), "line numbers in front", "taken off"),
    ):
        if peeled is not None:
            findings.guessed(1, 1, what, taken)
            return without_shell(peeled, findings)
    return _unwrapped([_plain_signs(line) for line in lines], findings)


def _unwrapped(lines: list[str], findings: Findings) -> list[str]:
    """Lines that a mail broke at its width put together again: each string line without an end is followed
    by a line that has one and no name."""
    broken = [
        at
        for at in range(len(lines) - 1)
        if _BROKEN.fullmatch(lines[at].rstrip()) and _REST.fullmatch(lines[at + 1].strip())
    ]
    if len(broken) < _LEAST_LINES:
        return lines
    made = list(lines)
    for at in broken:
        made[at], made[at + 1] = lines[at].rstrip() + lines[at + 1].strip(), NOTHING
    findings.guessed(broken[0] + 1, 1, "string lines are broken in two", "they are put together again")
    return made


def _unescaped(lines: list[str]) -> list[str] | None:
    if not any(_ENTITY.search(line) or _TAG.search(line) for line in lines):
        return None
    plain = [html.unescape(_TAG.sub("", line)) for line in lines]
    return plain if plain != lines else None


def _unquoted(lines: list[str]) -> list[str] | None:
    full = [line for line in lines if line.strip()]
    quoted = sum(line.startswith(">") for line in full)
    if len(full) < _LEAST_LINES or quoted < _MOSTLY * len(full):
        return None
    return [line[match.end() :] if (match := _QUOTED.match(line)) else line for line in lines]


def _unnumbered(lines: list[str]) -> list[str] | None:
    """Without the numbers in front, where they count the lines one by one."""
    while lines and not lines[-1].strip():
        lines = lines[:-1]
    matches = [_NUMBERED.match(line) for line in lines]
    numbers = [int(match["number"]) for match in matches if match]
    if len(numbers) < max(_LEAST_LINES, _MOSTLY * len(lines)):
        return None
    if any(later - number != 1 for number, later in itertools.pairwise(numbers)):
        return None
    return [line[match.end() :] if match else line for line, match in zip(lines, matches, strict=True)]


def _plain_signs(line: str) -> str:
    """Other dashes and bar lines as ours, where a line is one of a string."""
    plain = line.translate(_BAR_LINES)
    dashed = plain.translate(_DASHES)
    return dashed if "|" in plain and dashed.count("-") >= _LEAST_DASHES else plain
