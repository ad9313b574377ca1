"""One string line as people type it: where its name ends, its bars, what stands behind them."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from clear_steps.formats.tabtext.lines import NOTHING

_NAME = r"[A-Ga-g][#b♯♭]?-?\d?|\d"
_NAMED = re.compile(
    rf"(?P<indent>\s{{0,12}})(?P<open>\()?(?P<name>{_NAME})(?P<close>\))?(?P<behind>\s{{0,3}}[|:\]]?)"
)
_BODY = re.compile(r"[-|:*\s0-9xXhHpPbBrRsStTvVoO~/\\()<>=?.^\[\]#]*")
_SIGNS_OF_BARS = re.compile(r"\|+")
_TAIL = re.compile(
    r"(?P<body>.*[-|:*0-9xX)>~=\\/.^])"
    r"(?P<tail>\s{2,}\S.*|\s+\([^()]*\)\s*|\s+\(?[xX] ?\d{1,2}\)?.*|\s+\(?\d{1,2} ?[xX]\)?.*)"
)
_LEAST_DASHES = 2
_FOREIGN = 12  # signs of another kind that a line may hold before it is no string line any more


@dataclass
class Row:
    """A string line in pieces: `cells` of bars with the `edges` before, between and behind them."""

    head: str
    name: str
    cells: list[str]
    edges: list[str]  # one more than cells; "" where none is written
    tail: str

    @property
    def text(self) -> str:
        """The line put together again."""
        pieces = [self.edges[0]]
        for cell, edge in zip(self.cells, self.edges[1:], strict=True):
            pieces += [cell, edge]
        return self.head + "".join(pieces) + self.tail

    @property
    def starts(self) -> list[int]:
        """The column of every cell, and the one behind the last."""
        at, found = len(self.head) + len(self.edges[0]), []
        for cell, edge in zip(self.cells, self.edges[1:], strict=True):
            found.append(at)
            at += len(cell) + len(edge)
        return [*found, at]


def row_of(line: str) -> Row | None:
    """The pieces of a string line; None of any other line."""
    text = line.rstrip()
    if text.count("-") < _LEAST_DASHES or text.lstrip().startswith("["):
        return None
    named = _NAMED.match(text)
    if named and not _is_name(named, text):
        named = None
    start = named.end() if named else len(text) - len(text.lstrip())
    bar_line = named["behind"].strip() if named else ""
    if not named and text[start] != "|":
        return None
    body = text[start:]
    if named and not bar_line and not body.startswith(("-", "|")):
        return None
    body, tail = _without_tail(body)
    inked = body.replace(" ", "")
    if not _BODY.fullmatch(body) and body.count("-") * 3 < len(inked) - _FOREIGN:
        return None
    if named and not bar_line and "|" not in body and body.count("-") < len(inked) / 2:
        return None
    head = _head(named) if named else text[:start]
    edge, cells, edges = "|" if bar_line else "", [], []
    if leading := _SIGNS_OF_BARS.match(body):
        edge, body = edge + leading.group(), body[leading.end() :]
    edges.append(edge)
    at = 0
    for match in _SIGNS_OF_BARS.finditer(body):
        cells.append(body[at : match.start()])
        edges.append(match.group())
        at = match.end()
    if body[at:].strip():
        cells.append(body[at:])
        edges.append("")
    else:
        tail = body[at:] + tail
    return Row(head, named["name"] if named else "", cells, edges, tail) if cells else None


def _head(named: re.Match[str]) -> str:
    """What stands before the bars, as wide as it is typed, without parentheses."""
    blanks = len(named["behind"]) - bool(named["behind"].strip()) + bool(named["close"])
    return f"{named['indent']}{' ' * bool(named['open'])}{named['name']}{' ' * blanks}"


def _is_name(match: re.Match[str], text: str) -> bool:
    """Whether what stands in front is the name of a string, and no word or fret."""
    rest = text[match.end() :]
    if match["name"].isdigit() and not match["behind"].strip():
        return rest.startswith("|")
    return bool(match["behind"].strip()) or rest.startswith(("-", "|"))


def _without_tail(body: str) -> tuple[str, str]:
    """The bars, and the words behind them."""
    last = body.rfind("|")
    if last >= 0 and "-" not in body[last:] and not any(sign.isdigit() for sign in body[last : last + 3]):
        return body[: last + 1], body[last + 1 :]
    if last >= 0 and body[last + 1 : last + 2] in ("", " "):
        rest = body[last + 1 :]
        if rest.count("-") < _LEAST_DASHES:
            return body[: last + 1], rest
    match = _TAIL.fullmatch(body)
    return (match["body"], match["tail"]) if match and last < match.end("body") else (body, "")


def runs_of(lines: Sequence[str]) -> list[list[int]]:
    """The systems: which lines are strings that stand together; strings one empty line apart do, where all
    of them stand alone."""
    at_all = [at for at, line in enumerate(lines) if row_of(line)]
    runs: list[list[int]] = []
    for at in at_all:
        if runs and at == runs[-1][-1] + 1:
            runs[-1].append(at)
        else:
            runs.append([at])
    return _joined(runs, lines)


def _joined(runs: list[list[int]], lines: Sequence[str]) -> list[list[int]]:
    made: list[list[int]] = []
    loose: list[int] = []
    for run in [*runs, []]:
        if len(run) == 1 and (not loose or _apart(loose[-1], run[0], lines)):
            loose.append(run[0])
            continue
        made.append(loose)
        loose = run if len(run) == 1 else []
        if len(run) != 1:
            made.append(run)
    return [run for run in made if run]


def _apart(one: int, two: int, lines: Sequence[str]) -> bool:
    return two == one + 2 and lines[one + 1].strip() in ("", NOTHING)
