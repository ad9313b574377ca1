"""Systems as people type them: words behind the last bar line, lines a dash long or short, the thinnest
string below. Lines are made even where no note moves."""

import itertools
import re
from bisect import bisect_right
from collections import Counter
from collections.abc import Sequence

from clear_steps.core.score import STANDARD
from clear_steps.formats.tabtext.brought.strings import Row, row_of, runs_of
from clear_steps.formats.tabtext.lines import NOTHING, label_line
from clear_steps.formats.tabtext.problems import Findings, short

_TIMES = re.compile(
    r"\(?(?:[xX] ?(?P<before>\d{1,2})|(?P<behind>\d{1,2}) ?(?:[xX]|times))\)?(?P<more>(?:[\s,;].*)?)"
)
_WRITTEN_TIMES = re.compile(r" ?x(?:\d{1,2}|\?)")
_WORD = re.compile(r"\S++")
_FEWEST = 2  # lines of a system
_FARTHEST_LABEL = 6  # lines above or below a system whose words belong to it


def with_even_systems(lines: list[str], findings: Findings) -> list[str]:
    """The lines with every system as we write it."""
    made = list(lines)
    for run in runs_of(lines):
        if len(run) < _FEWEST:
            continue
        rows = [row for at in run if (row := row_of(made[at]))]
        _take_tails(rows, run, findings)
        rows = _thinnest_first(rows, run[0], findings)
        _make_even(rows, run, made, findings)
        _close_up(made, run)
        for at, row in zip(run, rows, strict=True):
            if made[at].rstrip() != row.text:
                made[at] = row.text
    return made


def _close_up(lines: list[str], run: Sequence[int]) -> None:
    """Empty lines between the strings of a system are passed over."""
    for one, two in itertools.pairwise(run):
        for between in range(one + 1, two):
            lines[between] = NOTHING


def _take_tails(rows: Sequence[Row], run: Sequence[int], findings: Findings) -> None:
    """What stands behind the last bar line: how often to play it, or words that become a remark."""
    for row, at in zip(rows, run, strict=True):
        words = row.tail.strip()
        if not words or _WRITTEN_TIMES.fullmatch(row.tail):
            row.tail = row.tail if words else ""
            continue
        column = len(row.text) - len(row.tail) + 1
        times = _TIMES.fullmatch(words)
        row.tail = f" x{times['before'] or times['behind']}" if times else ""
        if rest := (times["more"] if times else words).strip(" ,;"):
            findings.remarked(at + 1, rest.removeprefix("(").removesuffix(")"))
            findings.guessed(
                at + 1, column, f"'{short(rest)}' stands behind the bars", "it is kept as a remark"
            )


def _thinnest_first(rows: list[Row], first: int, findings: Findings) -> list[Row]:
    names = [row.name for row in rows]
    upside_down = [name.rstrip("0123456789") for name in reversed(names)]
    if tuple(name.upper() for name in upside_down) != STANDARD.letters or names[0] != "E" or names[-1] != "e":
        return rows
    findings.guessed(first + 1, 1, "the lowest string stands on top here, by the letters", "it is read so")
    return rows[::-1]


def _make_even(rows: list[Row], run: Sequence[int], lines: list[str], findings: Findings) -> None:
    """Bars of one width in all lines of a system: dashes at their ends come and go, never a note. Words above
    and below move with their bars."""
    old = _usual_starts(rows)
    texts = [row.text for row in rows]
    _level_edges(rows)
    if len({len(row.cells) for row in rows}) != 1:
        return
    widths = {tuple(map(len, row.cells)) for row in rows}
    if len(widths) == 1 and len({len(row.head) for row in rows}) == 1:
        if [row.text for row in rows] != texts:
            _tell(findings, run[0])
        return
    head = max(len(row.head) for row in rows)
    for row in rows:
        row.head = row.head.ljust(head) if row.name or not row.head.strip() else row.head
    for column in range(len(rows[0].cells)):
        width = _width([row.cells[column] for row in rows])
        for row in rows:
            row.cells[column] = _at_width(row.cells[column], width)
    if len(widths) > 1:
        _tell(findings, run[0])
    _move_words(lines, run, old, rows[0].starts)


def _tell(findings: Findings, first: int) -> None:
    findings.guessed(
        first + 1, 1, "the string lines are not equally long", "dashes at the ends of bars make them even"
    )


def _level_edges(rows: Sequence[Row]) -> None:
    """Bar lines that most have, in all: a first or last one left out, a single one for a double."""
    if any(row.edges[0] for row in rows):
        for row in rows:
            if not row.edges[0] and row.cells[0].startswith("-"):
                row.edges[0], row.cells[0] = "|", row.cells[0][1:]
    most = Counter(len(row.cells) for row in rows).most_common(1)[0][0]
    alike = [row for row in rows if len(row.cells) == most]
    for at in range(most + 1):
        wanted = max((row.edges[at] for row in alike), key=len) or "|" * (at == most)
        for row in alike:
            lacking = len(wanted) - len(row.edges[at])
            if lacking and at < most and row.cells[at].startswith("-" * lacking):
                row.cells[at] = row.cells[at][lacking:]
            row.edges[at] = wanted


def _usual_starts(rows: Sequence[Row]) -> list[int]:
    """Where most lines have their bars."""
    return list(Counter(tuple(row.starts) for row in rows).most_common(1)[0][0])


def _move_words(lines: list[str], run: Sequence[int], old: Sequence[int], new: Sequence[int]) -> None:
    """Words over and under bars that have moved stand over the same notes again."""
    if len(old) != len(new) or list(old) == list(new):
        return
    for step, begin in ((-1, run[0]), (1, run[-1])):
        for at in range(begin + step, begin + step * _FARTHEST_LABEL, step):
            if not 0 <= at < len(lines) or not lines[at].strip() or label_line(at + 1, lines[at]) is None:
                break
            lines[at] = _moved(lines[at], old, new)


def _moved(line: str, old: Sequence[int], new: Sequence[int]) -> str:
    made = ""
    for match in _WORD.finditer(line):
        bar = max(bisect_right(old, match.start()) - 1, 0)
        wanted = match.start() + new[bar] - old[bar]
        made = made.ljust(max(wanted, len(made) + bool(made))) + match.group()
    return made


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
