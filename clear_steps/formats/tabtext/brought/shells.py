"""What a mail, a web page or an editor puts around a tab: quoting, line numbers, other dashes and blanks."""

import html
import itertools
import re

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
_LEAST_DASHES = 3  # of a string line


def without_shell(lines: list[str], findings: Findings) -> list[str]:
    """The lines as they were before they were sent, shown or copied."""
    lines = [line.translate(_BLANKS) for line in lines]
    for peeled, words in (
        (_unescaped(lines), "the signs of a web page are read as what they stand for"),
        (_unquoted(lines), "the quoting of a mail is taken off"),
        (_unnumbered(lines), "the line numbers in front are taken off"),
    ):
        if peeled is not None:
            findings.guessed(1, 1, words)
            return without_shell(peeled, findings)
    return [_plain_signs(line) for line in lines]


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
