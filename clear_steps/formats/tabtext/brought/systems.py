"""Systems as people type them: words behind the last bar line, lines a dash long or short, the thinnest
string below. Lines are made even where no note moves."""

import re
from collections import Counter
from collections.abc import Sequence

from clear_steps.core.score import STANDARD
from clear_steps.formats.tabtext.problems import Findings, short

_STRING = re.compile(
    r" {0,8}(?P<name>[A-Ga-g][#b♯♭]?-?\d?|\d)? {0,2}(?P<body>[|:]{1,2}[^|].*\|)(?P<tail>[^|]*)"
)
_TIMES = re.compile(r"\(?(?:x ?(?P<before>\d{1,2})|(?P<behind>\d{1,2}) ?x)\)?", re.IGNORECASE)
_WRITTEN_TIMES = re.compile(r" ?x(?:\d{1,2}|\?)")
_FEWEST = 4  # lines of a system


def with_even_systems(lines: list[str], findings: Findings) -> list[str]:
    """The lines with every system as we write it."""
    made = list(lines)
    for first, stop in _systems(lines):
        own = made[first:stop]
        own = _without_tails(own, first, findings)
        own = _thinnest_first(own, first, findings)
        made[first:stop] = _even(own, first, findings)
    return made


def _systems(lines: Sequence[str]) -> list[tuple[int, int]]:
    """Runs of string lines, from the first to behind the last."""
    runs: list[tuple[int, int]] = []
    begun: int | None = None
    for at, line in enumerate([*lines, ""]):
        is_string = bool(line.count("-") >= 2 and _STRING.fullmatch(line.rstrip()))
        if is_string and begun is None:
            begun = at
        if not is_string and begun is not None:
            if at - begun >= _FEWEST:
                runs.append((begun, at))
            begun = None
    return runs


def _without_tails(lines: list[str], first: int, findings: Findings) -> list[str]:
    """What stands behind the last bar line: how often to play it, or words that are told."""
    made = []
    for at, line in enumerate(lines, start=first + 1):
        match = _STRING.fullmatch(line.rstrip())
        tail = match["tail"] if match else ""
        if not match or not tail.strip() or _WRITTEN_TIMES.fullmatch(tail):
            made.append(line)
            continue
        body, times = line.rstrip()[: match.end("body")], _TIMES.fullmatch(tail.strip())
        if times:
            made.append(f"{body} x{times['before'] or times['behind']}")
        else:
            findings.guessed(
                at, match.end("body") + 1, f"'{short(tail.strip())}' stands behind the bars; it is no music"
            )
            made.append(body)
    return made


def _thinnest_first(lines: list[str], first: int, findings: Findings) -> list[str]:
    names = [match["name"] or "" if (match := _STRING.fullmatch(line.rstrip())) else "" for line in lines]
    upside_down = [name.rstrip("0123456789") for name in reversed(names)]
    if tuple(name.upper() for name in upside_down) != STANDARD.letters or names[0] != "E" or names[-1] != "e":
        return lines
    findings.guessed(first + 1, 1, "the lowest string stands on top here, by the letters; it is read so")
    return lines[::-1]


def _even(lines: list[str], first: int, findings: Findings) -> list[str]:
    """Bars of one width in all lines of a system: dashes at their ends come and go, never a note."""
    matches = [_STRING.fullmatch(line.rstrip()) for line in lines]
    rows = [match["body"].split("|") if match else [] for match in matches]
    heads = [line[: match.start("body")] if match else "" for line, match in zip(lines, matches, strict=True)]
    widths = [[len(cell) for cell in row] for row in rows]
    width = max(map(len, heads))
    if len({len(row) for row in rows}) != 1 or (
        all(own == widths[0] for own in widths) and len(set(map(len, heads))) == 1
    ):
        return lines
    made = [list(row) for row in rows]
    for column in range(len(rows[0])):
        cells = [row[column] for row in rows]
        target = _width(cells)
        for row, cell in zip(made, cells, strict=True):
            row[column] = _at_width(cell, target)
    findings.guessed(
        first + 1, 1, "the string lines are not equally long; dashes at the ends of bars make them even"
    )
    tails = [match["tail"] if match else "" for match in matches]
    return [
        head.ljust(width) + "|".join(row) + tail for head, row, tail in zip(heads, made, tails, strict=True)
    ]


def _width(cells: Sequence[str]) -> int:
    """The width of most, or as wide as the widest needs."""
    usual = Counter(map(len, cells)).most_common(1)[0][0]
    needed = max(
        len(cell.rstrip("-")) + (1 if cell.endswith("-") and len(cell.rstrip("-")) < len(cell) else 0)
        for cell in cells
    )
    return max(usual, min(needed, max(map(len, cells))))


def _at_width(cell: str, width: int) -> str:
    ends = ":" if cell.endswith(":") else ""
    body = cell.removesuffix(":")
    if len(cell) < width:
        return body + "-" * (width - len(cell)) + ends
    spare = len(body) - len(body.rstrip("-"))
    return body[: len(body) - min(len(cell) - width, spare)] + ends
