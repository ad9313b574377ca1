"""Signs on the strings as people type them, as ours, each at its column."""

import re
from collections.abc import Callable
from functools import partial

_STRING = re.compile(r" {0,8}(?:[A-Ga-g][#b♯♭]?-?\d?|\d)? {0,2}[|:].*")
_FULL, _HALF = 2, 1  # half tones


def with_our_signs(lines: list[str]) -> list[str]:
    """The lines with string lines in our signs; what is not known stays and is told by the reading."""
    return [_ours(line) if line.count("-") >= 2 and _STRING.fullmatch(line) else line for line in lines]


def _ours(line: str) -> str:
    start = line.index("|") if "|" in line else 0
    head, body = line[:start], line[start:]
    for pattern, write in _SIGNS:
        body = pattern.sub(partial(_padded, write), body)
    return head + body


def _padded(write: Callable[[re.Match[str]], str], match: re.Match[str]) -> str:
    """Ours in the same columns; where ours is longer, what is there stays."""
    ours = write(match)
    return ours.ljust(len(match.group()), "-") if len(ours) <= len(match.group()) else match.group()


def _bent(match: re.Match[str], half_tones: int) -> str:
    return f"{match['fret']}b{int(match['fret']) + half_tones}"


_SIGNS: tuple[tuple[re.Pattern[str], Callable[[re.Match[str]], str]], ...] = (
    (re.compile(r"T(?=\d)"), lambda _: "t"),
    (re.compile(r"(?<=\d)[HP](?=\d)"), lambda match: match.group().lower()),
    (
        re.compile(r"(?P<fret>\d{1,2})-(?P<sign>[hp/\\])-(?P<to>\d{1,2})"),
        lambda m: f"{m['fret']}--{m['sign']}{m['to']}",
    ),
    (re.compile(r"(?<=\d)//(?=\d)"), lambda _: "/"),
    (re.compile(r"(?<=\d)[v~]+"), lambda _: "~"),
    (re.compile(r"\[(?P<fret>\d{1,2})\]"), lambda match: f"<{match['fret']}>"),
    (re.compile(r"(?P<fret>\d{1,2})\*-"), lambda match: f"<{match['fret']}>"),
    (re.compile(r"(?P<fret>\d{1,2})b\(?full\)?"), lambda match: _bent(match, _FULL)),
    (re.compile(r"(?P<fret>\d{1,2})b\(?(?:1/2|½|half)\)?"), lambda match: _bent(match, _HALF)),
    (re.compile(r"(?P<fret>\d{1,2})b\((?P<to>\d{1,2})\)"), lambda match: f"{match['fret']}b{match['to']}"),
    (
        re.compile(r"(?P<bent>\d{1,2}b\d{1,2})-r(?P<back>\d{1,2})"),
        lambda match: f"{match['bent']}r{match['back']}",
    ),
)
